import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { birthWords } from "../api/clinicTime";
import { Note, Quiet } from "../controls/layout";
import { say } from "../words/say";

/** Somebody who may be the same person, before they are there twice. */
export function Alike(props: { name: string; birthDate: string; phone?: string | null; besides?: string }) {
  const name = props.name.trim();
  const { data } = useQuery({
    queryKey: ["clients", "alike", name, props.birthDate, props.phone ?? "", props.besides ?? ""],
    queryFn: () =>
      got(
        api.GET("/api/clients/alike", {
          params: {
            query: {
              name,
              birthDate: props.birthDate || undefined,
              phone: props.phone ?? undefined,
              besides: props.besides,
            },
          },
        }),
      ),
    enabled: name.length > 2,
    placeholderData: (previous) => previous,
  });
  if (!data || data.length === 0 || name.length <= 2) return null;
  return (
    <Note>
      <strong>
        {data.some((c) => c.sure) ? say("frame.there-already") : say("frame.perhaps-there-already")}
      </strong>
      <ul>
        {data.map((client) => (
          <li key={client.clientId}>
            <Link to={`/clients/${client.clientId}`}>{client.name}</Link>{" "}
            <Quiet>
              {birthWords(client.birthDate)}, {client.number}
            </Quiet>
          </li>
        ))}
      </ul>
    </Note>
  );
}
