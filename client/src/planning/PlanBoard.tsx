import { memo, useState } from "react";
import { Dialog, Radio, RadioGroup } from "react-aria-components";
import styled, { useTheme } from "styled-components";
import { findRung } from "../api/queries";
import type { ForbiddenRung, Ladder, Library, PlanItem, Rung, RungSearch } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Small } from "../controls/layout";
import { Override } from "../frame/Override";
import { newItem, swapped } from "./itemOf";
import { say } from "../words/say";

const Board = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: ${({ theme }) => theme.space(5)};
  align-items: end;
`;

/** The uprights run through all rungs; a rung is a bar between them. */
const Upright = styled(RadioGroup)`
  display: grid;
  padding: ${({ theme }) => theme.space(1)} 0;
`;

const Bar = styled(Radio)<{ $barred: boolean }>`
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  align-items: center;
  min-height: 44px;
  cursor: pointer;
  touch-action: none;
  line-height: 1.2;
  font-size: 0.9375rem;
  color: ${({ theme, $barred }) => ($barred ? theme.colour.clay : theme.colour.ink)};
  svg {
    display: block;
    height: 100%;
    min-height: 44px;
  }
  &[data-selected] {
    font-weight: 700;
  }
  &[data-hovered],
  &[data-over] {
    background: ${({ theme }) => theme.colour.wash};
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: -3px;
  }
