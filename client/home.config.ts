import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { words } from "./wordsPlugin.ts";

const parser = "@formatjs/icu-messageformat-parser";

/**
 * The page of the home programme: one script and one style that the server puts into the client's file, letters and all. The
 * sentences are parsed here; with mode "own" the script can also read sentences of the clinic's own.
 */
export default defineConfig(({ mode }) => ({
  plugins: [react(), words()],
  resolve: {
    alias: [
      { find: /^@formatjs\/icu-messageformat-parser$/, replacement: `${parser}/no-parser.js` },
      {
        find: "message-parser",
        replacement:
          mode === "own" ? new URL(import.meta.resolve(parser)).pathname : `${parser}/no-parser.js`,
      },
    ],
  },
  build: {
    outDir: "dist/home",
    emptyOutDir: mode !== "own",
    copyPublicDir: false,
    assetsInlineLimit: Infinity,
    cssCodeSplit: false,
    modulePreload: false,
    rolldownOptions: {
      input: "src/phone/main.tsx",
      output: {
        entryFileNames: mode === "own" ? "home-own.js" : "home.js",
        assetFileNames: "home.[ext]",
        codeSplitting: false,
      },
    },
  },
}));
