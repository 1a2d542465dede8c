/** The look, as names: chalk paper, ink, earth and sea. Every pair that carries text is AA or better. */
export const tokens = {
  colour: {
    paper: "#F7F3EA",
    sheet: "#FFFDF8",
    wash: "#EDE6D7",
    ink: "#24323A",
    slate: "#45575F",
    grey: "#56626A",
    rule: "#D9CEBB",
    sand: "#C9BBA6",
    /** A body in another posture, behind the one that counts. */
    ghost: "#DCD8CB",
    clay: "#A03F22",
    sea: "#1F6470",
    bark: "#7A3B1F",
    olive: "#566026",
    ochre: "#B27A12",
  },
  space: (n: number) => `${n * 4}px`,
  /** A finger at a metre. */
  target: "56px",
  radius: "4px",
  font: {
    text: '"Atkinson Hyperlegible Next", system-ui, sans-serif',
    display: '"Bricolage Grotesque Variable", "Atkinson Hyperlegible Next", sans-serif',
  },
  /** Below this the columns of a view stand under each other. */
  narrow: "@media (max-width: 900px)",
} as const;

export type Tokens = typeof tokens;
