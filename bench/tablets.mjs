// Tablets that send taps, a batch of one each, as a practitioner's hand makes them.
import { randomUUID } from "node:crypto";

/** The taps that begin a trial of a visit. */
export const begin = (visitId) => {
  const trialId = randomUUID();
  return {
    visitId,
    trialId,
    events: [
      {
        kind: "trial-started", id: randomUUID(), trialId, at: new Date().toISOString(), rungId: "B5", side: "left",
        purpose: "screen", target: { reps: 10, sets: 1, hold: 0, fewer: 0, range: 1 },
      },
    ],
  };
};

export const rep = (trialId) => ({ kind: "rep-done", id: randomUUID(), trialId, at: new Date(Date.now() + 1000).toISOString() });

/** How long it took until they were acknowledged, in ms. */
export async function send(post, visitId, events) {
  const from = performance.now();
  const answer = await post(`/api/visits/${visitId}/events`, { events });
  if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`);
  return performance.now() - from;
}

/** One tablet until a moment; tells of each acknowledged batch. A new trial every forty taps. */
async function tablet(post, visitId, perSecond, until, acknowledged) {
  let trial = begin(visitId);
  acknowledged(visitId, trial.events, await send(post, visitId, trial.events), true);
  for (let n = 0; performance.now() < until; n++) {
    const next = performance.now() + 1000 / perSecond;
    const opens = n % 40 === 39;
    if (opens) trial = begin(visitId);
    const events = opens ? trial.events : [rep(trial.trialId)];
    acknowledged(visitId, events, await send(post, visitId, events), opens);
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, next - performance.now())));
  }
}

/** All of them, begun one after the other within the first gap between two taps. */
export const together = (post, visits, tablets, perSecond, seconds, acknowledged) =>
  Promise.all(
    Array.from({ length: tablets }, async (_, i) => {
      await new Promise((resolve) => setTimeout(resolve, (1000 / perSecond / tablets) * i));
      await tablet(post, visits[i % visits.length], perSecond, performance.now() + seconds * 1000, acknowledged);
    }),
  );
