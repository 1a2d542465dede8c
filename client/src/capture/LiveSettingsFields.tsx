import { Checkbox, Choice } from "../controls/fields";
import { Ruled, Row } from "../controls/layout";
import { changeSettings, useLiveSettings } from "./liveSettings";

/** Hands and rooms: which thumb, which signals, how long from the tap to the start. Kept on this tablet. */
export function LiveSettingsFields() {
  const settings = useLiveSettings();
  return (
    <Ruled aria-label="This tablet">
      <h3>This tablet</h3>
      <Row $gap={6}>
        <Choice
          label="Main button under the"
          value={settings.thumb}
          onChange={(thumb) => changeSettings({ thumb })}
          options={[
            { value: "left", label: "left thumb" },
            { value: "right", label: "right thumb" },
          ]}
        />
        <Choice
          label="A hold begins"
          value={String(settings.delay)}
          onChange={(delay) => changeSettings({ delay: Number(delay) })}
          options={[
            { value: "0", label: "at the tap" },
            { value: "3", label: "3 s after" },
            { value: "5", label: "5 s after" },
          ]}
        />
        <div>
          <Checkbox selected={settings.sound} onChange={(sound) => changeSettings({ sound })}>
            Sound at the start and the target
          </Checkbox>
          <Checkbox selected={settings.vibration} onChange={(vibration) => changeSettings({ vibration })}>
            Vibration
          </Checkbox>
        </div>
      </Row>
    </Ruled>
  );
}
