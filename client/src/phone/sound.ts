let audio: AudioContext | null = null;

/** A short tone; a phone may have none, or not let the page make any. */
export function tone(hertz: number, seconds: number) {
  try {
    audio ??= new AudioContext();
    const volume = audio.createGain();
    const source = audio.createOscillator();
    source.frequency.value = hertz;
    volume.gain.setValueAtTime(0.2, audio.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds);
    source.connect(volume).connect(audio.destination);
    source.start();
    source.stop(audio.currentTime + seconds);
  } catch {
    // Silent then; the page shows the same.
  }
}

/** Keeps the screen lit while a set runs, where the phone lets it; returns what ends that. */
export function stayLit(): () => void {
  let lock: WakeLockSentinel | null = null;
  let over = false;
  void navigator.wakeLock?.request("screen").then(
    (got) => {
      if (over) void got.release();
      else lock = got;
    },
    () => undefined,
  );
  return () => {
    over = true;
    void lock?.release();
  };
}
