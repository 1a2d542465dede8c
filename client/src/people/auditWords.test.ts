import { describe, expect, it } from "vitest";
import { say } from "../words/say";
import { changesOf, whatWords } from "./auditWords";

describe("the words of the audit", () => {
  it("say what was changed or looked at, and else what the program calls it", () => {
    expect(whatWords("PlanRevision")).toBe(say("people.what-plan"));
    expect(whatWords("GetPlan")).toBe(say("people.what-plan"));
    expect(whatWords("SomethingNew")).toBe("SomethingNew");
  });

  it("tell before and after field by field", () => {
    const payload = JSON.stringify({
      Name: { before: "Wilmot", after: "Wilmot Sedge" },
      Pain: { before: { now: 3 }, after: { now: 5 } },
      Left: { before: "once" },
      Came: { after: 4 },
    });
    expect(changesOf(payload)).toEqual([
      { field: "Name", before: "Wilmot", after: "Wilmot Sedge" },
      { field: "Pain", before: '{"now":3}', after: '{"now":5}' },
      { field: "Left", before: "once", after: null },
      { field: "Came", before: null, after: "4" },
    ]);
  });

  it("tell nothing of what was erased or is no change", () => {
    expect(changesOf(null)).toEqual([]);
    expect(changesOf('{"entries":3,"since":"2026-11-29T09:00:00Z"}')).toEqual([]);
  });

  it("cut what is long", () => {
    const long = "a".repeat(400);
    expect(changesOf(JSON.stringify({ Plan: { after: long } }))[0]!.after).toBe(`${"a".repeat(160)} …`);
  });
});
