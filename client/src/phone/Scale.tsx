import { say } from "../words/say";

/** 0 to 10, one tap. */
export function Scale(props: { label: string; value: number | null; onTap: (pain: number) => void }) {
  return (
    <fieldset className="scale">
      <legend>{props.label}</legend>
      <div>
        {Array.from({ length: 11 }, (_, n) => (
          <button
            key={n}
            type="button"
            aria-pressed={props.value === n}
            aria-label={say("phone.of-ten", { n })}
            onClick={() => props.onTap(n)}
          >
            {n}
          </button>
        ))}
      </div>
      <small>{say("phone.scale-ends")}</small>
    </fieldset>
  );
}
