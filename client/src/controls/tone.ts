let audio: AudioContext | null = null;

/** A short tone; the device may be muted, have no sound at all, or not let the page make any. */
export function tone(hertz: number, seconds: number) {
  if (typeof AudioContext === "undefined") return;
  try {
    audio ??= new AudioContext();
    const volume = audio.createGain();
    const source = audio.createOscillator();
    source.frequency.value = hertz;
    volume.gain.setValueAtTime(0.25, audio.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds);
    source.connect(volume).connect(audio.destination);
    source.start();
    source.stop(audio.currentTime + seconds);
  } catch {
    // Silent then; the screen shows the same.
  }
}
