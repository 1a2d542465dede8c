/**
 * What a tablet keeps of a PIN so that its user can open it without the server: a slow hash of it, with a salt of this tablet.
 * It opens the screen, not the server, which wants the PIN itself.
 */
const place = "palaestra-pin";

/** PBKDF2 with SHA-256: rounds by the OWASP password storage cheat sheet of 2023, from memory. */
const rounds = 600_000;
const wrongMost = 5;

interface Kept {
  who: string;
  salt: string;
  hash: string;
  wrong: number;
}

const hex = (bytes: Uint8Array) => [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
const bytesOf = (text: string) =>
  Uint8Array.from({ length: text.length / 2 }, (_, i) => parseInt(text.slice(i * 2, i * 2 + 2), 16));

async function hashOf(pin: string, salt: string) {
  const key = await crypto.subtle.importKey("raw", new TextEncoder().encode(pin), "PBKDF2", false, [
    "deriveBits",
  ]);
  const bits = await crypto.subtle.deriveBits(
    { name: "PBKDF2", hash: "SHA-256", salt: bytesOf(salt), iterations: rounds },
    key,
    256,
  );
  return hex(new Uint8Array(bits));
}

const read = (): Kept | null => JSON.parse(localStorage.getItem(place) ?? "null") as Kept | null;

/** Browsers reckon such hashes only over https and on the machine itself. */
const able = () => globalThis.isSecureContext && "subtle" in crypto;

export async function keepPin(who: string, pin: string) {
  if (!able()) return;
  const salt = hex(crypto.getRandomValues(new Uint8Array(16)));
  const kept: Kept = { who, salt, hash: await hashOf(pin, salt), wrong: 0 };
  localStorage.setItem(place, JSON.stringify(kept));
}

export const forgetPin = () => localStorage.removeItem(place);

/** Whether this tablet can open itself for somebody without the server. */
export const opensAlone = (who: string) => able() && read()?.who === who;

/** Whether it is the PIN of this user; after five wrong ones the tablet forgets it, and only the server opens it. */
export async function isPin(who: string, pin: string): Promise<boolean> {
  const kept = read();
  if (!kept || kept.who !== who || !able()) return false;
  const right = (await hashOf(pin, kept.salt)) === kept.hash;
  const wrong = right ? 0 : kept.wrong + 1;
  if (wrong >= wrongMost) forgetPin();
  else localStorage.setItem(place, JSON.stringify({ ...kept, wrong }));
  return right;
}
