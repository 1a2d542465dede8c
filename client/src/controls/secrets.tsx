import { TextField } from "./fields";
import { say } from "../words/say";

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  error?: string;
}

/** A password that is chosen. */
export const NewPasswordField = (props: Props) => (
  <TextField
    {...props}
    hint={say("controls.twelve-characters")}
    type="password"
    autoComplete="new-password"
  />
);

/** A password there is. */
export const PasswordField = (props: Props & { focused?: boolean }) => (
  <TextField {...props} type="password" autoComplete="current-password" />
);

/** Digits that open a tablet. */
export const PinField = (props: Props & { focused?: boolean; hint?: string }) => (
  <TextField {...props} type="password" inputMode="numeric" autoComplete="off" />
);

/** A code that was told once. */
export const CodeField = (props: Props) => (
  <TextField {...props} hint={say("controls.four-groups-of-five")} autoComplete="one-time-code" />
);
