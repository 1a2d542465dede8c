import { useQuery } from "@tanstack/react-query";
import { Button as AriaButton, Dialog, DialogTrigger, Heading } from "react-aria-components";
import styled from "styled-components";
import { api, got } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import { Button } from "../controls/Button";
import { ProblemNote, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Table } from "../controls/Table";
import { say } from "../words/say";

/** As quiet as the ways beside it: nobody needs it while a client waits. */
const Opener = styled(AriaButton)`
  min-height: 44px;
  padding: 0 ${({ theme }) => theme.space(2)};
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.grey};
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
`;

/** Who has looked at this record, changed it, taken something out of it: one press. */
export function SeenBy({ episodeId }: { episodeId: string }) {
  return (
    <DialogTrigger>
      <Opener>{say("frame.who-has-seen-this")}</Opener>
      <Veil isDismissable>
        <Sheet $wide>
          <Dialog>
            {({ close }) => (
              <Stack $gap={3}>
                <Heading slot="title">{say("frame.who-has-seen-this")}</Heading>
                <List episodeId={episodeId} />
                <Button $quiet onPress={close}>
                  {say("frame.close")}
                </Button>
              </Stack>
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}

function List({ episodeId }: { episodeId: string }) {
  const { data, error } = useQuery({
    queryKey: keys.seenBy(episodeId),
    queryFn: () => got(api.GET("/api/episodes/{id}/seen", { params: { path: { id: episodeId } } })),
    staleTime: 0,
  });
  if (!data) return <ProblemNote error={error} />;
  if (data.length === 0) return <p>{say("frame.nobody-has-yet")}</p>;
  return (
    <>
      <Table>
        <thead>
          <tr>
            <th>{say("frame.who")}</th>
            <th>{say("frame.last-time")}</th>
            <th>{say("frame.looked")}</th>
            <th>{say("frame.changed")}</th>
            <th>{say("frame.took-out")}</th>
          </tr>
        </thead>
        <tbody>
          {data.map((line) => (
            <tr key={line.by}>
              <td>{line.by}</td>
              <td>{momentWords(line.last)}</td>
              <td>{line.times}</td>
              <td>{line.changes}</td>
              <td>{line.exports}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Small>{say("frame.looks-are-counted")}</Small>
    </>
  );
}
