import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";
import { compiled, files, folder, sentences } from "./words.mjs";

/** The sentences of the screens, parsed when the client is built. */
function words(): Plugin {
  const mine = "\0virtual:words";
  return {
    name: "words",
    resolveId: (id) => (id === "virtual:words" ? mine : null),
    load(id) {
      if (id !== mine) return null;
      files().forEach((name) => this.addWatchFile(folder + name));
      return `export default JSON.parse(${JSON.stringify(JSON.stringify(compiled(sentences())))})`;
    },
  };
}

const parser = "@formatjs/icu-messageformat-parser";

export default defineConfig(({ command }) => ({
  plugins: [react(), words()],
  // In the browser the parser is loaded where a clinic has sentences of its own, and nowhere else.
  resolve: {
    alias: [
      ...(command === "build"
        ? [{ find: new RegExp(`^${parser}$`), replacement: `${parser}/no-parser.js` }]
        : []),
      { find: "message-parser", replacement: new URL(import.meta.resolve(parser)).pathname },
    ],
  },
  // The content security policy allows no data: fonts, so nothing is inlined.
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  server: {
    proxy: Object.fromEntries(
      ["/api", "/health", "/words.js"].map((path) => [path, "http://127.0.0.1:5080"]),
    ),
  },
  // One page for all files: making one for each took most of the time. The tests leave nothing behind in it.
  test: {
    isolate: false,
    environment: "jsdom",
    // A busy host may take its time.
    testTimeout: 30_000,
    setupFiles: ["src/given/browser.ts"],
    include: ["src/**/*.test.{ts,tsx}"],
  },
}));
