import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link, useNavigate, useParams } from "react-router";
import { api, got } from "../api/client";
import { findRung, keys, useLibrary } from "../api/queries";
import type { ChannelColumn, Library, TraceColumns, TraceMapping, TraceUnit } from "../api/types";
import { liveTrials } from "../capture/liveTrial";
import { useCapture } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Checkbox, NumberField } from "../controls/fields";
import { Columns, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Picker } from "../controls/Picker";
import { SideTag } from "../controls/SideTag";
import { Table, Wide } from "../controls/Table";
import { WrongRows } from "../controls/WrongRows";
import { useTrialHome } from "../frame/useTrialHome";
import { useVisit } from "../frame/useVisit";
import { say } from "../words/say";

const unitWords: Record<TraceUnit, string> = {
  seconds: say("instruments.seconds"),
  milliseconds: say("instruments.milliseconds"),
  "millimetres-of-mercury": say("instruments.mmhg"),
  kilopascal: say("instruments.kpa"),
  hectopascal: say("instruments.hpa-or-mbar"),
  "centimetres-of-water": say("instruments.cmh-o"),
  degrees: say("instruments.degrees"),
  radians: say("instruments.radians"),
};
const pressures: TraceUnit[] = [
  "millimetres-of-mercury",
  "kilopascal",
  "hectopascal",
  "centimetres-of-water",
];
const angles: TraceUnit[] = ["degrees", "radians"];
const asOptions = (units: TraceUnit[]) => units.map((value) => ({ value, label: unitWords[value] }));

/** Enough of a file to see its columns. */
const headLength = 20_000;

/** A trace of this trial from a file: ours as it is, another source's by saying which column is what. */
export function TraceFilePage() {
  const { trialId = "" } = useParams();
  const { episodeId, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { events } = useCapture(visitId);
  const go = useNavigate();
  const queries = useQueryClient();
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [mapping, setMapping] = useState<TraceMapping | null>(null);
  const base = `/episodes/${episodeId}/visits/${visitId}`;
  const look = useMutation({
    mutationFn: (text: string) =>
      got(api.POST("/api/traces/columns", { body: { csv: text.slice(0, headLength) } })),
    onSuccess: (columns) => setMapping(columns.guess),
  });
  const read = useMutation({
    mutationFn: (how: TraceMapping) =>
      got(
        api.POST("/api/visits/{visitId}/trials/{trialId}/traces/file", {
          params: { path: { visitId, trialId } },
          body: { csv: file?.text ?? "", mapping: how },
        }),
      ),
    onSuccess: async (entry) => {
      await queries.invalidateQueries({ queryKey: keys.traces(visitId) });
      void go(`${base}/traces/${entry.id}`);
    },
  });
  const trial = library && liveTrials(events, library).find((t) => t.trialId === trialId);
  const home = useTrialHome(trial?.purpose);
  if (!library) return null;
  const choose = (picked: File | undefined) => {
    if (!picked) return;
    read.reset();
    void picked.text().then((text) => {
      setFile({ name: picked.name, text });
      look.mutate(text);
    });
  };
  return (
    <Stack $gap={5}>
      <h1>
        {say("instruments.a-trace-from-a-file")}{" "}
        {trial && (
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("instruments.for-rung", { rung: findRung(library, trial.rungId).rung.name })}{" "}
            {trial.side !== "both" && <SideTag side={trial.side} />}
          </Quiet>
        )}
      </h1>
      <Row $gap={4}>
        <FileTrigger
          acceptedFileTypes={["text/csv", ".csv", ".txt", ".tsv"]}
          onSelect={(l) => choose(l?.[0])}
        >
          <Button $quiet={file !== null}>
            {file ? say("instruments.choose-another-file") : say("instruments.choose-a-csv-file")}
          </Button>
        </FileTrigger>
        {file && <strong>{file.name}</strong>}
        <Link to={home.path}>{home.words}</Link>
      </Row>
      {!file && <Small>{say("instruments.one-row-for-each-moment")}</Small>}
      <ProblemNote error={look.error} />
      {mapping && look.data && (
        <>
          <Mapped columns={look.data} mapping={mapping} library={library} onChange={setMapping} />
          <Row>
            <Button isDisabled={read.isPending} onPress={() => read.mutate(mapping)}>
              {read.isPending ? say("instruments.reading") : say("instruments.read-it-in")}
            </Button>
          </Row>
        </>
      )}
      <WrongRows error={read.error} />
    </Stack>
  );
}

