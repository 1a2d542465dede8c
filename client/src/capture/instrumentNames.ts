import type { Instrument } from "../api/types";

/** What showed that the trunk moved. */
export const instrumentNames: Record<Instrument, string> = {
  eye: "eye",
  hand: "hand",
  dowel: "dowel",
  fists: "fists",
  ball: "ball",
  cuff: "cuff",
  tilt: "tilt sensor",
};
