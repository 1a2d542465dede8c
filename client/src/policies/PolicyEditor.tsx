import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import type { Policy, PolicyView, SchoolChoice, SchoolGroup, Simulated } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, Choice, NumberField, TextField } from "../controls/fields";
import { Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { capital } from "../controls/words";
import { same, valueAt, withValue } from "./paths";
import type { PolicyValue } from "./paths";
import { simulatedNote, triedWords } from "./simulated";
import { useUnsaved } from "../frame/unsaved";
import { say } from "../words/say";

const Line = styled.div<{ $changed: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 300px);
  gap: ${({ theme }) => theme.space(5)};
  align-items: start;
  padding: ${({ theme }) => theme.space(3)} 0 ${({ theme }) => theme.space(3)}
    ${({ theme }) => theme.space(3)};
  border-inline-start: 5px solid ${({ theme, $changed }) => ($changed ? theme.colour.ochre : "transparent")};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Finder = styled.div`
  display: grid;
  grid-template-columns: minmax(180px, 260px) minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(4)};
  align-items: start;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  view: PolicyView;
  builtIn: Policy;
  groups: SchoolGroup[];
  simulated: Simulated;
  /** What of a setting is looked for: it stays while policies are gone through and versions stored. */
  sought: string;
  onSeek: (sought: string) => void;
}

/** Every choice of a policy with the built-in value and its reason beside; own policies can be changed. */
export function PolicyEditor({ view, builtIn, groups, simulated, sought, onSeek }: Props) {
  const [draft, setDraft] = useState(view.policy);
  const queries = useQueryClient();
  const store = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/policies/{id}", {
          params: { path: { id: view.policy.id } },
          body: { policy: draft, version: view.policy.version },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
    // What was refused is shown, wherever it stands.
    onError: () => {
      onSeek("");
      setShown("all");
    },
  });
  const problem = store.error instanceof ProblemError ? store.error : null;
  const changed = JSON.stringify(draft) !== JSON.stringify(view.policy);
  useUnsaved(changed);
  const differs = (choice: SchoolChoice) =>
    !same(valueAt(view.policy, choice.path), valueAt(builtIn, choice.path));
  const differing = view.builtIn ? 0 : groups.flatMap((g) => g.choices).filter(differs).length;
  // What the clinic does its own way comes first.
  const [shown, setShown] = useState(differing > 0 ? "differs" : (groups[0]?.name ?? "all"));
  const here = found(groups, sought, (group, choice) =>
    shown === "differs" ? differs(choice) : shown === "all" || shown === group.name,
  );
  return (
    <>
      {!view.builtIn && (
        <Ruled>
          <Stack $gap={3}>
            <ProblemNote error={store.error} />
            <Row>
              <Button isDisabled={!changed || store.isPending} onPress={() => store.mutate()}>
                {say("policies.store-as-version-version", { version: view.policy.version + 1 })}
              </Button>
              {changed && (
                <Button $quiet onPress={() => setDraft(view.policy)}>
                  {say("policies.back-to-version-version", { version: view.policy.version })}
                </Button>
              )}
            </Row>
            {changed && <Effects draft={draft} />}
          </Stack>
        </Ruled>
      )}
      {simulated.changed.length > 0 && <Small>{simulatedNote(simulated)}</Small>}
      <Finder>
        <TextField label={say("policies.find-a-setting")} value={sought} onChange={onSeek} />
        {!sought && (
          <Choice
            snug
            label={say("policies.show")}
            value={shown}
            onChange={setShown}
            options={[
              ...(differing > 0
                ? [{ value: "differs", label: say("policies.what-differs", { count: differing }) }]
                : []),
              ...groups.map((group) => ({ value: group.name, label: group.name })),
              { value: "all", label: say("policies.all") },
            ]}
          />
        )}
      </Finder>
      {here.length === 0 && <p>{say("policies.no-such-setting")}</p>}
      {here.map((group) => (
        <section key={group.name} aria-label={group.name}>
          <h3>{group.name}</h3>
          {group.choices.map((choice) => (
            <OneChoice
              key={choice.path}
              choice={choice}
              value={valueAt(draft, choice.path)}
              builtIn={valueAt(builtIn, choice.path)}
              fixed={view.builtIn}
              tried={triedWords(simulated, choice.path, choice.unit ?? "")}
              error={problem?.field(`policy.${choice.path}`)}
              onChange={(value) => setDraft(withValue(draft, choice.path, value))}
            />
          ))}
        </section>
      ))}
    </>
  );
}

/** The settings of which name, reason or group has what is sought; without it those that are picked. */
function found(
  groups: SchoolGroup[],
  sought: string,
  picked: (group: SchoolGroup, choice: SchoolChoice) => boolean,
): SchoolGroup[] {
  const parts = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (group: SchoolGroup, choice: SchoolChoice) => {
    const text = `${group.name} ${choice.name} ${choice.why}`.toLowerCase();
    return parts.every((part) => text.includes(part));
  };
  return groups
    .map((group) => ({
      ...group,
      choices: group.choices.filter((c) => (parts.length > 0 ? has(group, c) : picked(group, c))),
    }))
    .filter((group) => group.choices.length > 0);
}

const words = (choice: SchoolChoice, value: PolicyValue): string =>
  Array.isArray(value)
    ? value.map((id) => words(choice, id)).join(", ") || say("policies.nothing")
    : typeof value === "number"
      ? `${value} ${choice.unit ?? ""}`.trim()
      : (choice.options?.find((o) => o.id === value)?.words ?? value);

function OneChoice(props: {
  choice: SchoolChoice;
  value: PolicyValue;
  builtIn: PolicyValue;
  fixed: boolean;
  tried: string | null;
  error?: string;
  onChange: (value: PolicyValue) => void;
}) {
  const { choice, value, builtIn, fixed, tried } = props;
  const differs = !same(value, builtIn);
  return (
    <Line $changed={differs}>
      <div>
        {fixed ? <strong>{choice.name}</strong> : <Control {...props} />}
        {fixed && <p>{capital(words(choice, value))}</p>}
      </div>
      <div>
        {!fixed && (
          <p>
            <Quiet>{say("policies.built-in")} </Quiet>
            {words(choice, builtIn)}{" "}
            {differs && (
              <Button $quiet $small onPress={() => props.onChange(builtIn)}>
                {say("policies.take-it-back")}
              </Button>
            )}
          </p>
        )}
        <Small>
          {choice.why} {choice.source && `(${choice.source})`}
        </Small>
        {tried && <Small as="p">{tried}</Small>}
      </div>
    </Line>
  );
}

function Control(props: {
  choice: SchoolChoice;
  value: PolicyValue;
  error?: string;
  onChange: (value: PolicyValue) => void;
}) {
  const { choice, value, onChange } = props;
  const options = choice.options ?? [];
  if (choice.kind === "number") {
    return (
      <NumberField
        label={choice.unit ? `${choice.name}, ${choice.unit}` : choice.name}
        value={value as number}
        min={choice.min ?? undefined}
        max={choice.max ?? undefined}
        step={choice.step ?? undefined}
        onChange={(v) => v !== null && onChange(v)}
        error={props.error}
      />
    );
  }
  if (choice.kind === "option") {
    return (
      <Choice
        label={choice.name}
        value={value as string}
        onChange={onChange}
        options={options.map((o) => ({ value: o.id, label: o.words }))}
        error={props.error}
      />
    );
  }
  const list = value as string[];
  return (
    <div role="group" aria-label={choice.name}>
      <strong>{choice.name}</strong>
      {options.map((o) => (
        <Checkbox
          key={o.id}
          selected={list.includes(o.id)}
          onChange={(on) => onChange(on ? [...list, o.id] : list.filter((id) => id !== o.id))}
        >
          {o.words}
        </Checkbox>
      ))}
    </div>
  );
}

/** Which open plans the change would touch, before it is stored. */
function Effects({ draft }: { draft: Policy }) {
  const { data, error, isFetching } = useQuery({
    queryKey: ["policy-effects", draft],
    queryFn: () =>
      got(
        api.POST("/api/policies/{id}/effects", {
          params: { path: { id: draft.id } },
          body: { policy: draft },
        }),
      ),
    placeholderData: (previous) => previous,
    retry: false,
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  return (
    <Note>
      <strong>
        {data.length === 0
          ? say("policies.no-open-plan-would-change")
          : say("policies.data-would-change", {
              data:
                data.length === 1
                  ? say("policies.one-open-plan")
                  : say("policies.data-open-plans", { data: data.length }),
            })}
      </strong>
      {isFetching && <Quiet> {say("policies.looking-again")}</Quiet>}
      {data.map((effect) => (
        <div key={effect.episodeId} style={{ marginTop: 8 }}>
          <Link to={`/episodes/${effect.episodeId}/visits/${effect.visitId}/plan`}>{effect.clientName}</Link>
          {effect.present.length > 0 && (
            <p>{say("policies.the-plan-in-force-present", { present: effect.present.join("; ") })}</p>
          )}
          {effect.proposal.length > 0 && (
            <p>{say("policies.a-new-proposal-proposal", { proposal: effect.proposal.join("; ") })}</p>
          )}
        </div>
      ))}
    </Note>
  );
}
