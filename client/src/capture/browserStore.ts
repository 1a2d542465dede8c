import { openDB, type IDBPDatabase } from "idb";

/** A browser that does not answer for so long keeps nothing. */
const openingMs = 5000;

/**
 * A store of this browser.
 * @param create what is in it, the first time
 * @throws where the browser keeps nothing, or does not answer
 */
export async function openBrowserStore(
  name: string,
  create: (created: IDBPDatabase) => void,
): Promise<IDBPDatabase> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error("The browser's store did not open.")), openingMs);
  });
  try {
    return await Promise.race([openDB(name, 1, { upgrade: create }), late]);
  } finally {
    clearTimeout(timer);
  }
}
