import { useEffect, useState } from "react";
import { Dialog } from "react-aria-components";
import styled from "styled-components";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Row, Stack } from "../controls/layout";
import { keyNames, type LiveKey } from "./liveKeys";
import { say } from "../words/say";

const Table = styled.table`
  width: 100%;
  th {
    text-align: start;
    width: 150px;
    font-weight: 700;
  }
  td,
  th {
    padding: 4px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

/** What each key does at this moment, behind `?` and a small button. */
export function KeysDialog(props: { keys: LiveKey[] }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      if (e.key === "?" && !(e.target as HTMLElement).closest("input, textarea")) setOpen(true);
    };
    document.addEventListener("keydown", pressed);
    return () => document.removeEventListener("keydown", pressed);
  }, []);
  const rows = [
    ...props.keys.flatMap((k): [string, string][] => (k.words === null ? [] : [[keyNames(k.key), k.words]])),
    [say("capture.shift-a-faults-key"), say("capture.it-persists-this-rep-and")],
    ["?", say("capture.this-list")],
  ];
  return (
    <>
      <Button $quiet $small onPress={() => setOpen(true)}>
        {say("capture.keys")}
      </Button>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog aria-label={say("capture.keys-2")}>
            <Stack>
              <h2>{say("capture.keys-2")}</h2>
              <Table>
                <tbody>
                  {rows.map(([key, words]) => (
                    <tr key={key}>
                      <th scope="row">{key}</th>
                      <td>{words}</td>
                    </tr>
                  ))}
                </tbody>
              </Table>
              <Row>
                <Button $quiet onPress={() => setOpen(false)}>
                  {say("capture.close")}
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}
