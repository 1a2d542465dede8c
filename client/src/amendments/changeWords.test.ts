import { describe, expect, it } from "vitest";
import type { Library } from "../api/types";
import { say } from "../words/say";
import { fieldWords, valueWords } from "./changeWords";

const library = {
  precautions: [{ id: "flexion", name: "Bending aggravates it" }],
  dangerSigns: [{ id: "night-pain", words: "Pain at night" }],
  goals: [],
  equipment: [],
  policies: [],
  faults: [{ code: "arch", name: "low back arches" }],
} as unknown as Library;

describe("what was amended, in words", () => {
  it("calls fields and values as a practitioner does", () => {
    expect(fieldWords("pain.now")).toBe(say("amendments.pain-now"));
    expect(fieldWords("somethingNew")).toBe("somethingNew");
    expect(valueWords(null, library)).toBe(say("amendments.not-asked"));
    expect(valueWords(0, library)).toBe("0");
    expect(valueWords(false, library)).toBe(say("amendments.no"));
    expect(valueWords("arch", library)).toBe("low back arches");
    expect(valueWords("below-knee", library)).toBe("below knee");
    expect(valueWords([], library)).toBe(say("amendments.none"));
    expect(valueWords(["arch", "night-pain"], library)).toBe("low back arches, Pain at night");
  });

  it("leaves what somebody wrote as it was written", () => {
    for (const text of ["L4-L5 is stiff", "+44-1632-960", "Well-known"]) {
      expect(valueWords(text, library)).toBe(text);
    }
    expect(valueWords("1984-05-17", library)).toContain("1984");
    expect(valueWords("2026-11-28T09:30:00Z", library)).toMatch(/:30$/);
  });

  it("tells what was drawn without its corners", () => {
    const area = { view: "back", kind: "pins-and-needles", strength: 4, outline: [1, 2, 3, 4, 5, 6] };
    expect(valueWords([area], library)).toBe("back pins and needles 4");
    expect(fieldWords("areas")).toBe(say("amendments.chart-areas"));
  });

  it("tells things of several parts by what stands in them", () => {
    expect(valueWords([{ id: "flexion", side: "both", note: null }], library)).toBe("Bending aggravates it");
    expect(valueWords([{ id: "flexion", side: "left" }], library)).toBe("Bending aggravates it left");
    expect(valueWords([{ planItemId: "0-1", side: "right", reps: 12 }], library)).toBe("right 12");
  });
});
