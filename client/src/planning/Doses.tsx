import { memo } from "react";
import type { Dose, PlanItem, Rung } from "../api/types";
import { DoseLine } from "./DoseLine";

interface Props {
  item: PlanItem;
  rung: Rung;
  whole?: boolean;
  onChange: (item: PlanItem) => void;
}

/** The dose of each side. Drawn again only when the exercise is another one. */
export const Doses = memo(Lines, (a, b) => a.item === b.item && a.rung === b.rung && a.whole === b.whole);

function Lines({ item, rung, whole, onChange }: Props) {
  const put = (index: number, change: (d: PlanItem["doses"][number]) => PlanItem["doses"][number]) =>
    onChange({ ...item, doses: item.doses.map((d, i) => (i === index ? change(d) : d)) });
  return (
    <div>
      {item.doses.map((dose, i) => (
        <DoseLine
          key={dose.side}
          dose={dose}
          held={rung.target.hold > 0}
          moves={rung.poses.start !== rung.poses.end && rung.sides !== "none"}
          whole={whole}
          onDose={(change: Partial<Dose>) => put(i, (d) => ({ ...d, dose: { ...d.dose, ...change } }))}
          onRange={(range) => put(i, (d) => ({ ...d, range, dose: { ...d.dose, range } }))}
        />
      ))}
    </div>
  );
}
