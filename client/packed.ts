import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import type { Plugin } from "vite";

/** Kinds of file that get smaller; letters and pictures are packed already. */
const kinds = /\.(js|css|html|svg|json|txt)$/;
const leastBytes = 512;

/** Beside each file of the built client that gets smaller by it: the same as .br and .gz, made once for all who ask. */
export function packed(): Plugin {
  let folder = "";
  return {
    name: "packed",
    apply: "build",
    configResolved: (config) => {
      folder = path.resolve(config.root, config.build.outDir);
    },
    closeBundle: {
      order: "post",
      sequential: true,
      handler: () => {
        for (const name of readdirSync(folder, { recursive: true })) {
          const file = path.join(folder, String(name));
          if (!kinds.test(file) || statSync(file).size < leastBytes) continue;
          const bytes = readFileSync(file);
          const small = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY };
          writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: small }));
          writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
        }
      },
    },
  };
}
