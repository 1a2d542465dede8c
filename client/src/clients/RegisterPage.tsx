import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { api, got, ProblemError } from "../api/client";
import type { ClientForm } from "../api/types";
import { Button } from "../controls/Button";
import { Page, ProblemNote, Row } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { SubmitForm } from "../controls/SubmitForm";
import { Alike } from "../frame/Alike";
import { useUnsaved } from "../frame/unsaved";
import { say } from "../words/say";
import { ClientFields } from "./ClientFields";

/** Takes a client in at the desk; what hurts is asked by whoever treats them. */
export function RegisterPage() {
  const [form, setForm] = useState<ClientForm>(() => ({ id: uuid(), name: "", birthDate: "" }));
  const queries = useQueryClient();
  const kept = useUnsaved(form.name !== "" || form.birthDate !== "");
  const navigate = useNavigate();
  const register = useMutation({
    mutationFn: () => got(api.POST("/api/clients/registered", { body: form })),
    onSuccess: (client) => {
      kept();
      void queries.invalidateQueries();
      void navigate(`/clients/${client.id}`, { replace: true });
    },
  });
  const problem = register.error instanceof ProblemError ? register.error : null;
  const ready = form.name.trim() !== "" && form.birthDate !== "";
  return (
    <Page>
      <PageHead title={say("clients.register")} ways={[{ to: "/clients", name: say("clients.clients") }]} />
      <SubmitForm onSubmit={() => ready && !register.isPending && register.mutate()}>
        <Alike name={form.name} birthDate={form.birthDate} phone={form.phone} />
        <ClientFields form={form} onChange={setForm} problem={problem} />
        {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
        <Row>
          <Button type="submit" isDisabled={!ready || register.isPending}>
            {say("clients.keep")}
          </Button>
        </Row>
      </SubmitForm>
    </Page>
  );
}
