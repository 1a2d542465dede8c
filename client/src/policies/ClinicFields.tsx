import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";
import { keys, useClinic } from "../api/queries";
import type { ClinicForm } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { ProblemNote, Small, Stack } from "../controls/layout";

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
    onSuccess: (kept) => queries.setQueryData(keys.clinic, kept),
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const changed = form.name !== stored.name || form.contact !== stored.contact;
  return (
    <section aria-label="The clinic">
      <Stack $gap={3}>
        <h2>The clinic</h2>
        <TextField
          label="Name on the sheet"
          value={form.name}
          onChange={(name) => setForm({ ...form, name })}
          error={problem?.field("name")}
        />
        <TextField
          long
          label="Whom to call"
          value={form.contact}
          onChange={(contact) => setForm({ ...form, contact })}
          error={problem?.field("contact")}
        />
        <ProblemNote error={save.error} />
        <Button $quiet isDisabled={!changed || save.isPending} onPress={() => save.mutate()}>
          Keep
        </Button>
        <Small>Stands on every sheet, beside the stop signs.</Small>
      </Stack>
    </section>
  );
}
