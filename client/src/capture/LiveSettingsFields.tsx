import { Checkbox, Choice } from "../controls/fields";
import { Ruled, Row } from "../controls/layout";
import { changeSettings, useLiveSettings } from "./liveSettings";
import { say } from "../words/say";

/** Hands and rooms: which thumb, which signals, how long from the tap to the start. Kept on this tablet. */
export function LiveSettingsFields() {
  const settings = useLiveSettings();
  return (
    <Ruled aria-label={say("capture.this-tablet")}>
      <h3>{say("capture.this-tablet")}</h3>
      <Row $gap={6}>
        <Choice
          label={say("capture.main-button-under-the")}
          value={settings.thumb}
          onChange={(thumb) => changeSettings({ thumb })}
          options={[
            { value: "left", label: say("capture.left-thumb") },
            { value: "right", label: say("capture.right-thumb") },
          ]}
        />
        <Choice
          label={say("capture.a-hold-begins")}
          value={String(settings.delay)}
          onChange={(delay) => changeSettings({ delay: Number(delay) })}
          options={[
            { value: "0", label: say("capture.at-the-tap") },
            { value: "3", label: say("capture.3-s-after") },
            { value: "5", label: say("capture.5-s-after") },
          ]}
        />
        <div>
          <Checkbox selected={settings.sound} onChange={(sound) => changeSettings({ sound })}>
            {say("capture.sound-at-the-start-and")}
          </Checkbox>
          <Checkbox selected={settings.vibration} onChange={(vibration) => changeSettings({ vibration })}>
            {say("capture.vibration")}
          </Checkbox>
          <Checkbox selected={settings.byItself} onChange={(byItself) => changeSettings({ byItself })}>
            {say("capture.by-itself")}
          </Checkbox>
          <Checkbox selected={settings.keys} onChange={(keys) => changeSettings({ keys })}>
            {say("capture.single-keys")}
          </Checkbox>
        </div>
      </Row>
    </Ruled>
  );
}
