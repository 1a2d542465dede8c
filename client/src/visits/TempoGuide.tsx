import { useEffect } from "react";
import styled from "styled-components";
import type { RepGuide } from "../api/types";
import { useNow } from "../capture/HoldStrip";
import { changeSettings, useLiveSettings } from "../capture/liveSettings";
import type { LiveTrialState } from "../capture/liveTrial";
import { signalCount } from "../capture/signals";
import { Button } from "../controls/Button";
import { HiddenVisually, Quiet } from "../controls/layout";
import { MovingFigure } from "../figure/MovingFigure";
import { isRushed, tempoAt, type Phase } from "./tempo";
import { say } from "../words/say";

const Strip = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  min-height: 64px;
`;

const Bar = styled.div`
  position: relative;
  display: flex;
  height: 30px;
  background: ${({ theme }) => theme.colour.wash};
  i {
    position: relative;
    height: 100%;
    border-inline-end: 2px solid ${({ theme }) => theme.colour.paper};
    font-style: normal;
    font-weight: 600;
    padding: 3px 8px;
    white-space: nowrap;
    overflow: hidden;
  }
  i.now {
    background: ${({ theme }) => theme.colour.sand};
  }
  b {
    position: absolute;
    top: -4px;
    bottom: -4px;
    width: 4px;
    background: ${({ theme }) => theme.colour.ink};
  }
`;

const words: Record<Phase, string> = {
  out: say("visits.out"),
  hold: say("visits.hold"),
  back: say("visits.back"),
  check: "",
  ready: "",
};

/**
 * The asked tempo beside what is done: a moving figure, a bar with out, hold and back, and a tick at each change.
 *
 * @param onRushed the rep counted at this moment was too fast
 */
export function TempoGuide(props: {
  trial: LiveTrialState;
  guide: RepGuide;
  onRushed: (at: string) => void;
}) {
  const { trial, guide } = props;
  const settings = useLiveSettings();
  const now = useNow(trial.ended === null && !trial.paused);
  const last = trial.lastRepAt ?? trial.startedAt;
  const held = trial.holdSince === null ? null : (now - trial.holdSince) / 1000;
  const at = tempoAt(guide, (now - last) / 1000, held, trial.reps.length === 0);
  const phases = (["out", "hold", "back", "check"] as const).filter((p) => guide[p] > 0);
  const whole = phases.reduce((sum, p) => sum + guide[p], 0);
  const { phase } = at;
  useEffect(() => {
    if (settings.tempo && phase !== "ready") signalCount();
  }, [phase, settings.tempo]);
  const from = phases.slice(0, Math.max(0, phases.indexOf(phase as "out"))).reduce((s, p) => s + guide[p], 0);
  const place = phase === "ready" ? (guide.hold > 0 ? guide.out : whole) : from + at.done * guide[phase];
  return (
    <Strip role="group" aria-label={say("visits.tempo-guide", { guide: guide.words })}>
      <div style={{ height: 60 }} aria-hidden>
        <MovingFigure
          rungId={trial.rungId}
          side={trial.side}
          moveSeconds={whole}
          playing={false}
          share={at.share}
        />
      </div>
      <div>
        <Bar aria-hidden>
          {phases.map((p) => (
            <i key={p} className={p === phase ? "now" : ""} style={{ width: `${(100 * guide[p]) / whole}%` }}>
              {words[p]} {p === "check" ? "✓" : p === phase ? Math.ceil(at.left) : guide[p].toFixed(0)}
            </i>
          ))}
          <b style={{ left: `calc(${(100 * place) / whole}% - 2px)` }} />
        </Bar>
        <Quiet>
          {readyWords(phase, guide, trial) ?? say("visits.breath-breath", { breath: guide.breath })}
        </Quiet>
      </div>
      {rushedRep(trial, guide) ? (
        <Button $small $quiet onPress={() => props.onRushed(new Date(last).toISOString())}>
          {say("visits.too-fast-mark-it")}
        </Button>
      ) : (
        <Button
          $small
          $quiet
          aria-pressed={settings.tempo}
          onPress={() => changeSettings({ tempo: !settings.tempo })}
        >
          {settings.tempo ? say("visits.ticks-on") : say("visits.ticks-off")}
        </Button>
      )}
      <HiddenVisually>
        {guide.words}
        {guide.check > 0 && say("visits.at-each-return-look-whether")}
      </HiddenVisually>
    </Strip>
  );
}

function readyWords(phase: Phase, guide: RepGuide, trial: LiveTrialState) {
  if (phase === "check") return say("visits.back-where-it-was");
  if (phase !== "ready") return null;
  if (guide.hold > 0) return say("visits.there-start-the-hold");
  return trial.reps.length >= trial.target.reps ? say("visits.all-done") : say("visits.back-count-the-rep");
}

/** The last rep took less than half its tempo and is not marked yet. */
function rushedRep(trial: LiveTrialState, guide: RepGuide) {
  const last = trial.reps.at(-1);
  return (
    last !== undefined &&
    last.took !== null &&
    isRushed(guide, last.took) &&
    !trial.marks.some((m) => m.means === "rush" && m.rep === last.number)
  );
}
