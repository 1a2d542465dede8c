import { cpSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const dist = path.resolve(import.meta.dirname, "../../client/dist");

/** A build of the client in a folder of its own, which a later one takes the place of. */
export class Build {
  readonly folder = mkdtempSync(path.join(tmpdir(), "palaestra-client-"));

  /** The client under other names, as the next build would have them; nothing of the one before stays in its folder. */
  make(mark: string) {
    const { folder } = this;
    this.remove();
    cpSync(dist, folder, { recursive: true, filter: (file) => !/\.(br|gz)$/.test(file) });
    const assets = path.join(folder, "assets");
    const named = readdirSync(assets).filter((file) => /\.(js|css)$/.test(file));
    const renamed = (text: string) =>
      named.reduce((all, file) => all.replaceAll(file, file.replace(/\.(js|css)$/, `${mark}.$1`)), text);
    const naming = ["index.html", "sw.js"].map((file) => path.join(folder, file));
    for (const file of [...naming, ...named.map((name) => path.join(assets, name))])
      writeFileSync(file, renamed(readFileSync(file, "utf8")));
    for (const file of named) renameSync(path.join(assets, file), path.join(assets, renamed(file)));
  }

  remove() {
    rmSync(this.folder, { recursive: true, force: true });
  }
}
