import { useEffect, useRef, useState } from "react";
import { say } from "../words/say";
import type { Programme, SetToDo } from "./programme";
import { Scale } from "./Scale";
import { Warning } from "./Warning";

export type HurtsWay = "smaller" | "leave" | "stop";

/** What to do when it hurts: smaller, left out, or stopped; when to call, and whom. */
export function Hurts(props: {
  programme: Programme;
  set: SetToDo | null;
  /** It is done half as far already: there is no smaller. */
  smaller: boolean;
  onTold: (pain: number, what: HurtsWay) => void;
  onBack: () => void;
}) {
  const { programme, set } = props;
  const [pain, setPain] = useState<number | null>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const strong = pain !== null && pain >= programme.stopFrom;
  return (
    <div className="hurt">
      <h1 ref={heading} tabIndex={-1}>
        {say("phone.rest-a-moment")}
      </h1>
      <p>{say("phone.good-that-you-noticed")}</p>
      <Scale label={say("phone.how-much-now")} value={pain} onTap={setPain} />
      {pain !== null && (
        <div className="ways" role="group" aria-label={say("phone.and-now")}>
          {strong && <p role="status">{say("phone.enough-for-today")}</p>}
          {!strong && set && (
            <>
              {!props.smaller && (
                <button type="button" className="choice" onClick={() => props.onTold(pain, "smaller")}>
                  {say("phone.make-it-smaller")}
                </button>
              )}
              <button type="button" className="choice" onClick={() => props.onTold(pain, "leave")}>
                {say("phone.leave-it-out")}
              </button>
            </>
          )}
          <button
            type="button"
            className={strong ? "choice main" : "choice"}
            onClick={() => props.onTold(pain, "stop")}
          >
            {say("phone.stop-for-today")}
          </button>
        </div>
      )}
      <Warning programme={programme} />
      <button type="button" className="plain" onClick={props.onBack}>
        {say("phone.back")}
      </button>
    </div>
  );
}
