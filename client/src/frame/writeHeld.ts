import { api, got, ProblemError } from "../api/client";
import type { EpisodeView, IntakeForm, VisitView } from "../api/types";
import type {
  HeldAnswer,
  HeldCheckIn,
  HeldIntake,
  Write,
  WriteSealed,
  Written,
} from "../capture/heldAnswers";

/** A request that hangs longer is given up, and made again. */
const patienceMs = 15_000;

/** Writes what was held, in the name of whoever is signed in: theirs. */
export const writeHeld: Write = (answer) => {
  switch (answer.kind) {
    case "red-flags":
      return written(report(answer));
    case "check-in":
      return written(checkIn(answer, answer.version), (current: VisitView) =>
        alike(answer.checkIn, current.checkIn)
          ? "same"
          : alike(answer.before, current.checkIn)
            ? checkIn(answer, current.version)
            : "other",
      );
    case "intake":
      return written(intake(answer, answer.form.version), (current: EpisodeView) =>
        alike(answer.form, current.intake)
          ? "same"
          : alike(answer.before, current.intake)
            ? intake(answer, current.version)
            : "other",
      );
  }
};

/** Reports what somebody else noted here before they left, in their name. */
export const writeSealed: WriteSealed = ({ sealed, about, nonce, data }) =>
  written(
    got(
      api.POST("/api/sealed-red-flags", {
        body: { sealed, about, nonce, data },
        signal: timely(),
      }),
    ),
  );

const timely = () => AbortSignal.timeout(patienceMs);

const report = ({ episodeId, dangerSigns }: Extract<HeldAnswer, { kind: "red-flags" }>) =>
  got(
    api.POST("/api/episodes/{id}/danger-reports", {
      params: { path: { id: episodeId } },
      body: { dangerSigns },
      signal: timely(),
    }),
  );

const checkIn = ({ visitId, checkIn }: HeldCheckIn, version: number) =>
  got(
    api.PUT("/api/visits/{visitId}/check-in", {
      params: { path: { visitId } },
      body: { checkIn, version },
      signal: timely(),
    }),
  );

const intake = ({ episodeId, form }: HeldIntake, version: IntakeForm["version"]) =>
  got(
    api.PUT("/api/episodes/{id}/intake", {
      params: { path: { id: episodeId } },
      body: { ...form, version },
      signal: timely(),
    }),
  );

/**
 * @param settle where something else was stored meanwhile: "same", it is this already (its answer was lost on the way); a promise,
 * written again on what stands there now, since nothing of it was changed; "other", somebody else has answered
 */
async function written<T>(
  writing: Promise<unknown>,
  settle?: (current: T) => Promise<unknown> | "same" | "other",
): Promise<Written> {
  try {
    await writing;
    return { kind: "taken" };
  } catch (problem) {
    if (!(problem instanceof ProblemError)) return { kind: "later" };
    const settled = problem.status === 409 && problem.current && settle?.(problem.current as T);
    if (settled === "same") return { kind: "taken" };
    if (settled instanceof Promise) return written(settled);
    return final.includes(problem.status) ? { kind: "refused", why: whyOf(problem) } : { kind: "later" };
  }
}

/** Answered so, the server answers the same again. */
const final = [400, 403, 404, 409, 422];

const whyOf = (problem: ProblemError) =>
  [problem.message, ...problem.fields.map((field) => field.message)].join(" ");

/** What a form carries beside its answers. */
const beside = ["version", "visitId", "id", "reason", "flagsAsked", "dangerSigns"];

/** Whether two answers say the same, as far as both speak of it. */
function alike(ours: object | null, theirs: object | null): boolean {
  if (!ours || !theirs) return ours === theirs;
  const other = theirs as Record<string, unknown>;
  return Object.entries(ours)
    .filter(([name]) => name in other && !beside.includes(name))
    .every(([name, value]) => JSON.stringify(value ?? null) === JSON.stringify(other[name] ?? null));
}
