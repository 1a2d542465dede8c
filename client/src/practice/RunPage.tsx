import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { api, got } from "../api/client";
import { findRung, keys, useLibrary } from "../api/queries";
import type { ClipFeedback, ClipMark, Library, PracticeRun, ShownClip, Side } from "../api/types";
import { breaksRep, faultsHere } from "../capture/breaksRep";
import { FaultStageOver } from "../capture/FaultStage";
import { Centre, Controls, Live, Panel } from "../capture/LiveGrid";
import { useLiveSettings } from "../capture/liveSettings";
import { useLiveKeys } from "../capture/useLiveKeys";
import { Button } from "../controls/Button";
import { HiddenVisually, Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";
import { PageHead } from "../controls/PageHead";
import { say } from "../words/say";
import { Feedback } from "./Feedback";
import { Film } from "./Film";
import { RunOver } from "./RunOver";

/** A run through clips: each is shown once, marked as a client would be, and told of; at the end what it came to. */
export function RunPage() {
  const { runId } = useParams() as { runId: string };
  const { data: library } = useLibrary();
  const { data: run, error } = useQuery({
    queryKey: keys.practiceRun(runId),
    queryFn: () => got(api.GET("/api/practice/runs/{runId}", { params: { path: { runId } } })),
  });
  const [told, setTold] = useState<{ clip: ShownClip; feedback: ClipFeedback } | null>(null);
  if (!library || !run) return <Page>{<ProblemNote error={error} />}</Page>;
  const seen = told ? run.answered : run.answered + 1;
  return (
    <Page>
      <PageHead
        title={
          run.next || told
            ? say("practice.clip-of", { place: Math.min(seen, run.clips), clips: run.clips })
            : (run.teamName ?? say("practice.drill"))
        }
        ways={[{ to: "/practice", name: say("practice.practice-room") }]}
      />
      {told ? (
        <Told
          key={`told-${told.clip.place}`}
          {...told}
          library={library}
          last={run.next === null}
          onNext={() => setTold(null)}
        />
      ) : run.next ? (
        <Showing
          key={run.next.place}
          run={run}
          clip={run.next}
          library={library}
          onTold={(clip, feedback) => feedback && setTold({ clip, feedback })}
        />
      ) : (
        <RunOver run={run} library={library} />
      )}
    </Page>
  );
}

const nothing = new Map<string, number>();
const none = new Set<string>();

type Phase = "before" | "running" | "over";

function Showing(props: {
  run: PracticeRun;
  clip: ShownClip;
  library: Library;
  onTold: (clip: ShownClip, feedback: ClipFeedback | null) => void;
}) {
  const { run, clip, library } = props;
  const queries = useQueryClient();
  const settings = useLiveSettings();
  const clock = useRef(0);
  const [phase, setPhase] = useState<Phase>(clip.place === 0 ? "before" : "running");
  const [marks, setMarks] = useState<ClipMark[]>([]);
  const { rung } = findRung(library, clip.rungId);
  const faults = useMemo(() => faultsHere(rung, library), [rung, library]);
  const answer = useMutation({
    mutationFn: (told: ClipMark[]) =>
      got(
        api.POST("/api/practice/runs/{runId}/answers", {
          params: { path: { runId: run.id } },
          body: { place: clip.place, marks: told },
        }),
      ),
    onSuccess: (answered) => {
      props.onTold(clip, answered.feedback ?? null);
      queries.setQueryData(keys.practiceRun(run.id), answered.run);
    },
  });
  const broke = marks.some((mark) => faults.some((f) => f.code === mark.fault && breaksRep(f)));
  const asksSide = clip.asksSide && broke;
  const ended = useCallback(() => setPhase("over"), []);
  const mark = (code: string) => {
    if (phase === "before" || answer.isPending) return;
    setMarks([...marks, { fault: code, second: Math.round(clock.current * 100) / 100, side: null }]);
  };
  const done = (side?: Side) => answer.mutate(side ? marks.map((m) => ({ ...m, side })) : marks);
  const main = () => {
    if (answer.isPending) return;
    if (phase === "before") setPhase("running");
    else if (phase === "over" && !asksSide) done();
  };
  const counts = new Map<string, number>();
  for (const m of marks) counts.set(m.fault, (counts.get(m.fault) ?? 0) + 1);
  const live: [string, () => void][] = [
    ["space", main],
    ["z", () => setMarks(marks.slice(0, -1))],
    ...faults.map((f): [string, () => void] => [f.key, () => mark(f.code)]),
    ...(phase === "over" && asksSide
      ? ([
          ["arrowleft", () => done("left")],
          ["arrowright", () => done("right")],
        ] as [string, () => void][])
      : []),
  ];
  useLiveKeys(new Map(live), settings.keys);
  return (
    <Live $thumb={settings.thumb} data-live>
      <Controls className="controls">
        <div className="side">
          <Small>{rung.name}</Small>
          <Small>
            {clip.reps === 0 ? say("practice.one-hold") : say("practice.reps-shown", { reps: clip.reps })}
          </Small>
        </div>
        <div className="main">
          {phase === "over" && asksSide ? (
            <Stack $gap={2} role="group" aria-label={say("practice.which-side")}>
              <strong>{say("practice.which-side")}</strong>
              <Button $big onPress={() => done("left")}>
                {say("practice.left")}
              </Button>
              <Button $big onPress={() => done("right")}>
                {say("practice.right")}
              </Button>
            </Stack>
          ) : (
            <Button
              $big
              style={{ width: "100%", minHeight: 116 }}
              isDisabled={phase === "running" || answer.isPending}
              onPress={main}
            >
              {phase === "before"
                ? say("practice.show-it")
                : phase === "running"
                  ? say("practice.mark-what-you-see")
                  : broke
                    ? say("practice.that-is-it")
                    : say("practice.it-held")}
            </Button>
          )}
        </div>
        <Row className="undo" $gap={2}>
          <Button
            $quiet
            style={{ flex: 1 }}
            isDisabled={marks.length === 0}
            onPress={() => setMarks(marks.slice(0, -1))}
          >
            {say("practice.undo")}
          </Button>
        </Row>
      </Controls>
      <Centre className="stage">
        <FaultStageOver
          figure={clip.pictures.figure}
          faults={faults}
          counts={counts}
          persisting={none}
          onMark={mark}
          moving={
            <Film clip={clip.pictures} playing={phase === "running"} speed={1} clock={clock} onEnd={ended} />
          }
        />
      </Centre>
      <Panel className="panel">
        <HiddenVisually role="status">{phase === "over" ? say("practice.clip-is-over") : ""}</HiddenVisually>
        <div className="note">
          <Small>{say("practice.how-to-mark")}</Small>
          <ProblemNote error={answer.error} />
        </div>
        {run.teamId === null && <EndNow run={run} />}
      </Panel>
    </Live>
  );
}

function EndNow({ run }: { run: PracticeRun }) {
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: () =>
      got(api.POST("/api/practice/runs/{runId}/end", { params: { path: { runId: run.id } } })),
    onSuccess: (ended) => queries.setQueryData(keys.practiceRun(run.id), ended),
  });
  return (
    <div className="ends">
      <Button $quiet isDisabled={end.isPending} onPress={() => end.mutate()}>
        {say("practice.end-here")}
      </Button>
      <ProblemNote error={end.error} />
    </div>
  );
}