function Mapped(props: {
  columns: TraceColumns;
  mapping: TraceMapping;
  library: Library;
  onChange: (mapping: TraceMapping) => void;
}) {
  const { columns, mapping, onChange } = props;
  const named = columns.header.map((h) => ({ value: h, label: h }));
  const channel = (changed: ChannelColumn) =>
    onChange({
      ...mapping,
      channels: mapping.channels.map((c) => (c.channel === changed.channel ? changed : c)),
    });
  return (
    <Columns $at="minmax(0, 3fr) minmax(260px, 2fr)">
      <Stack $gap={4}>
        <Columns $at="1fr 1fr 1fr" style={{ gap: 16 }}>
          <Picker
            label={say("instruments.time")}
            value={mapping.timeColumn ?? "none"}
            onPick={(v) => onChange({ ...mapping, timeColumn: v === "none" ? null : v })}
            options={[{ value: "none", label: say("instruments.no-column-even-rows") }, ...named]}
          />
          {mapping.timeColumn !== null ? (
            <Picker
              label={say("instruments.told-in")}
              value={mapping.timeUnit}
              onPick={(timeUnit) => onChange({ ...mapping, timeUnit })}
              options={asOptions(["seconds", "milliseconds"])}
            />
          ) : (
            <NumberField
              label={say("instruments.samples-a-second")}
              value={mapping.rate ?? null}
              onChange={(rate) => onChange({ ...mapping, rate })}
              min={25}
              max={1000}
            />
          )}
        </Columns>
        {mapping.channels.map((c) => (
          <Columns key={c.channel} $at="1fr 1fr 1fr" style={{ gap: 16, alignItems: "end" }}>
            <Picker
              label={channelWords[c.channel]}
              placeholder={say("instruments.which-column")}
              value={c.column === "" ? null : c.column}
              onPick={(column) => channel({ ...c, column })}
              options={named}
            />
            <Picker
              label={say("instruments.told-in")}
              value={c.unit}
              onPick={(unit) => channel({ ...c, unit })}
              options={asOptions(c.channel === "pressure" ? pressures : angles)}
            />
            <Checkbox selected={c.turned === true} onChange={(turned) => channel({ ...c, turned })}>
              {say("instruments.sign-the-other-way")}
            </Checkbox>
          </Columns>
        ))}
        <Checkbox
          selected={mapping.leaveOutWrong === true}
          onChange={(leaveOutWrong) => onChange({ ...mapping, leaveOutWrong })}
        >
          {say("instruments.leave-out-rows-that-cannot")}
        </Checkbox>
      </Stack>
      <Stack $gap={2}>
        <Small>{say("instruments.the-first-rows-of-the")}</Small>
        <Wide label={say("instruments.the-first-rows-of-the")}>
          <Table>
            <thead>
              <tr>
                {columns.header.map((h, i) => (
                  <th key={i}>{h}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {columns.examples.map((row, i) => (
                <tr key={i}>
                  {row.map((cell, j) => (
                    <td key={j}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </Table>
        </Wide>
        <Small>{say("instruments.pitch-forward-roll-with-the")}</Small>
      </Stack>
    </Columns>
  );
}

const channelWords: Record<ChannelColumn["channel"], string> = {
  pressure: say("instruments.pressure"),
  pitch: say("instruments.pitch"),
  roll: say("instruments.roll"),
  yaw: say("instruments.yaw"),
};
