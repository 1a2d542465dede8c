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
