import styled from "styled-components";
import type { Dose, PlanItem } from "../api/types";
import { SideTag } from "../controls/SideTag";
import { say } from "../words/say";
import { DoseNumber } from "./DoseNumber";

const Words = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 4px;
  line-height: 1;
`;

type SideDose = PlanItem["doses"][number];

/** One side's dose in a line, as it is said: sets × reps, hold, range; every number opens. */
export function DoseLine(props: {
  dose: SideDose;
  held: boolean;
  /** The movement can be done over less than all of it. */
  moves: boolean;
  /** Everything that can be set, also what is at its usual value. */
  whole?: boolean;
  onDose: (change: Partial<Dose>) => void;
  onRange: (range: number) => void;
}) {
  const { side, dose, range } = props.dose;
  const share = Math.round((range ?? 1) * 100);
  return (
    <Words>
      {(side !== "both" || props.whole) && <SideTag side={side} />}
      <DoseNumber
        label={say("planning.sets-side", { side })}
        value={dose.sets}
        min={1}
        max={10}
        onChange={(sets) => props.onDose({ sets })}
      />
      <span>{"×"}</span>
      <DoseNumber
        label={say("planning.reps-side", { side })}
        value={dose.reps}
        min={1}
        max={50}
        onChange={(reps) => props.onDose({ reps })}
      />
      {props.held && (
        <>
          <span>{say("planning.hold")}</span>
          <DoseNumber
            label={say("planning.hold-in-seconds-side", { side })}
            value={dose.hold}
            unit={say("planning.s")}
            min={0}
            max={120}
            onChange={(hold) => props.onDose({ hold })}
          />
        </>
      )}
      {dose.sets > 1 && (dose.fewer > 0 || props.whole) && (
        <>
          <span>{say("planning.fewer-each-set")}</span>
          <DoseNumber
            label={say("planning.reps-fewer-in-each-next", { side })}
            value={dose.fewer}
            min={0}
            max={10}
            onChange={(fewer) => props.onDose({ fewer })}
          />
        </>
      )}
      {props.moves && (share < 100 || props.whole) && (
        <>
          <span>{say("planning.range")}</span>
          <DoseNumber
            label={say("planning.range-in-percent-of-the", { side })}
            value={share}
            unit={say("planning.percent")}
            min={20}
            max={100}
            step={5}
            onChange={(v) => props.onRange(v / 100)}
          />
        </>
      )}
    </Words>
  );
}
