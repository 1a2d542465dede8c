import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { keys } from "../api/queries";
import type { OverridesView } from "../api/types";
import { quietQueries, show } from "../given/show";
import { outcomeWords } from "../controls/words";
import { say } from "../words/say";
import { OverridesPage } from "./OverridesPage";

const line = (change: Partial<OverridesView["latest"][number]> = {}) =>
  ({
    at: "2026-11-20",
    episodeId: "e1",
    visitId: "v1",
    by: "Ines Tarrow",
    ruleId: "D-UP",
    proposed: "step-up",
    taken: "stay",
    reason: "slept badly",
    ...change,
  }) as OverridesView["latest"][number];

function open(view: Partial<OverridesView>) {
  const queries = quietQueries();
  queries.setQueryData(keys.overrides, { rules: [], latest: [], ...view });
  show(<OverridesPage />, queries);
}

afterEach(cleanup);

describe("where practitioners disagree with the policy", () => {
  it("says what comes here while nothing has been decided", () => {
    open({});
    expect(screen.getByText(say("progression.no-decisions-yet"))).toBeTruthy();
    expect(screen.getByRole("link", { name: say("progression.go-to-the-day") }).getAttribute("href")).toBe(
      "/",
    );
  });

  it("counts by rule how often something else was chosen, and what", () => {
    open({
      rules: [
        { ruleId: "D-UP", proposals: 8, overridden: 2, instead: { stay: 1, "step-down": 1 } },
        { ruleId: "D-HOLD", proposals: 4, overridden: 0, instead: {} },
      ] as unknown as OverridesView["rules"],
    });
    const rows = screen.getAllByRole("row").slice(1);
    expect(within(rows[0]!).getByText("(25 %)")).toBeTruthy();
    expect(rows[0]!.textContent).toContain(`${outcomeWords.stay} 1, ${outcomeWords["step-down"]} 1`);
    expect(within(rows[1]!).getByText("(0 %)")).toBeTruthy();
    // Of all together.
    expect(screen.getByText(/2.*12/)).toBeTruthy();
  });

  it("tells the same word on both sides of an exercise once, and another reason apart", () => {
    open({
      rules: [
        { ruleId: "D-UP", proposals: 3, overridden: 3, instead: { stay: 3 } },
      ] as unknown as OverridesView["rules"],
      latest: [line(), line(), line({ reason: "new job" }), line({ visitId: "v2" })],
    });
    const told = within(screen.getByRole("region", { name: say("progression.the-latest") })).getAllByRole(
      "listitem",
    );
    expect(told).toHaveLength(3);
    expect(told[0]!.textContent).toContain(say("progression.times-times", { times: 2 }).trim());
    expect(told[1]!.textContent).toContain("new job");
    expect(within(told[2]!).getByRole("link").getAttribute("href")).toBe("/episodes/e1/visits/v2/decide");
  });
});
