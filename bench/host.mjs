// How fast this machine is at this hour: the same arithmetic and the same hash each time. Other guests of a host take a share of it,
// so that all other figures of a run are compared by this one (bench/moved.mjs).
import { createHash } from "node:crypto";

const bytes = Buffer.alloc(16_000_000, 7);

function once() {
  const began = performance.now();
  let sum = 0;
  for (let i = 1; i < 30_000_000; i++) sum = (sum + i * i) % 1_000_003;
  createHash("sha256").update(bytes).update(String(sum)).digest();
  return performance.now() - began;
}

const times = Array.from({ length: 9 }, once).sort((a, b) => a - b);
console.log("\n| the machine itself | median, ms | 95th percentile, ms | runs |\n|---|---|---|---|");
console.log(`| thirty million squares and a hash of 16 MB | ${times[4].toFixed(1)} | ${times[8].toFixed(1)} | 9 |`);
