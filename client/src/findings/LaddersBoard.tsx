import styled, { useTheme } from "styled-components";
import type { ForbiddenRung, Ladder, RungSearch } from "../api/types";
import { Peg } from "../figure/Peg";
import { say } from "../words/say";

const Board = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: ${({ theme }) => theme.space(5)};
`;

const rungGap = 46;
const top = 14;
const upright = { left: 26, right: 62 };

/** Each ladder as a slim upright with its rungs named; pegs where each side enters; barred rungs struck, with the word. */
export function LaddersBoard(props: {
  ladders: Ladder[];
  entries: RungSearch[];
  /** Where each side entered in the screen compared with; none: no hollow pegs. */
  earlier: RungSearch[];
  forbidden: ForbiddenRung[];
}) {
  return (
    <Board>
      {props.ladders.map((ladder) => (
        <OneLadder key={ladder.id} ladder={ladder} {...props} />
      ))}
    </Board>
  );
}

function OneLadder(props: {
  ladder: Ladder;
  entries: RungSearch[];
  earlier: RungSearch[];
  forbidden: ForbiddenRung[];
}) {
  const { ladder } = props;
  const { colour, font } = useTheme();
  const rungs = [...ladder.rungs].reverse();
  const height = top * 2 + (rungs.length - 1) * rungGap + 16;
  const y = (id: string) => top + 8 + rungs.findIndex((r) => r.id === id) * rungGap;
  const entry = (searches: RungSearch[], side: "left" | "right") =>
    searches.find((e) => e.ladderId === ladder.id && e.side === side)?.entryRungId;
  const left = entry(props.entries, "left");
  const right = entry(props.entries, "right");
  const before = { left: entry(props.earlier, "left"), right: entry(props.earlier, "right") };
  const was = (side: "left" | "right") =>
    props.earlier.length > 0 ? say("findings.before-ladder", { ladder: nameOf(ladder, before[side]) }) : "";
  return (
    <section
      aria-label={say("findings.ladder-both-sides", {
        ladder: ladder.name,
        left: nameOf(ladder, left),
        leftBefore: was("left"),
        right: nameOf(ladder, right),
        rightBefore: was("right"),
      })}
    >
      <h3 style={{ marginBottom: 4 }}>{ladder.name}</h3>
      <svg viewBox={`0 0 260 ${height}`} width="100%" style={{ maxWidth: 320, display: "block" }} aria-hidden>
        {[upright.left, upright.right].map((x) => (
          <line key={x} x1={x} x2={x} y1={0} y2={height} stroke={colour.ink} strokeWidth={3} />
        ))}
        {rungs.map((rung) => {
          const barred = props.forbidden.some((f) => f.rungId === rung.id);
          return (
            <g key={rung.id}>
              {barred ? (
                <path d={`M${upright.left} ${y(rung.id)}h10m16 0h10`} stroke={colour.sand} strokeWidth={4} />
              ) : (
                <line
                  x1={upright.left}
                  x2={upright.right}
                  y1={y(rung.id)}
                  y2={y(rung.id)}
                  stroke={colour.sand}
                  strokeWidth={5}
                />
              )}
              <text
                x={94}
                y={y(rung.id) + (barred || linesOf(rung.name, barred).length > 1 ? -2 : 5)}
                fontSize={15}
                fontFamily={font.text}
                fill={barred ? colour.clay : colour.ink}
                fontWeight={rung.id === left || rung.id === right ? 700 : 400}
              >
                {linesOf(rung.name, barred).map((line, i) => (
                  <tspan
                    key={line}
                    x={94}
                    dy={i * 15}
                    fontSize={i === 0 ? 15 : 13}
                    textDecoration={barred && i === 0 ? "line-through" : undefined}
                  >
                    {line}
                  </tspan>
                ))}
              </text>
            </g>
          );
        })}
        {before.left && before.left !== left && (
          <Peg x={upright.left} y={y(before.left)} side="left" hollow />
        )}
        {before.right && before.right !== right && (
          <Peg x={upright.right} y={y(before.right)} side="right" hollow />
        )}
        {left && <Peg x={upright.left} y={y(left)} side="left" />}
        {right && <Peg x={upright.right} y={y(right)} side="right" />}
      </svg>
    </section>
  );
}

/** A rung's name in at most two lines, the second with the word that it is barred. */
function linesOf(name: string, barred: boolean) {
  const [first = name, ...rest] = name.split(", ");
  const fits = first.length <= longest ? first.length : first.lastIndexOf(" ", longest);
  const second = [first.slice(fits).trim(), ...rest, ...(barred ? [say("findings.contraindicated")] : [])]
    .filter(Boolean)
    .join(" · ");
  return second ? [first.slice(0, fits), second] : [first];
}

/** Letters that fit beside a ladder. */
const longest = 21;

const nameOf = (ladder: Ladder, id?: string | null) =>
  ladder.rungs.find((r) => r.id === id)?.name ?? say("findings.none");
