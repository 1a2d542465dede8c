import { Choice } from "../controls/fields";
import { Small, Stack } from "../controls/layout";
import { choose, useChosenLook } from "../theme/chosenLook";
import { say } from "../words/say";

/** Light or dark on this device; nothing of it is stored with the account. */
export function LookSection() {
  return (
    <section aria-label={say("people.look")}>
      <Stack $gap={2}>
        <h2>{say("people.look")}</h2>
        <Choice
          label={say("people.on-this-device")}
          value={useChosenLook()}
          onChange={choose}
          options={[
            { value: "device", label: say("people.as-the-device") },
            { value: "light", label: say("people.light") },
            { value: "dark", label: say("people.dark") },
          ]}
        />
        <Small>{say("people.paper-stays-light")}</Small>
      </Stack>
    </section>
  );
}
