import { useTheme } from "styled-components";
import { say } from "../words/say";

const width = 320;
const height = 26;

/** The middle two thirds of a studied group as a band, its mean as a line, and where the client stands as a wedge. */
export function NormBand(props: { low: number; high: number; mean: number; value: number; faint: boolean }) {
  const { colour } = useTheme();
  const { low, high, mean, value, faint } = props;
  const most = Math.max(high * 1.25, value * 1.05);
  const x = (n: number) => (Math.max(0, n) / most) * (width - 16) + 8;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      style={{ display: "block", maxWidth: "100%" }}
      role="img"
      aria-label={say("findings.value-beside-a-band-from", {
        value: value.toFixed(1),
        low: low.toFixed(0),
        high: high.toFixed(0),
      })}
    >
      <line x1={8} x2={width - 8} y1={18} y2={18} stroke={colour.sand} />
      <rect
        x={x(low)}
        y={12}
        width={x(high) - x(low)}
        height={12}
        fill={faint ? colour.paper : colour.wash}
        stroke={colour.slate}
        strokeDasharray={faint ? "4 3" : undefined}
      />
      <line x1={x(mean)} x2={x(mean)} y1={10} y2={26} stroke={colour.slate} strokeWidth={2} />
      <path d={`M${x(value) - 7} 0h14l-7 12Z`} fill={colour.ink} />
    </svg>
  );
}
