/** Longest wait for a browser that never rests. */
const longestMs = 5000;
/** Where the browser does not tell when it rests. */
const laterMs = 1500;

/** Does something once the browser has nothing better to do; returns what calls that off. */
export function atRest(work: () => void): () => void {
  if (!("requestIdleCallback" in window)) {
    const timer = setTimeout(work, laterMs);
    return () => clearTimeout(timer);
  }
  const turn = requestIdleCallback(work, { timeout: longestMs });
  return () => cancelIdleCallback(turn);
}