/** What was there: again, slower, with the clean outline over it. */
function Told(props: {
  clip: ShownClip;
  feedback: ClipFeedback;
  library: Library;
  last: boolean;
  onNext: () => void;
}) {
  const { clip, feedback, library } = props;
  const settings = useLiveSettings();
  const clock = useRef(0);
  useLiveKeys(new Map([["space", props.onNext]]), settings.keys);
  const next = useTakeFocus<HTMLButtonElement>();
  return (
    <Live $thumb={settings.thumb} data-live>
      <Controls className="controls">
        <div className="main">
          <Button ref={next} $big style={{ width: "100%", minHeight: 116 }} onPress={props.onNext}>
            {props.last ? say("practice.what-it-came-to") : say("practice.next-clip")}
          </Button>
        </div>
      </Controls>
      <Centre className="stage">
        <FaultStageOver
          figure={clip.pictures.figure}
          faults={[]}
          counts={nothing}
          persisting={none}
          onMark={() => undefined}
          moving={
            <Film
              clip={clip.pictures}
              clean={feedback.clean}
              playing={feedback.result.spec.truth !== null}
              speed={0.5}
              loops
              clock={clock}
            />
          }
        />
        {feedback.clean && <Small>{say("practice.half-speed")}</Small>}
      </Centre>
      <Panel className="panel">
        <Feedback feedback={feedback} library={library} />
      </Panel>
    </Live>
  );
}
