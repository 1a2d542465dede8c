import { useMutation } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { DeviceView } from "../api/types";
import { Picker } from "../controls/Picker";
import { say } from "../words/say";

/** What the client of a simulated instrument does next; a real instrument has none of this. */
export function StandIn({ device }: { device: DeviceView }) {
  const begin = useMutation({
    mutationFn: (script: string) =>
      got(
        api.POST("/api/instruments/{device}/script", {
          params: { path: { device: device.device } },
          body: { script },
        }),
      ),
  });
  if (device.scripts.length === 0) return null;
  return (
    <Picker
      label={say("capture.the-simulated-client")}
      hideLabel
      placeholder={say("capture.simulated-client")}
      onPick={(script) => begin.mutate(script)}
      options={device.scripts.map((s) => ({ value: s.id, label: s.words }))}
      dashed
    />
  );
}
