import { changeSettings, useLiveSettings } from "./liveSettings";
import { Checkbox, Choice } from "../controls/fields";
import { Quiet, Row, Stack } from "../controls/layout";
import type { DeviceView } from "../api/types";
import { StandIn } from "./StandIn";
import { useInstruments } from "./useWatched";
import { say } from "../words/say";

/** Which instrument this tablet watches; shown only where there are any. */
export function PickInstrument() {
  const { instrument, lossTone } = useLiveSettings();
  const { data } = useInstruments();
  if (!data || data.length === 0) return null;
  const device = data.find((d) => d.device === instrument);
  return (
    <Stack $gap={2}>
      <Choice
        label={say("capture.watch-an-instrument")}
        value={instrument ?? "none"}
        onChange={(picked) => changeSettings({ instrument: picked === "none" ? null : picked })}
        options={[
          { value: say("capture.none"), label: say("capture.none") },
          ...data.map((d) => ({ value: d.device, label: nameOf(d, data) })),
        ]}
      />
      {device && (
        <Row $gap={4}>
          <Quiet>
            {device.setup.where}
            {device.battery !== null && say("capture.battery", { percent: Math.round(100 * device.battery) })}
            .
          </Quiet>
          <Checkbox selected={lossTone} onChange={(on) => changeSettings({ lossTone: on })}>
            {say("capture.tone-when-control-is-lost")}
          </Checkbox>
          <StandIn device={device} />
        </Row>
      )}
    </Stack>
  );
}

/** With the device's own name where there are several of a kind. */
function nameOf(device: DeviceView, all: DeviceView[]) {
  const several = all.filter((d) => d.setup.id === device.setup.id).length > 1;
  return [
    device.setup.name.toLowerCase(),
    several ? ` ${device.device}` : "",
    device.connected ? "" : ", not connected",
  ].join("");
}
