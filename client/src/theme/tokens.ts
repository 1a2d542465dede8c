/** Chalk paper, ink, earth and sea. Every pair that carries text is AA or better, in both. */
const light = {
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
};

export type Colour = Record<keyof typeof light, string>;

/** For dim rooms: the same names, light on dark. */
const dark: Colour = {
  paper: "#182026",
  sheet: "#212B32",
  wash: "#2D3941",
  ink: "#F2EBDD",
  slate: "#B7C3C9",
  grey: "#A8B4BB",
  rule: "#3B4850",
  sand: "#66737A",
  ghost: "#34414A",
  clay: "#F29274",
  sea: "#6FBFCC",
  bark: "#E3A483",
  olive: "#B6C47E",
  ochre: "#E2B052",
};

/** The look, as names. */
const look = (scheme: "light" | "dark", colour: Colour) => ({
  scheme,
  colour,
  space: (n: number) => `${n * 4}px`,
  /** A finger at a metre. */
  target: "56px",
  radius: "4px",
  font: {
    text: '"Atkinson Hyperlegible Next", system-ui, sans-serif',
    display: '"Bricolage Grotesque Variable", "Atkinson Hyperlegible Next", sans-serif',
  },
  /** Below this the columns of a view stand under each other. */
  narrow: "@media (max-width: 56.25em)",
});

export type Tokens = ReturnType<typeof look>;
export const tokens = look("light", light);
export const darkTokens = look("dark", dark);
