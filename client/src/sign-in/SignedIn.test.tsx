import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { keys } from "../api/queries";
import type { Tablet } from "../capture/TabletContext";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { SignedIn } from "./SignedIn";

const here = {
  keys: {
    works: true,
    who: { name: "Ines Tarrow", byPin: true },
    opensAlone: (name: string) => name === "Ines Tarrow",
  },
  days: {},
  held: {},
} as unknown as Tablet;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

it("a PIN that is half typed stays while the server is asked for again and again", async () => {
  const asked = vi.spyOn(api, "GET").mockRejectedValue(new TypeError("Failed to fetch"));
  const { queries } = show(<SignedIn />, askingQueries(), undefined, here);
  const field = () => screen.getByLabelText(say("sign-in.pin"));
  await waitFor(() => expect(field()).toBeTruthy());
  const typedInto = field();
  fireEvent.change(typedInto, { target: { value: "48" } });

  let answer = () => {};
  asked.mockImplementation(
    () => new Promise((_, fail) => (answer = () => fail(new TypeError("Failed to fetch")))) as never,
  );
  const again = queries.invalidateQueries({ queryKey: keys.start });
  // Neither while it is asked nor after it.
  await waitFor(() => expect(queries.getQueryState(keys.start)?.fetchStatus).toBe("fetching"));
  expect(field()).toBe(typedInto);
  await act(async () => {
    answer();
    await again.catch(() => undefined);
  });
  expect(field()).toBe(typedInto);
  expect(typedInto).toHaveProperty("value", "48");
});
