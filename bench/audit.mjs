// What the audit adds to a read: the first look of an account at a record is noted, a second within ten minutes is not.
// node bench/audit.mjs [ADDRESS]; without one it starts a demo of its own; 300 clients are made.
import { demo } from "./demo.mjs";

const { address, close } = await demo(5198);
const clients = 300;

const { accounts } = await (await fetch(`${address}/api/start`)).json();

/** A reader with a cookie of its own. */
async function signedIn(account) {
  const answer = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ email: account.email, password: account.password }),
  });
  const cookie = answer.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
  return async (path, body) => {
    const from = performance.now();
    const got = await fetch(`${address}${path}`, {
      method: body ? "POST" : "GET",
      headers: { cookie, "content-type": "application/json" },
      body: body && JSON.stringify(body),
    });
    const text = await got.text();
    if (!got.ok) throw new Error(`${path}: ${got.status} ${text}`);
    return { ms: performance.now() - from, json: JSON.parse(text) };
  };
}

const [ines, bram, oriel] = await Promise.all(accounts.slice(0, 3).map(signedIn));
const form = {
  name: "Bench Client", birthDate: "1984-05-17", complaint: "Aches.", pain: { now: 2, worst: 4, usual: 2 }, settleHours: 1,
  wakesAtNight: false, precautions: [], dangerSigns: [], minutesPerDay: 20, policyId: "mastery-no-rise",
};
const ids = [];
for (let i = 0; i < clients; i++) ids.push((await ines("/api/clients", form)).json.episodeId);
for (const id of ids) await oriel(`/api/episodes/${id}`); // warms what both kinds of reads use

const noted = [];
const unnoted = [];
for (let i = 0; i < clients; i++) {
  noted.push((await bram(`/api/episodes/${ids[i]}`)).ms);
  if (i >= clients / 2) unnoted.push((await bram(`/api/episodes/${ids[i - clients / 2]}`)).ms);
}
for (const id of ids.slice(clients / 2)) unnoted.push((await bram(`/api/episodes/${id}`)).ms);

const at = (list, share) => list.toSorted((a, b) => a - b)[Math.floor(list.length * share)];
for (const [name, list] of Object.entries({ noted, unnoted })) {
  console.log(`${name}: median ${at(list, 0.5).toFixed(2)} ms, p95 ${at(list, 0.95).toFixed(2)} ms of ${list.length}`);
}
console.log(`the audit adds ${(at(noted, 0.95) - at(unnoted, 0.95)).toFixed(2)} ms at p95`);
await close();
