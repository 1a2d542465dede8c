import styled, { useTheme } from "styled-components";
import type { components } from "../api/schema";
import type { Ability } from "../api/types";
import { say } from "../words/say";

type SectorId = components["schemas"]["Sector"];

const size = 440;
const centre = size / 2;

/** Where each direction stands on the ring: degrees clockwise from the front, and its radii. */
const arcs: Partial<Record<SectorId, { from: number; to: number; inner: number; outer: number }>> = {
  front: { from: -42, to: 42, inner: 92, outer: 134 },
  "side-right": { from: 48, to: 132, inner: 92, outer: 134 },
  back: { from: 138, to: 222, inner: 92, outer: 134 },
  "side-left": { from: 228, to: 312, inner: 92, outer: 134 },
  "twist-right": { from: 6, to: 174, inner: 148, outer: 168 },
  "twist-left": { from: 354, to: 186, inner: 148, outer: 168 },
};

const labels: {
  sector: SectorId;
  words: string;
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
}[] = [
  { sector: "front", words: say("findings.front"), x: centre, y: 26, anchor: "middle" },
  { sector: "back", words: say("findings.back"), x: centre, y: size - 14, anchor: "middle" },
  { sector: "side-left", words: say("findings.left"), x: centre - 62, y: centre - 3, anchor: "middle" },
  { sector: "side-right", words: say("findings.right"), x: centre + 62, y: centre - 3, anchor: "middle" },
  { sector: "twist-left", words: say("findings.turning-left"), x: 4, y: 58, anchor: "start" },
  { sector: "twist-right", words: say("findings.turning-right"), x: size - 4, y: 58, anchor: "end" },
];

const point = (degrees: number, radius: number) => {
  const a = ((degrees - 90) * Math.PI) / 180;
  return `${(centre + Math.cos(a) * radius).toFixed(1)} ${(centre + Math.sin(a) * radius).toFixed(1)}`;
};

function arcPath(from: number, to: number, inner: number, outer: number) {
  const large = Math.abs(to - from) > 180 ? 1 : 0;
  const sweep = to > from ? 1 : 0;
  return `M${point(from, outer)}A${outer} ${outer} 0 ${large} ${sweep} ${point(to, outer)}L${point(to, inner)}A${inner} ${inner} 0 ${large} ${1 - sweep} ${point(from, inner)}Z`;
}

