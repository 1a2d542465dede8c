import { useState } from "react";
import { GridList, GridListItem } from "react-aria-components";
import styled from "styled-components";
import { isAway } from "../api/client";
import { findRung } from "../api/queries";
import type { BatteryItem, EarlierScreen, LeftOut, Library, ScreenView, Side } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, Choice } from "../controls/fields";
import { Columns, Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";
import { dayWords } from "../api/clinicTime";
import { findTask } from "../capture/sideCounts";
import { Grip } from "../controls/Grip";
import { useReorder } from "../controls/useReorder";
import { RungFigure } from "../figure/FigureView";
import { AddRung } from "./AddRung";
import { useBattery } from "./useBattery";
import { say, sayRich } from "../words/say";

/** Planning the screen: what is proposed and why, in an order that can be changed, and what was left out. */
export function BatteryPage(props: {
  visitId: string;
  screen: ScreenView;
  library: Library;
  begun: boolean;
  /** Something was changed: the page stays until somebody begins. */
  onEdit: () => void;
  onBegin: () => void;
}) {
  const { screen, library, visitId } = props;
  const beginButton = useTakeFocus<HTMLButtonElement>();
  const { battery } = screen.battery;
  const edit = useBattery(visitId, screen.battery, props.onEdit);
  const ids = battery.items.map((item) => item.taskId);
  const [proposed] = useState(ids.join());
  // The server is away: what it proposed holds without being stored.
  const asProposed = (problem: unknown) => isAway(problem) && ids.join() === proposed;
  const begin = async () => {
    // A battery that cannot be stored is told about on this page; the screen does not begin on it.
    if (screen.battery.version > 0 || (await edit.storeNow(ids).catch(asProposed))) props.onBegin();
  };
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>
          {sayRich("screening.the-screen-ids-tasks-about", {
            ids: ids.length,
            minutes: Math.round(battery.minutes),
            positionChanges: battery.positionChanges,
            quiet: (chunks) => <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>{chunks}</Quiet>,
          })}
        </h1>
        <Button
          $big
          ref={beginButton}
          isDisabled={ids.length === 0 || edit.busy}
          onPress={() => void begin()}
        >
          {props.begun ? say("screening.back-to-the-screen") : say("screening.begin-the-screen")}
        </Button>
      </Row>
      {edit.conflict ? <Note>{edit.error?.message}</Note> : <ProblemNote error={edit.error} />}
      <Columns $at="minmax(0, 1.6fr) minmax(280px, 1fr)">
        <Tasks
          items={battery.items}
          screen={screen}
          library={library}
          onOrder={(order) => edit.store(order)}
        />
        <Stack $gap={5}>
          <Conditions screen={screen} library={library} onAsk={edit.propose} />
          <LeftOutList left={battery.leftOut} library={library} onAdd={(id) => edit.store([...ids, id])} />
          <AddRung
            library={library}
            allowances={screen.allowances}
            taken={ids}
            onAdd={(id) => edit.store([...ids, id])}
          />
        </Stack>
      </Columns>
    </Stack>
  );
}

const List = styled(GridList)`
  display: grid;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  &[data-empty] {
    padding: ${({ theme }) => theme.space(6)} 0;
  }
`;

const Item = styled(GridListItem)`
  display: grid;
  grid-template-columns: 48px 92px minmax(0, 1fr) auto 56px;
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  min-height: 76px;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  outline-offset: -3px;
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
  }
  &[data-dragging] {
    opacity: 0.5;
  }
  p {
    margin: 0;
  }
`;

function Tasks(props: {
  items: BatteryItem[];
  screen: ScreenView;
  library: Library;
  onOrder: (ids: string[]) => void;
}) {
  const { items, screen, library, onOrder } = props;
  const ids = items.map((item) => item.taskId);
  const dragAndDropHooks = useReorder(ids, onOrder);
  return (
    <List
      aria-label={say("screening.tasks-of-the-screen-in")}
      dragAndDropHooks={dragAndDropHooks}
      renderEmptyState={() => say("screening.nothing-in-it-add-a")}
    >
      {items.map((item) => {
        const name = taskName(library, item.taskId);
        return (
          <Item key={item.taskId} id={item.taskId} textValue={name}>
            <Grip slot="drag" aria-label={say("screening.move-name", { name })}>
              ≡
            </Grip>
            <RungFigure
              rungId={rungOf(item.taskId, item.surface, screen, library)}
              side="both"
              frame="together"
              width={92}
              height={60}
            />
            <div>
              <p>
                <strong>{name}</strong> <Quiet>{placeWords(library, item)}</Quiet>
              </p>
              <Small>
                {findTask(library, item.taskId)?.tells} {item.why}
              </Small>
              {item.cautions.map((caution) => (
                <Small key={caution} style={{ fontWeight: 600 }}>
                  {say("screening.mind-caution", { caution })}
                </Small>
              ))}
            </div>
            <Quiet>{say("screening.minutes-min", { minutes: item.minutes })}</Quiet>
            <Button
              $quiet
              aria-label={say("screening.leave-out-name", { name })}
              style={{ padding: 0, width: 56 }}
              onPress={() => onOrder(ids.filter((id) => id !== item.taskId))}
            >
              ×
            </Button>
          </Item>
        );
      })}
    </List>
  );
}

