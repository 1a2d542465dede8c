import { findRung } from "../api/queries";
import type { Dose, Library, PlanItem } from "../api/types";
import { Picker } from "../controls/Picker";
import { Row } from "../controls/layout";
import { heldWords } from "../controls/personSize";
import { say } from "../words/say";

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
  const asDrawn = { value: none, label: say("planning.as-drawn") };
  return (
    <Row $gap={3}>
      {rung.heights && (
        <Picker
          label={say("planning.height-rung", { rung: rung.name })}
          shown={say("planning.height")}
          value={dose.height == null ? none : String(dose.height)}
          options={[
            asDrawn,
            ...rung.heights.map((h) => ({
              value: String(h),
              label: say("planning.h-cm", { h: Math.round(h * 100) }),
            })),
          ]}
          onPick={(v) => onChange({ height: v === none ? null : Number(v) })}
        />
      )}
      {rung.loads && (
        <Picker
          label={say("planning.load-rung", { rung: rung.name })}
          shown={say("planning.load")}
          value={dose.load == null ? none : String(dose.load)}
          options={[
            { value: none, label: say("planning.not-set") },
            ...rung.loads.map((kg) => ({ value: String(kg), label: heldWords(kg) })),
          ]}
          onPick={(v) => onChange({ load: v === none ? null : Number(v) })}
        />
      )}
      {rung.banded && (
        <Picker
          label={say("planning.band-rung", { rung: rung.name })}
          shown={say("planning.band")}
          value={dose.band ?? none}
          options={[
            { value: none, label: say("planning.not-set") },
            { value: "light", label: say("planning.light") },
            { value: "medium", label: say("planning.medium") },
            { value: "strong", label: say("planning.strong") },
          ]}
          onPick={(v) => onChange({ band: v === none ? null : (v as Dose["band"]) })}
        />
      )}
      {modifiers.length > 0 && (
        <Picker
          label={say("planning.with-rung", { rung: rung.name })}
          shown={say("planning.with")}
          value={dose.modifier ?? none}
          options={[
            { value: none, label: say("planning.nothing-on-top") },
            ...modifiers.map((m) => ({
              value: m.id,
              label: `${m.name}${m.harder ? "" : ` ${say("planning.helps")}`}`,
            })),
          ]}
          onPick={(v) => onChange({ modifier: v === none ? null : v })}
        />
      )}
    </Row>
  );
}
