/** Seconds a moving figure rests at each end before it goes on. */
export const rest = 0.8;

/** Which of `count` pictures shows after `elapsed` seconds: out, a rest, back, a rest, and again. */
export function frameAt(elapsed: number, moveSeconds: number, count: number): number {
  const way = Math.max(0.5, moveSeconds / 2);
  const round = 2 * (way + rest);
  const t = elapsed % round;
  const share = t < way ? t / way : t < way + rest ? 1 : t < 2 * way + rest ? 1 - (t - way - rest) / way : 0;
  return Math.round(share * (count - 1));
}

/** Seconds a picture of the movement takes: a rep of walking is a minute, a step is not. */
export const shownSeconds = (rung: { moveSeconds: number; features: string[] }) =>
  rung.features.includes("walking") ? 2 : rung.moveSeconds;

export const reducedMotion = () => matchMedia("(prefers-reduced-motion: reduce)").matches;

/** Seconds from one rung to the next, and before it sets out. */
export const changeSeconds = 0.9;
export const changeRest = 0.4;

/** Which of `count` pictures of a change shows, slow at both ends; the last once it is over. */
export function changeFrameAt(elapsed: number, count: number): number {
  const share = Math.min(1, Math.max(0, (elapsed - changeRest) / changeSeconds));
  return Math.round(share * share * (3 - 2 * share) * (count - 1));
}
