import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { BodyChart, ChartSheet, VisitChart } from "../api/types";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { ChartPage } from "./ChartPage";

const square = [0, -1000, 100, -1000, 100, -900, 0, -900];

const sheet = {
  figures: (["front", "back"] as const).map((view) => ({
    view,
    shapes: [{ role: "trunk", part: "trunk", outlines: [square] }],
    parts: [{ zone: "low-back", side: "left", outline: square }],
    left: -400,
    top: -1800,
    width: 800,
    height: 1800,
  })),
  patterns: (["ache", "sharp", "burning", "pins", "numb"] as const).map((kind) => ({
    kind,
    size: 20,
    path: "M0 0L1 1",
    line: 4,
  })),
  kinds: [
    { kind: "ache", name: "Ache" },
    { kind: "numb", name: "Numbness" },
  ],
  zones: [{ zone: "low-back", side: "left", name: "low back left" }],
} as unknown as ChartSheet;

const view = (change: Partial<VisitChart>): VisitChart =>
  ({
    chart: { areas: [] },
    version: 0,
    says: [],
    questions: [],
    earlier: [],
    settled: false,
    ...change,
  }) as unknown as VisitChart;

type Sent = { chart: BodyChart; version: number; reason: string | null };

function open(stored: VisitChart, put: (sent: Sent) => unknown) {
  const server = answering({
    "PUT /api/visits/{visitId}/body-chart": ({ body }) => put(body as Sent),
    "GET /api/visits/{visitId}/body-chart": () => stored,
  });
  const queries = quietQueries();
  queries.setQueryData(keys.chartSheet, sheet);
  queries.setQueryData(keys.chart("v1"), stored);
  show(<ChartPage />, queries, {
    path: "/episodes/:episodeId/visits/:visitId/chart",
    url: "/episodes/e1/visits/v1/chart",
  });
  return () => server.bodies("PUT /api/visits/{visitId}/body-chart") as Sent[];
}

const kept = ({ chart, version }: Sent) =>
  view({ chart, version: version + 1, says: chart.areas.map(() => "ache, 5 of 10: low back left") });

/** A tap on the body from in front; jsdom lays nothing out, so the box is told. */
function tap() {
  const body = screen.getByRole("img", { name: new RegExp(`^${say("charts.from-in-front")}`) });
  body.getBoundingClientRect = () => ({ left: 0, top: 0, width: 400, height: 900 }) as DOMRect;
  (body as unknown as { setPointerCapture: () => void }).setPointerCapture = () => {};
  fireEvent.pointerDown(body, { clientX: 220, clientY: 420, pointerId: 1 });
  fireEvent.pointerUp(body, { clientX: 220, clientY: 420, pointerId: 1 });
}

describe("the body chart", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("keeps each stroke as it is made, of the kind and strength that were chosen, one after the other", async () => {
    const sent = open(view({}), kept);
    tap();
    fireEvent.click(screen.getByRole("radio", { name: "Numbness" }));
    fireEvent.click(screen.getByRole("radio", { name: "8" }));
    tap();
    await waitFor(() => expect(sent()).toHaveLength(2));
    expect(sent().map((s) => s.version)).toEqual([0, 1]);
    expect(sent()[1]!.chart.areas.map((a) => [a.view, a.kind, a.strength])).toEqual([
      ["front", "ache", 5],
      ["front", "numb", 8],
    ]);
    // Millimetres of the body, not pixels of the page.
    const [x, y] = sent()[0]!.chart.areas[0]!.outline;
    expect(x).toBeGreaterThan(40);
    expect(y).toBeGreaterThan(-1000);
  });

  it("asks at once what the drawing asks for, and takes no way round it", async () => {
    const asked = view({
      chart: { areas: [{ view: "front", kind: "numb", strength: 5, outline: square }] },
      version: 1,
      says: ["numbness"],
      questions: [
        {
          id: "saddle-numbness",
          side: "both",
          yes: null,
          words: "Numb between the legs?",
          flag: "saddle-numbness",
        },
      ],
    } as Partial<VisitChart>);
    const sent = open(asked, kept);
    expect(screen.getByRole("alertdialog")).toBeTruthy();
    fireEvent.keyDown(screen.getByRole("alertdialog"), { key: "Escape" });
    expect(screen.getByRole("alertdialog")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: say("charts.yes") }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.chart.answers).toEqual([{ question: "saddle-numbness", side: "both", yes: true }]);
  });

  it("without drawing, a part of the body is added by its name", async () => {
    const sent = open(view({}), kept);
    fireEvent.click(screen.getByRole("button", { name: new RegExp(say("charts.add-by-name")) }));
    fireEvent.click(screen.getByRole("option", { name: "low back left" }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.chart.areas[0]!.outline).toEqual(square);
  });

  it("of a visit that is over is drawn on only with a reason", async () => {
    const old = view({
      chart: { areas: [{ view: "front", kind: "ache", strength: 5, outline: square }] },
      version: 3,
      says: ["ache"],
      settled: true,
    } as Partial<VisitChart>);
    const sent = open(old, kept);
    tap();
    expect(screen.getByRole("button", { name: say("charts.remove-area", { number: 1 }) })).toHaveProperty(
      "disabled",
      true,
    );
    fireEvent.change(screen.getByLabelText(say("charts.why-is-it-drawn-anew")), {
      target: { value: "Wrong side" },
    });
    tap();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ reason: "Wrong side", version: 3 });
  });

  it("that somebody else drew meanwhile is shown as it stands, and says so", async () => {
    open(
      view({
        version: 2,
        says: ["theirs"],
        chart: { areas: [{ view: "front", kind: "ache", strength: 1, outline: square }] },
      } as Partial<VisitChart>),
      () => new Refusal(409, { title: "Someone else has changed this." }),
    );
    tap();
    await waitFor(() => expect(screen.getByText("Someone else has changed this.")).toBeTruthy());
    expect(screen.getByText("theirs")).toBeTruthy();
  });
});
