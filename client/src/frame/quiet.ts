import { createContext, useContext, useLayoutEffect } from "react";

/** Tells the frame that nothing but what runs is wanted on the screen. */
export const QuietContext = createContext<(quiet: boolean) => void>(() => {});

/** The frame steps back for as long as this is shown. */
export function useQuiet() {
  const setQuiet = useContext(QuietContext);
  useLayoutEffect(() => {
    setQuiet(true);
    return () => setQuiet(false);
  }, [setQuiet]);
}
