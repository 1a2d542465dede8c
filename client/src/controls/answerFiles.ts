import { nameIn, saveFile } from "./saveFile";
import { type Answer, got } from "../api/client";

/** Saves what the server answers, under the name it gives it. */
export async function saveAnswer(asked: Promise<Answer<unknown>>) {
  const file = await got(asked);
  saveFile(nameIn((await asked).response.headers), file as Blob);
}

/** A file sent as it is, where the description says bytes. */
export const asItIs = (file: File, type: string) => ({
  body: file as never,
  bodySerializer: (body: string) => body,
  headers: { "content-type": type },
});
