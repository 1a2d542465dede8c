import { tone } from "../controls/tone";
import { liveSettings } from "./liveSettings";

function sound(hertz: number, seconds: number) {
  if (liveSettings().sound) tone(hertz, seconds);
}

function shake(pattern: number | number[]) {
  if (liveSettings().vibration && "vibrate" in navigator) navigator.vibrate(pattern);
}

/** One of the seconds counted in. */
export function signalCount() {
  sound(520, 0.12);
  shake(30);
}

/** Begin. */
export function signalStart() {
  sound(880, 0.3);
  shake(120);
}

/** The trunk gave way, as an instrument tells it. */
export function signalLost() {
  sound(260, 0.4);
  shake([200, 60, 200]);
}

/** What was asked is reached. */
export function signalTarget() {
  sound(1040, 0.18);
  setTimeout(() => sound(1320, 0.3), 180);
  shake([120, 80, 120]);
}
