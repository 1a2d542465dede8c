import { spawnSync } from "node:child_process";
import path from "node:path";
import { expect, test } from "@playwright/test";

/** A short run of `./palaestra kills`; the whole one is measured in docs/performance.md. */
test("kills of browser and server in the middle of a screen lose no mark and store none twice", () => {
  const run = spawnSync("node", [path.join(import.meta.dirname, "kills.mjs"), "5", "11"], { encoding: "utf8" });
  expect(run.stdout + run.stderr).toContain("0 missing, 0 twice, none refused");
  expect(run.status).toBe(0);
});
