import { cleanup, fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { clinicTime, keepClinicTime } from "../api/clinicTime";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { HeightField, heightWords, heldWords, MassField, massWords } from "./personSize";

const before = clinicTime();
const reads = (units: "kg-cm" | "lb-ft-in") => keepClinicTime({ ...before, units });

afterEach(() => {
  cleanup();
  keepClinicTime(before);
});

function Kept(props: { of: typeof HeightField; from: number | null }) {
  const [value, setValue] = useState(props.from);
  return (
    <>
      <props.of value={value} onChange={setValue} />
      <output>{value}</output>
    </>
  );
}

const kept = () => Number(screen.getByRole("status").textContent);
const box = (label: string) => screen.getByRole<HTMLInputElement>("textbox", { name: label });

function write(label: string, text: string) {
  fireEvent.focus(box(label));
  fireEvent.change(box(label), { target: { value: text } });
  fireEvent.blur(box(label));
}

describe("a person's size", () => {
  beforeEach(() => reads("lb-ft-in"));

  it("is written in feet and inches and kept in centimetres", () => {
    show(<Kept of={HeightField} from={null} />, askingQueries());
    write(say("controls.height-feet"), "5");
    write(say("controls.height-inches"), "10");
    expect(kept()).toBe(177.8);
    write(say("controls.height-feet"), "6");
    expect(kept()).toBe(208.3);
  });

  it("is written in pounds and kept in kilograms", () => {
    show(<Kept of={MassField} from={null} />, askingQueries());
    write(say("controls.mass-pounds"), "150");
    expect(kept()).toBe(68);
  });

  it("stays as it was told in kilograms where it is only looked at in pounds", () => {
    show(<Kept of={MassField} from={72} />, askingQueries());
    const pounds = box(say("controls.mass-pounds"));
    expect(pounds.value).toBe("159");
    fireEvent.focus(pounds);
    fireEvent.blur(pounds);
    expect(kept()).toBe(72);
  });

  it("is said in the units of whoever reads it; a weight in the hands in both", () => {
    expect([massWords(72), heightWords(1.78), heldWords(8)]).toEqual([
      "159 lb",
      "5 ft 10 in",
      "8 kg (17.6 lb)",
    ]);
    reads("kg-cm");
    expect([massWords(72), heightWords(1.78), heldWords(8)]).toEqual(["72 kg", "1.78 m", "8 kg"]);
  });
});
