import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { dayOf, dayWords, timeWords } from "../api/clinicTime";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { SubmitForm } from "../controls/SubmitForm";
import { calledOffWords } from "./calledOffWords";
import { say } from "../words/say";
import { Taken, WhenFields, wrongIn, type VisitTime } from "./WhenFields";

/** What the desk needs to know of a visit. */
export interface DeskVisit {
  visitId: string;
  clientId: string;
  name: string;
  plannedAt: string;
  minutes: number;
  withId?: string | null;
  withName?: string | null;
  calledOff?: "cancelled" | "missed" | null;
  calledOffReason?: string | null;
  fromPaper: boolean;
  begun: boolean;
  seriesId?: string | null;
  version: number;
  phone?: string | null;
}

/** A visit at the desk: moved, cancelled, missed, put back. */
export function VisitDialog(props: { visit: DeskVisit; open?: string | null; onDone: () => void }) {
  const { visit } = props;
  const [doing, setDoing] = useState<"move" | "cancel" | null>(null);
  const shown = visit.calledOff ? calledOffWords[visit.calledOff] : null;
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && props.onDone()}>
      <Sheet>
        <Dialog>
          <Stack $gap={4}>
            <div>
              <Heading slot="title">{visit.name}</Heading>
              <p>
                {dayWords(visit.plannedAt)} {timeWords(visit.plannedAt)}
                {", "}
                {say("frame.n-minutes", { n: visit.minutes })}
                {visit.withName && `, ${say("frame.with-name", { name: visit.withName })}`}{" "}
                {shown && <strong>{shown}</strong>}{" "}
                {visit.calledOffReason && <Quiet>{visit.calledOffReason}</Quiet>}
              </p>
              {visit.fromPaper && <Small>{say("frame.typed-in-from-paper")}</Small>}
            </div>
            <Row>
              {props.open && !visit.calledOff && <Link to={props.open}>{say("frame.open-the-visit")}</Link>}
              <Link to={`/clients/${visit.clientId}`}>{say("frame.client-card")}</Link>
              {!visit.calledOff && !visit.begun && (
                <a href={`/api/visits/${visit.visitId}/invitation.ics?alarm=60`} download>
                  {say("frame.invitation")}
                </a>
              )}
              {visit.phone && <a href={`tel:${visit.phone.replace(/[^\d+]/g, "")}`}>{visit.phone}</a>}
            </Row>
            {visit.calledOff ? (
              <PutBack {...props} />
            ) : doing === "move" ? (
              <Move {...props} />
            ) : doing === "cancel" ? (
              <Cancel {...props} />
            ) : visit.begun && !visit.fromPaper ? (
              <Small>{say("frame.begun-stays")}</Small>
            ) : (
              <Row>
                <Button $quiet onPress={() => setDoing("move")}>
                  {say("frame.move-it")}
                </Button>
                {!visit.begun && <Missed {...props} />}
                {!visit.begun && (
                  <Button $quiet onPress={() => setDoing("cancel")}>
                    {say("frame.cancel-it")}
                  </Button>
                )}
              </Row>
            )}
            <Row>
              <Button $quiet $small onPress={props.onDone}>
                {say("frame.close")}
              </Button>
            </Row>
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}

/** One change of a visit: what it does, and what went wrong. */
function useChange<T>(change: (asked: T) => Promise<unknown>, onDone: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: async () => {
      await queries.invalidateQueries();
      onDone();
    },
  });
}

const pathOf = (visit: DeskVisit) => ({ params: { path: { visitId: visit.visitId } } });

function Move(props: { visit: DeskVisit; onDone: () => void }) {
  const { visit } = props;
  const [time, setTime] = useState<VisitTime>({
    at: `${dayOf(visit.plannedAt)}T${timeWords(visit.plannedAt)}`,
    who: visit.withId ?? null,
    minutes: visit.minutes,
  });
  const move = useChange(
    (anyway: boolean) =>
      got(
        api.PUT("/api/visits/{visitId}/booking", {
          ...pathOf(visit),
          body: {
            plannedAt: `${time.at}:00`,
            version: visit.version,
            withId: time.who,
            minutes: time.minutes,
            anyway,
          },
        }),
      ),
    props.onDone,
  );
  return (
    <SubmitForm onSubmit={() => move.mutate(false)}>
      <WhenFields time={time} onChange={setTime} error={wrongIn(move.error)} />
      <Taken error={move.error} onAnyway={() => move.mutate(true)} />
      <Row>
        <Button type="submit" isDisabled={!time.at || move.isPending}>
          {say("frame.move-it")}
        </Button>
      </Row>
    </SubmitForm>
  );
}

function Cancel(props: { visit: DeskVisit; onDone: () => void }) {
  const { visit } = props;
  const [reason, setReason] = useState("");
  const [rest, setRest] = useState(false);
  const cancel = useChange(
    () =>
      got(
        api.POST("/api/visits/{visitId}/called-off", {
          ...pathOf(visit),
          body: { what: "cancelled", version: visit.version, reason: reason || null, rest },
        }),
      ),
    props.onDone,
  );
  return (
    <SubmitForm onSubmit={() => cancel.mutate(undefined)}>
      <TextField label={say("frame.why-if-told")} value={reason} onChange={setReason} />
      {visit.seriesId && (
        <Checkbox selected={rest} onChange={setRest}>
          {say("frame.and-the-rest-of-the-series")}
        </Checkbox>
      )}
      <ProblemNote error={cancel.error} />
      <Row>
        <Button type="submit" isDisabled={cancel.isPending}>
          {say("frame.cancel-it")}
        </Button>
      </Row>
    </SubmitForm>
  );
}

function Missed(props: { visit: DeskVisit; onDone: () => void }) {
  const { visit } = props;
  const miss = useChange(
    () =>
      got(
        api.POST("/api/visits/{visitId}/called-off", {
          ...pathOf(visit),
          body: { what: "missed", version: visit.version, rest: false },
        }),
      ),
    props.onDone,
  );
  const [opened] = useState(() => Date.now());
  // Nobody has missed what is still to come.
  if (new Date(visit.plannedAt).getTime() > opened) return null;
  return (
    <>
      <Button $quiet isDisabled={miss.isPending} onPress={() => miss.mutate(undefined)}>
        {say("frame.did-not-come")}
      </Button>
      <ProblemNote error={miss.error} />
    </>
  );
}

function PutBack(props: { visit: DeskVisit; onDone: () => void }) {
  const { visit } = props;
  const back = useChange(
    (anyway: boolean) =>
      got(
        api.POST("/api/visits/{visitId}/put-back", {
          ...pathOf(visit),
          body: { version: visit.version, anyway },
        }),
      ),
    props.onDone,
  );
  return (
    <Stack $gap={3}>
      <Taken error={back.error} onAnyway={() => back.mutate(true)} />
      <Row>
        <Button isDisabled={back.isPending} onPress={() => back.mutate(false)}>
          {say("frame.put-it-back")}
        </Button>
      </Row>
    </Stack>
  );
}
