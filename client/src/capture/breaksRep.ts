import type { Fault } from "../api/types";

/** Marked, the rep is not clean, however seldom it shows. */
export const breaksRep = (fault: Fault) => fault.kind === "breaking" || fault.spoilsRep === true;
