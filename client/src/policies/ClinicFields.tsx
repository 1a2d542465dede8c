import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { api, got, ProblemError } from "../api/client";
import { keys, useClinic } from "../api/queries";
import type { ClinicForm, ClinicTime } from "../api/types";
import { Button } from "../controls/Button";
import { clinicTime } from "../api/clinicTime";
import { Checkbox, NumberField, TextField } from "../controls/fields";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { Picker, SearchPicker } from "../controls/Picker";
import { dateOrders, unitChoices, weekStarts } from "../controls/readings";
import { useUnsaved } from "../frame/unsaved";
import { say } from "../words/say";

/** Zones this browser knows, and the one that is set. */
const zones = (set: string) => [...new Set([set, ...Intl.supportedValuesOf("timeZone"), "UTC"])].sort();

/** Name and contact line of the clinic, as they stand on the sheet. */
export function ClinicFields() {
  const { data } = useClinic();
  return data ? <Fields key={data.version} stored={data} /> : null;
}

function Fields({ stored }: { stored: ClinicForm }) {
  const queries = useQueryClient();
  const [form, setForm] = useState(stored);
  const save = useMutation({
    mutationFn: () => got(api.PUT("/api/clinic", { body: form })),
    onSuccess: async (kept) => {
      queries.setQueryData(keys.clinic, kept);
      // Every time that is shown may be another now; how whoever is here reads it comes first.
      await queries.invalidateQueries({ queryKey: keys.start });
      await queries.invalidateQueries();
    },
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const changed = JSON.stringify(form) !== JSON.stringify(stored);
  useUnsaved(changed);
  const time = form.time ?? clinicTime();
  const set = (change: Partial<ClinicTime>) => setForm({ ...form, time: { ...time, ...change } });
  return (
    <section aria-label={say("policies.the-clinic")}>
      <Stack $gap={3}>
        <h2>{say("policies.the-clinic")}</h2>
        <TextField
          label={say("policies.name-on-the-sheet")}
          value={form.name}
          onChange={(name) => setForm({ ...form, name })}
          error={problem?.field("name")}
        />
        <TextField
          long
          label={say("policies.whom-to-call")}
          value={form.contact}
          onChange={(contact) => setForm({ ...form, contact })}
          error={problem?.field("contact")}
        />
        <TextField
          long
          label={say("policies.address-on-letters")}
          value={form.address ?? ""}
          onChange={(address) => setForm({ ...form, address })}
          error={problem?.field("address")}
        />
        <Mark stored={stored} />
        <SearchPicker
          label={say("policies.time-zone")}
          value={time.zone}
          onPick={(zone) => set({ zone })}
          options={zones(time.zone).map((zone) => ({ value: zone, label: zone.replaceAll("_", " ") }))}
        />
        {time.zone !== stored.time?.zone && <Small>{say("policies.visits-still-to-come-keep")}</Small>}
        <Picker
          label={say("policies.dates")}
          value={time.dateOrder}
          onPick={(dateOrder) => set({ dateOrder })}
          options={dateOrders}
        />
        <Picker
          label={say("policies.weeks-begin-on")}
          value={time.weekStart}
          onPick={(weekStart) => set({ weekStart })}
          options={weekStarts}
        />
        <Picker
          label={say("policies.height-and-mass")}
          value={time.units ?? "kg-cm"}
          onPick={(units) => set({ units })}
          options={unitChoices}
        />
        <Checkbox
          selected={form.homeAddresses ?? false}
          onChange={(homeAddresses) => setForm({ ...form, homeAddresses })}
        >
          {say("policies.home-addresses")}
        </Checkbox>
        <NumberField
          label={say("policies.a-tablet-locks-itself-after")}
          value={form.lockMinutes ?? 10}
          onChange={(lockMinutes) => setForm({ ...form, lockMinutes })}
          min={1}
          max={60}
          error={problem?.field("lockMinutes")}
        />
        <NumberField
          label={say("policies.records-are-kept-for-years")}
          hint={say("policies.local-rules-say-how-long")}
          value={form.retentionYears ?? 10}
          onChange={(retentionYears) => setForm({ ...form, retentionYears })}
          min={1}
          max={50}
          error={problem?.field("retentionYears")}
        />
        <ProblemNote error={save.error} />
        <Button $quiet isDisabled={!changed || save.isPending} onPress={() => save.mutate()}>
          {say("policies.keep")}
        </Button>
        <Small>{say("policies.name-and-whom-to-call")}</Small>
      </Stack>
    </section>
  );
}

/** A small picture at the head of letters and sheets. */
function Mark({ stored }: { stored: ClinicForm }) {
  const queries = useQueryClient();
  const put = useMutation({
    mutationFn: (file: File | null) =>
      got(
        file
          ? api.PUT("/api/clinic/mark", {
              // A picture goes as it is.
              body: file as never,
              bodySerializer: (picture) => picture,
              headers: { "content-type": file.type },
            })
          : api.DELETE("/api/clinic/mark"),
      ),
    onSuccess: (kept) => queries.setQueryData(keys.clinic, kept),
  });
  return (
    <div role="group" aria-label={say("policies.picture-on-letters-and-sheets")}>
      <strong>{say("policies.picture-on-letters-and-sheets")}</strong>
      <Row>
        {stored.hasMark && (
          <img
            src={`/api/clinic/mark?v=${stored.version}`}
            alt={say("policies.as-it-stands-on-letters")}
            style={{ maxWidth: 130, maxHeight: 56 }}
          />
        )}
        <FileTrigger
          acceptedFileTypes={["image/png", "image/jpeg"]}
          onSelect={(files) => files?.[0] && put.mutate(files[0])}
        >
          <Button $quiet $small>
            {stored.hasMark ? say("policies.another") : say("policies.choose-a-picture")}
          </Button>
        </FileTrigger>
        {stored.hasMark && (
          <Button $quiet $small onPress={() => put.mutate(null)}>
            {say("policies.take-it-off")}
          </Button>
        )}
      </Row>
      <ProblemNote error={put.error} />
    </div>
  );
}
