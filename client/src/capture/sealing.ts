/** The key this tablet locks up what it keeps with, open in memory. */
export interface TabletKey {
  id: string;
  /** The same, to be read by the server alone. */
  sealed: string;
  key: CryptoKey;
}

export interface Locked {
  nonce: string;
  data: string;
}

export const isLocked = (value: unknown): value is Locked =>
  typeof value === "object" && value !== null && "nonce" in value && "data" in value;

/** As many bytes at once as any browser takes for the arguments of a call. */
const chunk = 0x8000;

export const toBase64 = (bytes: Uint8Array) => {
  const texts: string[] = [];
  for (let at = 0; at < bytes.length; at += chunk)
    texts.push(String.fromCharCode(...bytes.subarray(at, at + chunk)));
  return btoa(texts.join(""));
};

/** A day of sixty visits is some megabytes, and is waited for: byte by byte without an iterator. */
export const fromBase64 = (text: string) => {
  const bytes = atob(text);
  const read = new Uint8Array(bytes.length);
  for (let at = 0; at < bytes.length; at++) read[at] = bytes.charCodeAt(at);
  return read;
};

const algorithm = "AES-GCM";
/** Bytes of a nonce that AES-GCM asks for (NIST SP 800-38D, from memory). */
const nonceBytes = 12;

/** Browsers lock up only over https and on the machine itself. */
export const locksUp = () => globalThis.isSecureContext && "subtle" in crypto;

/** Kept where a page could ask for it, it could not be read out of there. */
export const keyOf = (secret: Uint8Array<ArrayBuffer>) =>
  crypto.subtle.importKey("raw", secret, algorithm, false, ["encrypt", "decrypt"]);

export const newKey = () =>
  crypto.subtle.generateKey({ name: algorithm, length: 256 }, false, ["encrypt", "decrypt"]);

export const newNonce = () => crypto.getRandomValues(new Uint8Array(nonceBytes));

/** @param about what it is bound to: under another it does not open */
export async function lockUp(key: CryptoKey, text: Uint8Array<ArrayBuffer>, about = ""): Promise<Locked> {
  const nonce = newNonce();
  const data = await crypto.subtle.encrypt(bound(nonce, about), key, text);
  return { nonce: toBase64(nonce), data: toBase64(new Uint8Array(data)) };
}

/** @throws by another key, about something else, or altered */
export async function unlock(key: CryptoKey, locked: Locked, about = "") {
  const nonce = fromBase64(locked.nonce);
  return new Uint8Array(await crypto.subtle.decrypt(bound(nonce, about), key, fromBase64(locked.data)));
}

const bound = (iv: Uint8Array<ArrayBuffer>, about: string) => ({
  name: algorithm,
  iv,
  additionalData: new TextEncoder().encode(about),
});

export const lockUpText = (key: CryptoKey, value: unknown, about = "") =>
  lockUp(key, new TextEncoder().encode(JSON.stringify(value)), about);

export const unlockText = async (key: CryptoKey, locked: Locked, about = "") =>
  JSON.parse(new TextDecoder().decode(await unlock(key, locked, about))) as unknown;
