import type { Fault, Library, Rung } from "../api/types";

/** Marked, the rep is not clean, however seldom it shows. */
export const breaksRep = (fault: Fault) => fault.kind === "breaking" || fault.spoilsRep === true;

/** The faults of a rung, each weighing what it weighs there. */
export const faultsHere = (rung: Rung, library: Library): Fault[] =>
  rung.faults.flatMap((code) => {
    const fault = library.faults.find((f) => f.code === code);
    return fault ? [{ ...fault, kind: rung.faultKinds?.[code] ?? fault.kind }] : [];
  });
