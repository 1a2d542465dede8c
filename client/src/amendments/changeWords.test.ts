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

  it("tells things of several parts by what stands in them", () => {
    expect(valueWords([{ id: "flexion", side: "both", note: null }], library)).toBe("Bending aggravates it");
    expect(valueWords([{ id: "flexion", side: "left" }], library)).toBe("Bending aggravates it left");
    expect(valueWords([{ planItemId: "0-1", side: "right", reps: 12 }], library)).toBe("right 12");
  });
});
