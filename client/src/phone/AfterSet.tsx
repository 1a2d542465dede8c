import { say } from "../words/say";

/** Efforts told by one tap: their places on the scale from 0 to 10. Our own. */
const efforts = [3, 5, 8] as const;

export function AfterSet(props: { onTold: (effort: number | null) => void; onHurts: () => void }) {
  const words = { 3: say("phone.easy"), 5: say("phone.right-so"), 8: say("phone.hard") };
  return (
    <div className="after">
      <h1>{say("phone.how-was-it")}</h1>
      {efforts.map((effort) => (
        <button key={effort} type="button" className="choice" onClick={() => props.onTold(effort)}>
          {words[effort]}
        </button>
      ))}
      <button type="button" className="hurts" onClick={props.onHurts}>
        {say("phone.it-hurts")}
      </button>
      <button type="button" className="plain" onClick={() => props.onTold(null)}>
        {say("phone.do-not-say")}
      </button>
    </div>
  );
}
