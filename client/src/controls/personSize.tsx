import { clinicTime } from "../api/clinicTime";
import { cmOf, feetOf, kgOf, poundsHeld, poundsOf } from "../api/personUnits";
import { say } from "../words/say";
import { NumberField } from "./fields";
import { Row } from "./layout";

const inPounds = () => clinicTime().units === "lb-ft-in";

/** "72 kg", "159 lb" */
export const massWords = (kg: number) =>
  inPounds()
    ? say("controls.pounds", { lb: poundsOf(kg) })
    : say("controls.kilograms", { kg: Math.round(kg) });

/** "1.78 m", "5 ft 10 in" */
export const heightWords = (metres: number) =>
  inPounds()
    ? say("controls.feet-and-inches", feetOf(metres * 100))
    : say("controls.metres", { m: metres.toFixed(2) });

/** A weight in the hands: it is marked in kilograms, and said in pounds beside for whoever reads those. */
export const heldWords = (kg: number) =>
  inPounds()
    ? say("controls.kilograms-in-pounds", { kg, lb: poundsHeld(kg) })
    : say("controls.kilograms", { kg });

interface SizeField {
  value: number | null;
  onChange: (value: number | null) => void;
  error?: string;
}

/** @param props.value in kilograms, whatever is shown */
export function MassField({ value, onChange, error }: SizeField) {
  return inPounds() ? (
    <NumberField
      label={say("controls.mass-pounds")}
      value={value === null ? null : poundsOf(value)}
      onChange={(pounds) => onChange(pounds === null ? null : kgOf(pounds))}
      error={error}
    />
  ) : (
    <NumberField label={say("controls.mass-kg")} value={value} onChange={onChange} error={error} />
  );
}

/** @param props.value in centimetres, whatever is shown */
export function HeightField({ value, onChange, error }: SizeField) {
  if (!inPounds())
    return <NumberField label={say("controls.height-cm")} value={value} onChange={onChange} error={error} />;
  const height = value === null ? null : feetOf(value);
  const set = (feet: number | null, inches: number | null) =>
    onChange(feet === null && inches === null ? null : cmOf({ feet: feet ?? 0, inches: inches ?? 0 }));
  return (
    <Row style={{ alignItems: "flex-start", flexWrap: "nowrap" }}>
      <NumberField
        label={say("controls.height-feet")}
        value={height?.feet ?? null}
        onChange={(feet) => set(feet, feet === null ? null : (height?.inches ?? 0))}
        min={0}
        max={8}
        error={error}
      />
      <NumberField
        label={say("controls.height-inches")}
        value={height?.inches ?? null}
        onChange={(inches) => set(height?.feet ?? null, inches)}
        min={0}
        max={11}
      />
    </Row>
  );
}
