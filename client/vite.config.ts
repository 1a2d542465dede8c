import locales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";
import { packed } from "./packed.ts";
import { words } from "./wordsPlugin.ts";

/** Letters of the first page are asked for with the page, not after its styles. */
function earlyFonts(): Plugin {
  // What is read first, first; the script goes before the others.
  const first = /latin-400-normal/;
  const early =
    /(atkinson-hyperlegible-next-latin-(400|600)-normal|bricolage-grotesque-latin-wght-normal)-.*\.woff2$/;
  return {
    name: "early-fonts",
    transformIndexHtml: {
      order: "post",
      handler: (_, { bundle = {} }) =>
        Object.keys(bundle)
          .filter((file) => early.test(file))
          .map((file) => ({
            tag: "link",
            injectTo: "head-prepend",
            attrs: {
              rel: "preload",
              as: "font",
              type: "font/woff2",
              href: `/${file}`,
              crossorigin: true,
              ...(first.test(file) ? {} : { fetchpriority: "low" }),
            },
          })),
    },
  };
}

const parser = "@formatjs/icu-messageformat-parser";

export default defineConfig(({ command }) => ({
  plugins: [
    react(),
    words(),
    // Words of the component library in languages that the interface does not speak are left out.
    ...(command === "build" ? [{ ...locales.vite({ locales: ["en-US"] }), enforce: "pre" as const }] : []),
    earlyFonts(),
    packed(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "worker",
      filename: "sw.ts",
      injectRegister: false,
      injectManifest: {
        rollupFormat: "iife",
        // The page comes from the server, which knows its build; the phone's files belong to other pages.
        globPatterns: ["assets/*.{js,css,woff2,svg}", "icons/*.png"],
        dontCacheBustURLsMatching: /^assets\//,
      },
      manifest: {
        id: "/",
        name: "Palaestra",
        short_name: "Palaestra",
        description: "Screens trunk and pelvic control, counts clean work, plans the next step.",
        start_url: "/",
        display: "standalone",
        background_color: "#F7F3EA",
        theme_color: "#F7F3EA",
        icons: [192, 512].flatMap((size) =>
          (["any", "maskable"] as const).map((purpose) => ({
            src: `/icons/${purpose}-${size}.png`,
            sizes: `${size}x${size}`,
            type: "image/png",
            purpose,
          })),
        ),
      },
    }),
  ],
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
  build: {
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // One file for the door; what pages have in common in few, by which of them need it.
            { name: "door", tags: ["$initial"] },
            { name: "shared", minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 6_000 },
          ],
        },
      },
    },
  },
  server: {
    proxy: Object.fromEntries(["/api", "/health", "/words"].map((path) => [path, "http://127.0.0.1:5080"])),
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
