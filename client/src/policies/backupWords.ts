import { say } from "../words/say";
/** "2.4 MB"; below a megabyte in kB. */
export const bytesWords = (bytes: number) =>
  bytes >= 1_000_000
    ? say("policies.bytes-mb", { bytes: (bytes / 1_000_000).toFixed(1) })
    : say("policies.bytes-kb", { bytes: Math.ceil(bytes / 1000) });