`;

interface Props {
  items: PlanItem[];
  library: Library;
  forbidden: ForbiddenRung[];
  entries: RungSearch[];
  onChange: (item: PlanItem, next: PlanItem | null) => void;
  onAdd: (item: PlanItem) => void;
}

/**
 * Each ladder of the plan as an upright with its rungs. The pegs stand on the rung that is prescribed; moving them, by
 * dragging, a tap or the arrow keys, changes the prescription. Small open marks show where control was seen to end.
 */
export const PlanBoard = memo(
  Ladders,
  (a, b) =>
    pegs(a.items) === pegs(b.items) &&
    a.library === b.library &&
    a.forbidden === b.forbidden &&
    a.entries === b.entries,
);

/** What of a plan shows here: which exercise stands on which rung, for which sides. Doses do not. */
function pegs(items: PlanItem[]) {
  return items.map((item) => [item.id, item.rungId, ...item.doses.map((d) => d.side)].join(" ")).join("/");
}

function Ladders(props: Props) {
  const { items, library } = props;
  const [all, setAll] = useState(false);
  const inPlan = (ladder: Ladder) => items.some((item) => ladder.rungs.some((r) => r.id === item.rungId));
  const ladders = library.ladders.filter((l) => l.trained && l.direction !== "none" && (all || inPlan(l)));
  return (
    <section aria-label={say("planning.ladders")}>
      <h2>{say("planning.ladders")}</h2>
      <Small>{say("planning.move-a-peg-to-change")}</Small>
      <Board>
        {ladders.map((ladder) => (
          <OneLadder key={ladder.id} {...props} ladder={ladder} />
        ))}
      </Board>
      <p style={{ marginTop: 12 }}>
        <Button $quiet $small onPress={() => setAll(!all)}>
          {all ? say("planning.only-the-ladders-of-the") : say("planning.all-ladders")}
        </Button>
      </p>
    </section>
  );
}

function OneLadder(props: Props & { ladder: Ladder }) {
  const { ladder, items, library, forbidden } = props;
  const item = items.find((i) => ladder.rungs.some((r) => r.id === i.rungId));
  const [barred, setBarred] = useState<Rung | null>(null);
  const put = (rungId: string, reason: string | null) => {
    if (item) props.onChange(item, swapped(item, rungId, reason, library));
    else props.onAdd(newItem(rungId, reason, library));
  };
  const move = (rungId: string) => {
    if (rungId === item?.rungId) return;
    if (forbidden.some((f) => f.rungId === rungId)) setBarred(findRung(library, rungId).rung);
    else put(rungId, null);
  };
  const entry = (side: "left" | "right") =>
    props.entries.find((e) => e.ladderId === ladder.id && e.side === side && e.trialIds.length > 0)
      ?.entryRungId;
  return (
    <div>
      <h3 id={`board-${ladder.id}`}>{ladder.name}</h3>
      <Upright aria-labelledby={`board-${ladder.id}`} value={item?.rungId ?? ""} onChange={move}>
        {[...ladder.rungs].reverse().map((rung) => (
          <RungBar
            key={rung.id}
            rung={rung}
            item={item?.rungId === rung.id ? item : undefined}
            entries={(["left", "right"] as const).filter((side) => entry(side) === rung.id)}
            why={forbidden.find((f) => f.rungId === rung.id)?.why}
            onDrop={move}
          />
        ))}
      </Upright>
      <Veil isOpen={barred !== null} onOpenChange={(open) => !open && setBarred(null)} isDismissable>
        <Sheet>
          <Dialog aria-label={say("planning.a-barred-rung")}>
            {barred && (
              <Override
                rung={barred}
                why={forbidden.find((f) => f.rungId === barred.id)?.why ?? ""}
                onBack={() => setBarred(null)}
                onPick={(reason) => {
                  put(barred.id, reason);
                  setBarred(null);
                }}
              />
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </div>
  );
}

/** Once the finger lifts: the rung under it. Radios only know taps, so a drag that began on a peg is followed here. */
function whereDropped(drop: (rungId: string) => void) {
  const up = (e: PointerEvent) => {
    window.removeEventListener("pointerup", up);
    window.removeEventListener("pointercancel", up);
    const rung = document.elementFromPoint(e.clientX, e.clientY)?.closest("[data-rung]");
    const id = rung?.getAttribute("data-rung");
    if (id && e.type === "pointerup") drop(id);
  };
  window.addEventListener("pointerup", up);
  window.addEventListener("pointercancel", up);
}

function RungBar(props: {
  rung: Rung;
  item: PlanItem | undefined;
  entries: ("left" | "right")[];
  why: string | undefined;
  onDrop: (rungId: string) => void;
}) {
  const { rung, item, why } = props;
  const words = [
    props.entries.length === 2
      ? say("planning.both-sides-entered-here")
      : props.entries[0] && say("planning.entries-entered-here", { entries: props.entries[0] }),
    why && say("planning.barred-why", { why }),
  ].filter(Boolean);
  return (
    <Bar
      value={rung.id}
      $barred={why !== undefined}
      data-rung={rung.id}
      onPointerDown={() => {
        if (item) whereDropped((target) => target !== rung.id && props.onDrop(target));
      }}
    >
      <Picture
        barred={why !== undefined}
        sides={item?.doses.map((d) => d.side) ?? []}
        entries={props.entries}
      />
      <span>
        {why ? <s>{rung.name}</s> : rung.name}
        {words.length > 0 && (
          <Small as="span" style={{ display: "block", fontWeight: 400, fontSize: "0.8125rem" }}>
            {words.join(" · ")}
          </Small>
        )}
      </span>
    </Bar>
  );
}

const left = 24;
const right = 50;
const flags = { left: "M-1 -10H-13L-22 0L-13 10H-1Z", right: "M1 -10H13L22 0L13 10H1Z" } as const;

/** A piece of the ladder: two uprights, the rung, and what stands on it. */
function Picture(props: { barred: boolean; sides: string[]; entries: ("left" | "right")[] }) {
  const { colour } = useTheme();
  const tone = { left: colour.sea, right: colour.bark };
  const on = (side: "left" | "right") => props.sides.includes(side) || props.sides.includes("both");
  return (
    <svg viewBox="0 0 74 44" width="74" preserveAspectRatio="none" aria-hidden>
      <path
        d={props.barred ? `M${left} 22h8m10 0h8` : `M${left} 22H${right}`}
        stroke={colour.sand}
        strokeWidth={5}
      />
      <path d={`M${left} 0V44M${right} 0V44`} stroke={colour.ink} strokeWidth={3} />
      {(["left", "right"] as const).map((side) => {
        const x = side === "left" ? left : right;
        if (!on(side) && !props.entries.includes(side)) return null;
        return (
          <path
            key={side}
            d={flags[side]}
            transform={`translate(${x} 22)`}
            fill={on(side) ? tone[side] : colour.paper}
            stroke={tone[side]}
            strokeWidth={2}
          />
        );
      })}
    </svg>
  );
}