/** A name for a task, or for a single rung that is looked at as one. */
export const taskName = (library: Library, id: string) =>
  findTask(library, id)?.name ?? findRung(library, id.replace(/^rung-/, "")).rung.name;

/** What is drawn for a task: the rung that is tried next, else the one it is made of, else the middle of its ladder. */
export function rungOf(
  taskId: string,
  surface: string | null,
  screen: ScreenView | undefined,
  library: Library,
) {
  const next = screen?.states.find((s) => s.taskId === taskId)?.next?.rungId;
  if (next) return next;
  const task = findTask(library, taskId);
  if (!task) return taskId.replace(/^rung-/, "");
  const place = task.surfaces?.find((s) => s.id === surface)?.rung;
  const rungs = library.ladders.find((l) => l.id === task.ladder)?.rungs ?? [];
  return place ?? task.rung ?? rungs[Math.floor((rungs.length - 1) / 2)]!.id;
}

function placeWords(library: Library, item: BatteryItem) {
  const place = findTask(library, item.taskId)?.surfaces?.find((s) => s.id === item.surface)?.name;
  const only: Side | undefined =
    item.sides.length === 1 && item.sides[0] !== "both" ? item.sides[0] : undefined;
  return [place, only && `${only} only`].filter(Boolean).join(", ");
}

const minutes = ["10", "15", "20", "30"].map((value) => ({
  value,
  label: say("screening.minutes", { minutes: value }),
}));

function Conditions(props: {
  screen: ScreenView;
  library: Library;
  onAsk: (ask: { minutes?: number; missing?: string[]; repeatVisitId?: string }) => void;
}) {
  const { screen, library, onAsk } = props;
  const { battery } = screen.battery;
  const [open, setOpen] = useState(battery.missing.length > 0);
  const equipment = [...new Set(library.ladders.flatMap((l) => l.rungs).flatMap((r) => r.equipment))].sort();
  const earlier: EarlierScreen | null = screen.earlier;
  return (
    <Stack $gap={3}>
      <Choice
        label={say("screening.time-there-is")}
        value={String(battery.minutesAsked)}
        onChange={(value) => onAsk({ minutes: Number(value) })}
        options={minutes}
      />
      {earlier && (
        <Button $quiet onPress={() => onAsk({ repeatVisitId: earlier.visitId })}>
          {say("screening.repeat-the-screen-of-at", { at: dayWords(earlier.at) })}
        </Button>
      )}
      {open ? (
        <div role="group" aria-label={say("screening.equipment-at-hand")}>
          <h3>{say("screening.at-hand")}</h3>
          <Row $gap={4}>
            {equipment.map((name) => (
              <Checkbox
                key={name}
                selected={!battery.missing.includes(name)}
                onChange={(here) =>
                  onAsk({
                    missing: here ? battery.missing.filter((m) => m !== name) : [...battery.missing, name],
                  })
                }
              >
                {name}
              </Checkbox>
            ))}
          </Row>
        </div>
      ) : (
        <Button $quiet $small onPress={() => setOpen(true)}>
          {say("screening.something-is-not-at-hand")}
        </Button>
      )}
    </Stack>
  );
}

const Out = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(2)};
  align-items: center;
  min-height: 60px;
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
`;

function LeftOutList(props: { left: LeftOut[]; library: Library; onAdd: (id: string) => void }) {
  const [all, setAll] = useState(false);
  const order = ["S-BY-HAND", "S-MINUTES", "S-BARRED", "S-SORE", "S-EQUIPMENT", "S-COVERED"];
  const left = [...props.left].sort((a, b) => order.indexOf(a.rule) - order.indexOf(b.rule));
  const shown = all ? left : left.filter((l) => l.rule !== "S-COVERED");
  return (
    <Ruled aria-label={say("screening.left-out")}>
      <h2>{say("screening.left-out-and-why")}</h2>
      <ul>
        {shown.map((l) => {
          const name = taskName(props.library, l.taskId);
          return (
            <Out key={l.taskId}>
              <span>
                <strong style={l.canAdd ? undefined : { textDecoration: "line-through" }}>{name}</strong>
                <br />
                <Quiet style={{ fontSize: "0.9375rem" }}>{l.why}</Quiet>
              </span>
              {l.canAdd && (
                <Button
                  $quiet
                  $small
                  aria-label={say("screening.add-name", { name })}
                  onPress={() => props.onAdd(l.taskId)}
                >
                  {say("screening.add")}
                </Button>
              )}
            </Out>
          );
        })}
      </ul>
      {shown.length < left.length && (
        <Button $quiet $small style={{ marginTop: 8 }} onPress={() => setAll(true)}>
          {say("screening.left-more-that-are-looked", { left: left.length - shown.length })}
        </Button>
      )}
    </Ruled>
  );
}
