import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { contentVersion, hearVersions, newVersion, onVersions } from "./versions";

const page = (build: string) => {
  document.head.innerHTML = `<meta name="palaestra-client" content="${build}" />`;
};
const answer = (client: string, content: string) =>
  hearVersions(new Headers({ "palaestra-client": client, "palaestra-content": content }));

beforeEach(() => page("first"));
afterEach(() => {
  document.head.innerHTML = "";
});

describe("versions told with each answer", () => {
  it("are of this page until the server serves another", () => {
    answer("first", "a");
    expect([newVersion(), contentVersion()]).toEqual([false, "a"]);
    answer("second", "a");
    expect(newVersion()).toBe(true);
  });

  it("are left as they were by an answer of something on the way that tells none", () => {
    answer("first", "a");
    hearVersions(new Headers());
    expect([newVersion(), contentVersion()]).toEqual([false, "a"]);
  });

  it("are not heard from an answer kept for good, which comes late and tells of the build before", () => {
    page("second");
    answer("second", "b");
    const headers = {
      "palaestra-client": "first",
      "palaestra-content": "a",
      "cache-control": "private, max-age=9, immutable",
    };
    hearVersions(new Headers(headers));
    expect([newVersion(), contentVersion()]).toEqual([false, "b"]);
  });

  it("say nothing of a page that names no build", () => {
    document.head.innerHTML = "";
    answer("second", "a");
    expect(newVersion()).toBe(false);
  });

  it("are told on when they change, and only then", () => {
    answer("first", "a");
    const changed = vi.fn();
    const end = onVersions(changed);
    answer("first", "a");
    expect(changed).not.toHaveBeenCalled();
    answer("first", "b");
    expect(changed).toHaveBeenCalledExactlyOnceWith(
      { client: "first", content: "b" },
      { client: "first", content: "a" },
    );
    end();
    answer("first", "c");
    expect(changed).toHaveBeenCalledOnce();
  });
});
