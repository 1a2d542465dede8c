import { readFileSync } from "node:fs";
import type { Plugin } from "vite";
import { compiled, files, folder, saidIn, sentences } from "./words.mjs";

/**
 * The sentences of the screens, parsed when the client is built: each module brings those it says, so that they are loaded with
 * it and not before.
 */
export function words(): Plugin {
  const named = "virtual:words:";
  const texts = sentences();
  return {
    name: "words",
    resolveId: (id) => (id.startsWith(named) ? `\0${id}` : null),
    load(id) {
      if (!id.startsWith(`\0${named}`)) return null;
      files().forEach((name) => this.addWatchFile(folder + name));
      const said = saidIn(readFileSync(id.slice(named.length + 1), "utf8"), sentences());
      const parsed = JSON.stringify(JSON.stringify(compiled(said)));
      return `import { learn } from "${import.meta.dirname}/src/words/say.ts"; learn(JSON.parse(${parsed}));`;
    },
    transform: {
      filter: { id: /\/src\/.*(?<!\.d)\.tsx?$/ },
      handler: (code, id) =>
        Object.keys(saidIn(code, texts)).length > 0
          ? { code: `import "${named}${id}";${code}`, map: null }
          : null,
    },
  };
}
