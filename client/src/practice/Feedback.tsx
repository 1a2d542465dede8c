import type { ClipFeedback, ClipResult, Library } from "../api/types";
import { Small, Stack } from "../controls/layout";
import { say } from "../words/say";

const faultName = (library: Library, code: string) =>
  library.faults.find((fault) => fault.code === code)?.name ?? code;

const degrees = {
  "just-noticeable": say("practice.just-noticeable"),
  subtle: say("practice.subtle"),
  moderate: say("practice.moderate"),
  plain: say("practice.plain"),
  gross: say("practice.gross"),
} as const;

/** In a few words how an answer was. */
export function outcomeWords(result: ClipResult, library: Library) {
  const fault = result.spec.truth ? faultName(library, result.spec.truth.fault) : "";
  switch (result.outcome) {
    case "named":
      return say("practice.right-fault", { fault });
    case "other-name":
      return say("practice.gave-way-but", { fault });
    case "missed":
      return say("practice.missed-fault", { fault });
    case "rightly-clean":
      return say("practice.right-it-held");
    case "false-mark":
      return say("practice.it-had-held");
  }
}

/** What was there, when and how far; and how far off the mark was. */
export function Feedback({ feedback, library }: { feedback: ClipFeedback; library: Library }) {
  const { result } = feedback;
  const { truth } = result.spec;
  return (
    <Stack $gap={3} role="status">
      <h2>{outcomeWords(result, library)}</h2>
      {truth && (
        <>
          <p>
            {truth.rep != null
              ? say("practice.from-rep", { rep: truth.rep, degree: degrees[truth.degree] })
              : say("practice.from-second", { second: truth.second, degree: degrees[truth.degree] })}
          </p>
          <p>{library.faults.find((fault) => fault.code === truth.fault)?.seen}</p>
          {result.secondsLate != null && (
            <p>
              {result.secondsLate >= 0
                ? say("practice.seconds-later", { seconds: result.secondsLate })
                : say("practice.seconds-sooner", { seconds: -result.secondsLate })}
            </p>
          )}
          {result.otherSide === true && <p>{say("practice.it-was-the-other-side")}</p>}
        </>
      )}
      {feedback.why && <Small>{feedback.why}</Small>}
    </Stack>
  );
}
