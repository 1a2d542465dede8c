import styled from "styled-components";
import { useLibrary } from "../api/queries";
import type { ClientPrecaution, Precaution, Side } from "../api/types";
import { Checkbox, Choice, TextField } from "../controls/fields";
import { Small, Stack } from "../controls/layout";
import { capital } from "../controls/words";
import type { IntakePart } from "./IntakeFields";
import { DayField } from "../controls/DateField";
import { Term } from "../frame/Term";
import { say } from "../words/say";

const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  column-gap: ${({ theme }) => theme.space(3)};
  label {
    align-items: center;
    padding: 2px 0;
    line-height: 1.2;
  }
`;

const Ticked = styled.div`
  padding: ${({ theme }) => theme.space(2)} 0;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
`;

/** What the client has, each with its side, its options and its last day where it has them. */
export function PrecautionFields({ draft, onChange, problem }: IntakePart) {
  const { data: library } = useLibrary();
  const others = (id: string) => draft.precautions.filter((p) => p.id !== id);
  const put = (mine: ClientPrecaution) => onChange({ ...draft, precautions: [...others(mine.id), mine] });
  const ticked = (library?.precautions ?? []).filter((p) =>
    draft.precautions.some((mine) => mine.id === p.id),
  );
  return (
    <section aria-labelledby="precautions-title">
      <h2 id="precautions-title">
        <Term name="precaution">{say("intake.precautions")}</Term>
      </h2>
      <List>
        {library?.precautions.map((p) => (
          <Checkbox
            key={p.id}
            selected={ticked.includes(p)}
            onChange={(on) =>
              on ? put({ id: p.id, side: "both" }) : onChange({ ...draft, precautions: others(p.id) })
            }
          >
            {p.name}
          </Checkbox>
        ))}
      </List>
      {ticked.map((p) => {
        const index = draft.precautions.findIndex((mine) => mine.id === p.id);
        return (
          <Ticked key={p.id}>
            <Small>
              <strong>{p.name}.</strong> {p.explains}
            </Small>
            <Details
              precaution={p}
              mine={draft.precautions[index]!}
              onChange={put}
              error={(field) => problem?.field(`precautions[${index}].${field}`)}
            />
          </Ticked>
        );
      })}
    </section>
  );
}

function Details(props: {
  precaution: Precaution;
  mine: ClientPrecaution;
  onChange: (mine: ClientPrecaution) => void;
  error: (field: string) => string | undefined;
}) {
  const { precaution: p, mine, onChange } = props;
  if (!p.sided && !p.options && !p.dated) return null;
  const ticked = mine.options ?? [];
  return (
    <Stack $gap={2}>
      {p.sided && (
        <Choice<Side>
          label={say("intake.tag-which-side", { tag: capital(p.tag) })}
          value={mine.side ?? "both"}
          onChange={(side) => onChange({ ...mine, side })}
          options={[
            { value: "left", label: say("intake.left") },
            { value: "right", label: say("intake.right") },
            { value: "both", label: say("intake.both") },
          ]}
        />
      )}
      {p.options && !p.many && (
        <Choice
          label={say("intake.tag-when", { tag: capital(p.tag) })}
          value={ticked[0] ?? null}
          onChange={(id) => onChange({ ...mine, options: [id] })}
          options={p.options.map((o) => ({ value: o.id, label: o.words }))}
          hint={say("intake.left-open-all-that-holds")}
          error={props.error("options")}
        />
      )}
      {p.options && p.many && (
        <div role="group" aria-label={say("intake.p-what-is-barred", { p: p.name })}>
          {p.options.map((o) => (
            <Checkbox
              key={o.id}
              selected={ticked.includes(o.id)}
              onChange={(on) =>
                onChange({ ...mine, options: on ? [...ticked, o.id] : ticked.filter((id) => id !== o.id) })
              }
            >
              {capital(o.words)}
            </Checkbox>
          ))}
        </div>
      )}
      {p.dated && (
        <>
          <DayField
            label={say("intake.holds-until-the-last-day")}
            value={mine.until ?? ""}
            onChange={(until) => onChange({ ...mine, until: until || null })}
            hint={say("intake.after-that-day-it-no")}
            error={props.error("until")}
          />
          <TextField
            label={say("intake.in-whose-words")}
            value={mine.note ?? ""}
            onChange={(note) => onChange({ ...mine, note: note || null })}
            error={props.error("note")}
          />
        </>
      )}
    </Stack>
  );
}