const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 440px;
`;

/** Where somebody stands in a sector: of the front, whichever limb moves, the lower. */
const lowestOf = (abilities: Ability[], sector: SectorId) =>
  abilities.filter((a) => a.sector === sector).sort((a, b) => a.percent - b.percent)[0];

/**
 * A section through the waist, front on top, the client's left on the left. Each arc fills from one end by where the
 * client stands; solid where three trials or more stand behind it, hatched below that, empty where none does.
 */
export function TrunkRing(props: {
  abilities: Ability[];
  /** The screen compared with, as a thin outline. */
  earlier: Ability[];
  weakest: SectorId | null;
}) {
  const { colour, font } = useTheme();
  const of = (sector: SectorId) => lowestOf(props.abilities, sector);
  // As everywhere: the left in sea, the right in bark; what has no side in slate.
  const tone = (sector: SectorId) =>
    sector.endsWith("left") ? colour.sea : sector.endsWith("right") ? colour.bark : colour.slate;
  return (
    <Svg
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={say("findings.trunk-ring-control-by-direction")}
    >
      <defs>
        {[colour.slate, colour.sea, colour.bark].map((c) => (
          <pattern
            key={c}
            id={`thin${c.slice(1)}`}
            width="9"
            height="9"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="9" height="9" fill={colour.sheet} />
            <line x1="0" y1="0" x2="0" y2="9" stroke={c} strokeWidth="9" />
          </pattern>
        ))}
      </defs>
      {(Object.keys(arcs) as SectorId[]).map((sector) => {
        const arc = arcs[sector]!;
        const ability = of(sector);
        const at = (percent: number) => arc.from + ((arc.to - arc.from) * percent) / 100;
        const few = (ability?.trials.length ?? 0) < 3;
        const before = lowestOf(props.earlier, sector)?.percent ?? 0;
        return (
          <g key={sector}>
            <path
              d={arcPath(arc.from, arc.to, arc.inner, arc.outer)}
              fill={colour.wash}
              stroke={ability ? "none" : colour.sand}
              strokeDasharray="4 4"
            />
            {ability && (
              <path
                d={arcPath(arc.from, at(ability.percent), arc.inner, arc.outer)}
                fill={few ? `url(#thin${tone(sector).slice(1)})` : tone(sector)}
                stroke={tone(sector)}
                strokeWidth={2}
              />
            )}
            {sector === props.weakest && (
              <path
                d={arcPath(arc.from, arc.to, arc.inner - 1, arc.outer + 1)}
                fill="none"
                stroke={colour.ink}
                strokeWidth={4}
              />
            )}
            {before > 0 && (
              <path
                d={arcPath(arc.from, at(before), arc.inner - 4, arc.outer + 4)}
                fill="none"
                stroke={colour.ink}
                strokeWidth={1.5}
              />
            )}
            {ability && (
              <Bracket
                from={at(ability.percentLow)}
                to={at(ability.percentHigh)}
                radius={(arc.inner + arc.outer) / 2}
              />
            )}
          </g>
        );
      })}
      {labels.map((label) => {
        const percent = of(label.sector)?.percent;
        return (
          <text
            key={label.sector}
            x={label.x}
            y={label.y}
            textAnchor={label.anchor}
            fontFamily={font.text}
            fontSize={17}
            fontWeight={label.sector === props.weakest ? 700 : 400}
            fill={colour.ink}
          >
            {label.words}{" "}
            <tspan fontWeight={700} {...(label.sector.startsWith("side") ? { x: label.x, dy: 20 } : {})}>
              {typeof percent === "number" ? Math.round(percent) : "–"}
            </tspan>
          </text>
        );
      })}
      <PelvisMarks left={of("pelvis-left")} right={of("pelvis-right")} />
    </Svg>
  );
}

/** From where to where the end of an arc surely lies. */
function Bracket(props: { from: number; to: number; radius: number }) {
  const { colour } = useTheme();
  const { from, to, radius } = props;
  const sweep = to > from ? 1 : 0;
  return (
    <path
      d={`M${point(from, radius - 7)}L${point(from, radius + 7)}M${point(from, radius)}A${radius} ${radius} 0 ${Math.abs(to - from) > 180 ? 1 : 0} ${sweep} ${point(to, radius)}M${point(to, radius - 7)}L${point(to, radius + 7)}`}
      fill="none"
      stroke={colour.ink}
      strokeWidth={2}
    />
  );
}

/** Two short uprights in the middle, filled from below: the pelvis kept level on the left and on the right leg. */
function PelvisMarks(props: { left?: Ability; right?: Ability }) {
  const { colour, font } = useTheme();
  const mark = (ability: Ability | undefined, x: number, tone: string, id: string) => {
    const height = 44;
    const filled = ((ability?.percent ?? 0) / 100) * height;
    return (
      <g key={id}>
        <rect x={x - 7} y={centre - 22} width={14} height={height} fill={colour.wash} stroke={colour.sand} />
        <rect x={x - 7} y={centre + 22 - filled} width={14} height={filled} fill={tone} />
      </g>
    );
  };
  return (
    <>
      <text
        x={centre}
        y={centre - 34}
        textAnchor="middle"
        fontFamily={font.text}
        fontSize={15}
        fill={colour.ink}
      >
        {say("findings.pelvis-level")}
      </text>
      {mark(props.left, centre - 14, colour.sea, say("findings.left"))}
      {mark(props.right, centre + 14, colour.bark, say("findings.right"))}
      <text
        x={centre}
        y={centre + 44}
        textAnchor="middle"
        fontFamily={font.text}
        fontSize={15}
        fontWeight={700}
        fill={colour.ink}
      >
        {percent(props.left)} · {percent(props.right)}
      </text>
    </>
  );
}

const percent = (ability?: Ability) => (ability ? Math.round(ability.percent) : "–");
