const leftAt = "palaestra-left";

/** Somebody signed out and the server has not said so: it is told before anything else. */
export const leftHere = () => localStorage.getItem(leftAt) !== null;
export const leaveHere = (left: boolean) =>
  left ? localStorage.setItem(leftAt, "1") : localStorage.removeItem(leftAt);
