import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { words } from "./wordsPlugin.ts";

const parser = "@formatjs/icu-messageformat-parser";

/** The page of the home programme: one script and one style that the server puts into the client's file, letters and all. */
export default defineConfig({
  plugins: [react(), words()],
  // The sentences are parsed here; nothing is parsed on the phone.
  resolve: {
    alias: [
      { find: /^@formatjs\/icu-messageformat-parser$/, replacement: `${parser}/no-parser.js` },
      { find: "message-parser", replacement: `${parser}/no-parser.js` },
    ],
  },
  build: {
    outDir: "dist/home",
    emptyOutDir: true,
    copyPublicDir: false,
    assetsInlineLimit: Infinity,
    cssCodeSplit: false,
    modulePreload: false,
    rolldownOptions: {
      input: "src/phone/main.tsx",
      output: { entryFileNames: "home.js", assetFileNames: "home.[ext]", codeSplitting: false },
    },
  },
});
