// How long a client is searched for among 5,000, in six scripts. node bench/search.mjs [ADDRESS]; without one it starts a demo of its own.
import { demo } from "./demo.mjs";

const { address, close } = await demo(5199);
const clients = 5000;

const { accounts } = await (await fetch(`${address}/api/start`)).json();
const signedIn = await fetch(`${address}/api/sign-in`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ email: accounts[0].email, password: accounts[0].password }),
});
const cookie = signedIn.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");

async function ask(path, body) {
  const from = performance.now();
  const got = await fetch(`${address}${path}`, {
    method: body ? "POST" : "GET",
    headers: { cookie, "content-type": "application/json" },
    body: body && JSON.stringify(body),
  });
  const text = await got.text();
  if (!got.ok) throw new Error(`${path}: ${got.status} ${text}`);
  return { ms: performance.now() - from, json: JSON.parse(text) };
}

const first = ["Łukasz", "Мария", "Άννα", "أحمد", "שרה", "小明", "Jörg", "Zoé", "Perran", "Ottoline"];
const last = ["Żółć", "Ёлкина", "Παππάς", "إبراهيم", "כהן", "王", "Müller", "O’Brien", "Nance", "Brask"];
for (let i = 0; i < clients; i += 1) {
  const day = new Date(Date.UTC(1940 + (i % 60), i % 12, 1 + (i % 28))).toISOString().slice(0, 10);
  const name = `${first[i % 10]} ${last[Math.floor(i / 10) % 10]} ${i.toString(36)}`;
  await ask("/api/clients/registered", { name, birthDate: day, phone: `0151 ${100000 + i}` });
}

const at = (list, share) => list.toSorted((a, b) => a - b)[Math.floor(list.length * share)];
const sought = ["lukasz zolc", "елкина", "παππας", "احمد", "שרה", "王", "mueller", "obrien zoe", "1942-04-11", "0151104999", "brask otto", "3aq", "nobody"];
for (const words of sought) {
  const times = [];
  let found = 0;
  for (let i = 0; i < 40; i++) {
    const { ms, json } = await ask(`/api/clients?words=${encodeURIComponent(words)}`);
    if (i >= 5) times.push(ms);
    found = json.length;
  }
  console.log(`${words}: ${found} shown, median ${at(times, 0.5).toFixed(1)} ms, p95 ${at(times, 0.95).toFixed(1)} ms`);
}
const alike = [];
for (let i = 0; i < 40; i++) alike.push((await ask("/api/clients/alike?name=Mueller%20Jorg&birthDate=1942-04-11")).ms);
console.log(`alike: median ${at(alike, 0.5).toFixed(1)} ms, p95 ${at(alike, 0.95).toFixed(1)} ms`);
await close();
