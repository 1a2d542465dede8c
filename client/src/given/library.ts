import type { Library } from "../api/types";

const rung = (id: string, name: string, sides: "each" | "both" = "each") => ({
  id,
  name,
  sides,
  sideMeans: "the leg that lowers",
  setup: ["On the back"],
  movement: "Lower one foot.",
  limit: "to the floor",
  breath: "free",
  start: { reps: 5, sets: 1, hold: 0 },
  faults: ["arch"],
  cues: ["Ribs down"],
  equipment: ["mat"],
});

/** Two ladders and three tasks: enough for the pages of a screen. */
export const smallLibrary = {
  feltPlaces: [
    { id: "abdomen", words: "abdomen", asIntended: true, change: null },
    { id: "low-back", words: "low back", asIntended: false, change: "shorten the range" },
  ],
  faults: [{ code: "arch", name: "low back arches", key: "a", kind: "breaking", region: "low-back" }],
  tasks: [
    { id: "leg-lowering", name: "Leg lowering", tells: "How low?", measure: "reps", ladder: "B", tries: 1 },
    {
      id: "loaded-hinge",
      name: "Loaded hinge",
      tells: "At which load?",
      measure: "kilograms",
      rung: "N1",
      tries: 1,
      loads: [0, 5, 10],
    },
    {
      id: "reaches",
      name: "Five reaches",
      tells: "How far?",
      measure: "centimetres",
      rung: "N1",
      tries: 3,
      variants: [{ id: "front", name: "to the front" }],
    },
  ],
  ladders: [
    {
      id: "B",
      name: "Limb lowering",
      trained: true,
      rungs: [rung("B1", "Foot float"), rung("B5", "Heel tap")],
    },
    { id: "N", name: "Under load", trained: true, rungs: [rung("N1", "Hip hinge", "both")] },
    { id: "T", name: "Tests", trained: false, rungs: [rung("T1", "Let-go")] },
  ],
} as unknown as Library;
