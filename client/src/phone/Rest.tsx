import { useEffect, useState } from "react";
import { say } from "../words/say";
import { tone } from "../controls/tone";

export function Rest(props: { seconds: number; sound: boolean; onOver: () => void; onHurts: () => void }) {
  const [left, setLeft] = useState(Math.ceil(props.seconds));
  useEffect(() => {
    const timer = setInterval(() => setLeft((l) => Math.max(0, l - 1)), 1000);
    return () => clearInterval(timer);
  }, []);
  useEffect(() => {
    if (left === 0 && props.sound) tone(880, 0.3);
  }, [left, props.sound]);
  return (
    <div className="rest">
      <h1>{left > 0 ? say("phone.rest") : say("phone.rested")}</h1>
      <p className="big" role="timer">
        {left}
      </p>
      <footer>
        <button type="button" className="hurts" onClick={props.onHurts}>
          {say("phone.it-hurts")}
        </button>
        <button type="button" className="main" onClick={props.onOver}>
          {say("phone.next-set")}
        </button>
      </footer>
    </div>
  );
}
