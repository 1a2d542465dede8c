import { Disclosure, DisclosurePanel, Button as AriaButton, ToggleButton } from "react-aria-components";
import { memo } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Dose, ForbiddenRung, Library, PlanItem, PlanWarning } from "../api/types";
import { Button } from "../controls/Button";
import { NumberField } from "../controls/fields";
import { Note, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { rangeWords, settingWords, spellWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { RungPicker } from "../frame/RungPicker";
import { SettingFields } from "./SettingFields";
import { SwapDialog } from "../frame/SwapDialog";
import { swapped } from "./itemOf";
import { say } from "../words/say";

interface Props {
  episodeId: string;
  item: PlanItem;
  weighed?: PlanItem;
  warnings: PlanWarning[];
  library: Library;
  forbidden: ForbiddenRung[];
  first: boolean;
  last: boolean;
  /** Stays as it is when the rest is proposed anew; none where nothing is proposed. */
  kept?: boolean;
  onKeep: (kept: boolean) => void;
  onChange: (item: PlanItem | null) => void;
  onMove: (by: number) => void;
}

const Line = styled.section`
  display: grid;
  grid-template-columns: 140px minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(5)};
  padding: ${({ theme }) => theme.space(4)} 0;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Doses = styled.table`
  display: block;
  max-width: 100%;
  overflow-x: auto;
  th {
    padding-right: ${({ theme }) => theme.space(3)};
    text-align: left;
    font-weight: 400;
  }
  thead th {
    color: ${({ theme }) => theme.colour.grey};
    font-size: 14px;
  }
  td {
    padding: 3px ${({ theme }) => theme.space(2)} 3px 0;
  }
`;

const Keep = styled(ToggleButton)`
  min-height: 40px;
  padding: 0 ${({ theme }) => theme.space(3)};
  border: 2px dashed ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  color: inherit;
  font: 500 15px/1.15 ${({ theme }) => theme.font.text};
  cursor: pointer;
  &[data-selected] {
    border-style: solid;
    background: ${({ theme }) => theme.colour.wash};
    font-weight: 700;
  }
`;

const WhyOpener = styled(AriaButton)`
  min-height: 40px;
  padding: 0;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.ink};
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
`;

const sameList = <T,>(a: T[], b: T[]) => a.length === b.length && a.every((one, i) => one === b[i]);

/** Drawn again only when the exercise is another one: what its buttons do never depends on an older drawing. */
export const PlanItemRow = memo(
  ItemRow,
  (a, b) =>
    a.item === b.item &&
    a.weighed === b.weighed &&
    sameList(a.warnings, b.warnings) &&
    a.first === b.first &&
    a.last === b.last &&
    a.kept === b.kept &&
    a.library === b.library &&
    a.forbidden === b.forbidden,
);

function ItemRow(props: Props) {
  const { item, library, onChange } = props;
  const { rung } = findRung(library, item.rungId);
  const side = item.doses[0]?.side ?? "both";
  const setDose = (index: number, change: Partial<Dose>) =>
    onChange({
      ...item,
      doses: item.doses.map((d, i) => (i === index ? { ...d, dose: { ...d.dose, ...change } } : d)),
    });
  const setRange = (index: number, range: number) =>
    onChange({
      ...item,
      doses: item.doses.map((d, i) => (i === index ? { ...d, range, dose: { ...d.dose, range } } : d)),
    });
  return (
    <Line aria-label={rung.name}>
      <RungFigure rungId={rung.id} side={side} range={item.doses[0]?.range} width={140} height={96} />
      <Stack $gap={2}>
        <div>
          <h2>
            <Link to={`/library/rungs/${rung.id}?episode=${props.episodeId}`} style={{ color: "inherit" }}>
              {rung.name}
            </Link>
          </h2>
          <Quiet>{item.for}</Quiet>
        </div>
        <DoseTable
          item={item}
          held={rung.target.hold > 0}
          moves={rung.poses.start !== rung.poses.end && rung.sides !== "none"}
          onDose={setDose}
          onRange={setRange}
        />
        <SettingFields
          item={item}
          library={library}
          onChange={(change) =>
            onChange({ ...item, doses: item.doses.map((d) => ({ ...d, dose: { ...d.dose, ...change } })) })
          }
        />
        {(props.weighed ?? item).doses
          .filter((d) => d.rangeEnds)
          .map((d) => (
            <Small key={d.side}>
              <strong>{say("planning.shorter-range")}</strong>
              {d.side !== "both" && `, ${d.side}`}: {rangeWords(d)}
            </Small>
          ))}
        {[...new Set(item.doses.flatMap((d) => settingWords({ ...d.dose, range: 1 })))].map((words) => (
          <Small key={words}>
            <strong>{say("planning.set-up")}</strong> {words}
          </Small>
        ))}
        {[...spellWords(item.spell), ...(item.notes ?? [])].map((words) => (
          <Small key={words}>{words}</Small>
        ))}
        {(props.weighed?.changes ?? item.changes).map((words) => (
          <Small key={words}>
            <strong>{say("planning.change")}</strong> {words}
          </Small>
        ))}
        {item.barOverride && (
          <Small>
            <strong>{say("planning.prescribed-despite-a-contraindication")}</strong> {item.barOverride}
          </Small>
        )}
        {props.warnings.map((w) => (
          <Note key={w.ruleId + w.words} grave={w.blocks}>
            {w.words} <Quiet>({w.ruleId})</Quiet>
          </Note>
        ))}
        <Row $gap={2}>
          {props.kept !== undefined && (
            <Keep
              isSelected={props.kept}
              onChange={props.onKeep}
              aria-label={say("planning.keep-rung-as-it-is", { rung: rung.name })}
            >
              {props.kept ? say("planning.kept") : say("planning.keep")}
            </Keep>
          )}
          <SwapDialog
            episodeId={props.episodeId}
            rungId={rung.id}
            onPick={(rungId) => onChange(swapped(item, rungId, null, library))}
          />
          <RungPicker
            label={say("planning.other-rung")}
            library={library}
            forbidden={props.forbidden}
            current={rung.id}
            onPick={(rungId, barOverride) => onChange(swapped(item, rungId, barOverride, library))}
          />
          <Button $quiet $small onPress={() => onChange(null)}>
            {say("planning.leave-out")}
          </Button>
        </Row>
        <Why item={item} />
      </Stack>
      <Stack $gap={2} style={{ justifyItems: "end" }}>
        <strong>
          {say("planning.minutes-min", { minutes: (props.weighed?.minutes ?? item.minutes ?? 0).toFixed(1) })}
        </strong>
        <Row $gap={1}>
          <Button
            $quiet
            $small
            aria-label={say("planning.rung-earlier", { rung: rung.name })}
            isDisabled={props.first}
            onPress={() => props.onMove(-1)}
          >
            ↑
          </Button>
          <Button
            $quiet
            $small
            aria-label={say("planning.rung-later", { rung: rung.name })}
            isDisabled={props.last}
            onPress={() => props.onMove(1)}
          >
            ↓
          </Button>
        </Row>
      </Stack>
    </Line>
  );
}

/** The fields of a plan are many; they are drawn again only when the exercise is another one. */
const DoseTable = memo(DoseFields, (a, b) => a.item === b.item && a.held === b.held && a.moves === b.moves);

function DoseFields(props: {
  item: PlanItem;
  held: boolean;
  moves: boolean;
  onDose: (index: number, change: Partial<Dose>) => void;
  onRange: (index: number, range: number) => void;
}) {
  const shrinks = props.item.doses.some((d) => d.dose.sets > 1);
  const columns = [
    say("planning.sets"),
    say("planning.reps"),
    ...(shrinks ? [say("planning.fewer-each-set")] : []),
    ...(props.held ? [say("planning.hold-s")] : []),
    ...(props.moves ? [say("planning.range")] : []),
  ];
  return (
    <Doses>
      <thead>
        <tr>
          <th>{say("planning.side")}</th>
          {columns.map((c) => (
            <th key={c}>{c}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {props.item.doses.map(({ side, dose, range }, i) => (
          <tr key={side}>
            <th scope="row">
              <SideTag side={side} />
            </th>
            <td>
              <NumberField
                small
                hideLabel
                label={say("planning.sets-side", { side })}
                value={dose.sets}
                min={1}
                max={10}
                onChange={(v) => v !== null && props.onDose(i, { sets: v })}
              />
            </td>
            <td>
              <NumberField
                small
                hideLabel
                label={say("planning.reps-side", { side })}
                value={dose.reps}
                min={1}
                max={50}
                onChange={(v) => v !== null && props.onDose(i, { reps: v })}
              />
            </td>
            {shrinks && (
              <td>
                <NumberField
                  small
                  hideLabel
                  label={say("planning.reps-fewer-in-each-next", { side })}
                  value={dose.fewer}
                  min={0}
                  max={10}
                  onChange={(v) => v !== null && props.onDose(i, { fewer: v })}
                />
              </td>
            )}
            {props.held && (
              <td>
                <NumberField
                  small
                  hideLabel
                  label={say("planning.hold-in-seconds-side", { side })}
                  value={dose.hold}
                  min={0}
                  max={120}
                  onChange={(v) => v !== null && props.onDose(i, { hold: v })}
                />
              </td>
            )}
            {props.moves && (
              <td>
                <NumberField
                  small
                  hideLabel
                  label={say("planning.range-in-percent-of-the", { side })}
                  value={Math.round((range ?? 1) * 100)}
                  min={20}
                  max={100}
                  step={5}
                  onChange={(v) => v !== null && props.onRange(i, v / 100)}
                />
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </Doses>
  );
}

function Why({ item }: { item: PlanItem }) {
  return (
    <Disclosure>
      <WhyOpener slot="trigger">{say("planning.why-this")}</WhyOpener>
      <DisclosurePanel>
        <ul>
          {item.reasons.map((reason) => (
            <li key={reason.ruleId + reason.words}>
              {reason.words} <Quiet>({reason.ruleId})</Quiet>
            </li>
          ))}
        </ul>
      </DisclosurePanel>
    </Disclosure>
  );
}
