import { say } from "../words/say";
import type { Programme } from "./programme";

/** When to stop and call, and whom; a number can be tapped. */
export function Warning({ programme }: { programme: Programme }) {
  const number = /\+?[\d][\d\s()/-]{5,}/.exec(programme.contact)?.[0];
  return (
    <section className="warning" aria-label={say("phone.warning-signs")}>
      <p>{programme.stop}</p>
      {programme.contact && (
        <p>
          {programme.contact}{" "}
          {number && <a href={`tel:${number.replace(/[^\d+]/g, "")}`}>{say("phone.call-now")}</a>}
        </p>
      )}
    </section>
  );
}
