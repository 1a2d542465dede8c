import { liveSettings } from "./liveSettings";

let audio: AudioContext | null = null;

/** A short tone; the device may be muted, and old browsers have no sound at all. */
function tone(hertz: number, seconds: number) {
  if (!liveSettings().sound || typeof AudioContext === "undefined") return;
  audio ??= new AudioContext();
  const volume = audio.createGain();
  const source = audio.createOscillator();
  source.frequency.value = hertz;
  volume.gain.setValueAtTime(0.25, audio.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds);
  source.connect(volume).connect(audio.destination);
  source.start();
  source.stop(audio.currentTime + seconds);
}

function shake(pattern: number | number[]) {
  if (liveSettings().vibration && "vibrate" in navigator) navigator.vibrate(pattern);
}

/** One of the seconds counted in. */
export function signalCount() {
  tone(520, 0.12);
  shake(30);
}

/** Begin. */
export function signalStart() {
  tone(880, 0.3);
  shake(120);
}

/** The trunk gave way, as an instrument tells it. */
export function signalLost() {
  tone(260, 0.4);
  shake([200, 60, 200]);
}

/** What was asked is reached. */
export function signalTarget() {
  tone(1040, 0.18);
  setTimeout(() => tone(1320, 0.3), 180);
  shake([120, 80, 120]);
}
