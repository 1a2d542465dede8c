// How long a wrong password takes for a name that is there and for one that is not, and a right one: medians over the demo.
// node bench/sign-in.mjs [ADDRESS]; without one it starts a demo of its own. Each name is tried from below the limit of wrong tries.
import { demo } from "./demo.mjs";

const { address, close } = await demo(5194);
const tries = 4;

async function tried(email, password) {
  const from = performance.now();
  const answer = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ email, password }),
  });
  await answer.arrayBuffer();
  return { ms: performance.now() - from, status: answer.status };
}

const median = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];

const { accounts } = await (await fetch(`${address}/api/start`)).json();
await tried("nobody@nowhere.example", "warming up the hash");
const known = [];
const unknown = [];
for (const account of accounts) {
  for (let i = 0; i < tries; i++) {
    known.push(await tried(account.email, "not this one at all"));
    unknown.push(await tried(`nobody-${account.email}`, "not this one at all"));
  }
}
const right = [];
for (let i = 0; i < 10; i++) right.push(await tried(accounts[0].email, accounts[0].password));
for (const [name, list] of Object.entries({ known, unknown, right })) {
  const statuses = [...new Set(list.map((one) => one.status))].join(", ");
  console.log(`${name}: ${median(list.map((one) => one.ms)).toFixed(1)} ms median of ${list.length} (answers ${statuses})`);
}
const [a, b] = [known, unknown].map((list) => median(list.map((one) => one.ms)));
console.log(`apart by ${((100 * Math.abs(a - b)) / Math.max(a, b)).toFixed(1)} %`);
await close();
