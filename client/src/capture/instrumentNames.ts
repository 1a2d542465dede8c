import type { Instrument } from "../api/types";
import { say } from "../words/say";

/** What showed that the trunk moved. */
export const instrumentNames: Record<Instrument, string> = {
  eye: say("capture.eye"),
  hand: say("capture.hand"),
  dowel: say("capture.dowel"),
  fists: say("capture.fists"),
  ball: say("capture.ball"),
  cuff: say("capture.cuff"),
  tilt: say("capture.tilt-sensor"),
};
