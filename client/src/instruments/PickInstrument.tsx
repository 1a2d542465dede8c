import { changeSettings, useLiveSettings } from "../capture/liveSettings";
import { Choice } from "../controls/fields";
import { useInstruments } from "./InstrumentStrip";

/** Which instrument this tablet watches; shown only where there are any. */
export function PickInstrument() {
  const { instrument } = useLiveSettings();
  const { data } = useInstruments();
  if (!data || data.length === 0) return null;
  return (
    <Choice
      label="Watch an instrument"
      value={instrument ?? "none"}
      onChange={(picked) => changeSettings({ instrument: picked === "none" ? null : picked })}
      options={[
        { value: "none", label: "none" },
        ...data.map((d) => ({
          value: d.device,
          label: `${d.setup.name.toLowerCase()}${data.filter((o) => o.setup.id === d.setup.id).length > 1 ? ` ${d.device}` : ""}${d.connected ? "" : ", not connected"}`,
        })),
      ]}
    />
  );
}
