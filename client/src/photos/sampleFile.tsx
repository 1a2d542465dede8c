import { flushSync } from "react-dom";
import { createRoot } from "react-dom/client";
import { ThemeProvider } from "styled-components";
import { api, got } from "../api/client";
import type { Figure, PhotoSample } from "../api/types";
import { FigureShapes } from "../figure/FigureView";
import { tokens } from "../theme/tokens";

/** The drawing as a picture file, without what is not a body: no second posture behind it, no arrows. */
export async function pictureFile(sample: PhotoSample): Promise<Blob> {
  const query = { side: sample.side, view: sample.drawn } as const;
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
