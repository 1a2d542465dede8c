import { say } from "../words/say";
import type { ProgrammeSide } from "./programme";

/** Which side works, across the whole page; nothing where both do. */
export function SideBand({ side }: { side: ProgrammeSide }) {
  if (side.side === "both") return null;
  return (
    <p className={`side ${side.side}`}>
      <strong>{side.side === "left" ? say("phone.left") : say("phone.right")}</strong>{" "}
      <span>{side.sideMeans}</span>
    </p>
  );
}
