import { flushSync } from "react-dom";
import { createRoot } from "react-dom/client";
import { ThemeProvider } from "styled-components";
import { api, got } from "../api/client";
import type { Figure, PhotoView, Side } from "../api/types";
import { FigureShapes } from "../figure/FigureView";
import { tokens } from "../theme/tokens";

/** A drawing to try the points on where there is no client to photograph. */
export interface Sample {
  words: string;
  rungId: string;
  side: Side;
  /** Drawn with this fault; none: as asked. */
  fault: string | null;
  from: "side" | "front";
  view: PhotoView;
}

export const samples: Sample[] = [
  {
    words: "one leg, leaning over it",
    rungId: "K2",
    side: "left",
    fault: "stance-lean",
    from: "front",
    view: "front",
  },
  { words: "one leg, level", rungId: "K2", side: "left", fault: null, from: "front", view: "front" },
  {
    words: "squat, low back rounds",
    rungId: "N3",
    side: "right",
    fault: "round",
    from: "side",
    view: "facing-right",
  },
  { words: "hip hinge", rungId: "N1", side: "left", fault: null, from: "side", view: "facing-left" },
];

/** The drawing as a picture file, without what is not a body: no second posture behind it, no arrows. */
export async function pictureFile(sample: Sample): Promise<Blob> {
  const query = { side: sample.side, view: sample.from } as const;
  const figure: Figure =
    sample.fault === null
      ? await got(
          api.GET("/api/figures/{rungId}", {
            params: { path: { rungId: sample.rungId }, query: { ...query, frame: "end" } },
          }),
        )
      : await got(
          api.GET("/api/figures/{rungId}/faults/{fault}", {
            params: { path: { rungId: sample.rungId, fault: sample.fault }, query },
          }),
        );
  const body = figure.shapes.filter((s) => !["ghost", "arrow", "mark"].includes(s.role));
  const host = document.createElement("div");
  const root = createRoot(host);
  const drawing = (
    <ThemeProvider theme={tokens}>
      <svg
        xmlns="http://www.w3.org/2000/svg"
        viewBox={`${figure.left} ${figure.top} ${figure.width} ${figure.height}`}
        width={figure.width}
        height={figure.height}
      >
        <rect
          x={figure.left}
          y={figure.top}
          width={figure.width}
          height={figure.height}
          fill={tokens.colour.sheet}
        />
        <FigureShapes figure={{ ...figure, shapes: body }} />
      </svg>
    </ThemeProvider>
  );
  flushSync(() => root.render(drawing));
  const markup = host.innerHTML;
  root.unmount();
  return new Blob([markup], { type: "image/svg+xml" });
}
