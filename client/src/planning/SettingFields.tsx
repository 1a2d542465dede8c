import { findRung } from "../api/queries";
import type { Dose, Library, PlanItem } from "../api/types";
import { Picker } from "../controls/Picker";
import { Row } from "../controls/layout";

const none = "none";

/** What the movement is done at, under and with, the same for both sides; only what the rung has. */
export function SettingFields(props: {
  item: PlanItem;
  library: Library;
  onChange: (change: Partial<Dose>) => void;
}) {
  const { item, library, onChange } = props;
  const { rung, ladder } = findRung(library, item.rungId);
  const dose = item.doses[0]?.dose;
  const modifiers = library.modifiers.filter(
    (m) => m.ladders.includes(ladder.id) || m.rungs.includes(rung.id),
  );
  if (!dose) return null;
  const asDrawn = { value: none, label: "as drawn" };
  return (
    <Row $gap={3}>
      {rung.heights && (
        <Picker
          label={`Height, ${rung.name}`}
          shown="Height"
          value={dose.height == null ? none : String(dose.height)}
          options={[
            asDrawn,
            ...rung.heights.map((h) => ({ value: String(h), label: `${Math.round(h * 100)} cm` })),
          ]}
          onPick={(v) => onChange({ height: v === none ? null : Number(v) })}
        />
      )}
      {rung.loads && (
        <Picker
          label={`Load, ${rung.name}`}
          shown="Load"
          value={dose.load == null ? none : String(dose.load)}
          options={[
            { value: none, label: "not set" },
            ...rung.loads.map((kg) => ({ value: String(kg), label: `${kg} kg` })),
          ]}
          onPick={(v) => onChange({ load: v === none ? null : Number(v) })}
        />
      )}
      {rung.banded && (
        <Picker
          label={`Band, ${rung.name}`}
          shown="Band"
          value={dose.band ?? none}
          options={[
            { value: none, label: "not set" },
            { value: "light", label: "light" },
            { value: "medium", label: "medium" },
            { value: "strong", label: "strong" },
          ]}
          onPick={(v) => onChange({ band: v === none ? null : (v as Dose["band"]) })}
        />
      )}
      {modifiers.length > 0 && (
        <Picker
          label={`With, ${rung.name}`}
          shown="With"
          value={dose.modifier ?? none}
          options={[
            { value: none, label: "nothing on top" },
            ...modifiers.map((m) => ({ value: m.id, label: `${m.name}${m.harder ? "" : " (helps)"}` })),
          ]}
          onPick={(v) => onChange({ modifier: v === none ? null : v })}
        />
      )}
    </Row>
  );
}
