import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  // The content security policy allows no data: fonts, so nothing is inlined.
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  server: { proxy: { "/api": "http://127.0.0.1:5080", "/health": "http://127.0.0.1:5080" } },
  // One page for all files: making one for each took most of the time. The tests leave nothing behind in it.
  test: { isolate: false, environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
