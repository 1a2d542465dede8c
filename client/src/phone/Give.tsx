import { saveFile } from "../controls/saveFile";
import { create } from "qrcode";
import { useMemo, useState } from "react";
import { say } from "../words/say";
import { codesOf } from "./codes";
import type { Diary } from "./diary";
import { pack } from "./pack";
import type { Programme } from "./programme";

/** A code as one path, with the four modules of quiet that it needs around it. */
function Code({ text, words }: { text: string; words: string }) {
  const { size, path } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: "M" });
    let d = "";
    for (let y = 0; y < modules.size; y++)
      for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) d += `M${x + 4} ${y + 4}h1v1h-1z`;
    return { size: modules.size + 8, path: d };
  }, [text]);
  return (
    <svg
      className="code"
      role="img"
      aria-label={words}
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}

/** The log for the practitioner: codes to be scanned from this screen, or a file. */
export function Give(props: { programme: Programme; diary: Diary; onBack: () => void }) {
  const codes = useMemo(() => codesOf(pack(props.programme, props.diary)), [props.programme, props.diary]);
  const [at, setAt] = useState(0);
  const name = say("phone.code-of", { n: at + 1, all: codes.length });
  return (
    <div className="give">
      <header>
        <h1>{say("phone.my-log")}</h1>
        <button type="button" className="plain" onClick={props.onBack}>
          {say("phone.back")}
        </button>
      </header>
      <p>{say("phone.show-this")}</p>
      <Code text={codes[at]!} words={name} />
      <p role="status" className="big">
        {name}
      </p>
      {codes.length > 1 && (
        <button type="button" className="choice" onClick={() => setAt((at + 1) % codes.length)}>
          {say("phone.next-code")}
        </button>
      )}
      <button
        type="button"
        className="choice"
        onClick={() =>
          saveFile("exercise-log.txt", new Blob([`${codes.join("\n")}\n`], { type: "text/plain" }))
        }
      >
        {say("phone.save-the-log")}
      </button>
      <p>
        <small>{say("phone.nothing-else-leaves")}</small>
      </p>
    </div>
  );
}
