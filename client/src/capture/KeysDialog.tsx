import { useEffect, useState } from "react";
import { Dialog } from "react-aria-components";
import styled from "styled-components";
import type { Fault } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { Row, Stack } from "../controls/layout";

const Table = styled.table`
  width: 100%;
  th {
    text-align: left;
    width: 150px;
    font-weight: 700;
  }
  td,
  th {
    padding: 4px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

/** The keys of the live screen, behind `?` and a small button. */
export function KeysDialog(props: { faults: Fault[] }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      if (e.key === "?" && !(e.target as HTMLElement).closest("input, textarea")) setOpen(true);
    };
    document.addEventListener("keydown", pressed);
    return () => document.removeEventListener("keydown", pressed);
  }, []);
  const rows: [string, string][] = [
    ["space", "start hold, rep done, reach counts, stayed level"],
    ["/", "gave way, where it is yes or no"],
    [".", "end the trial"],
    ["+ and -", "more pain, less pain"],
    ["[ and ]", "less far, farther"],
    ["1 and 0", "in a session: take the change that is offered, go on as it is"],
    ["c", "cue given"],
    ["v", "cue worked"],
    ["z", "undo"],
    ["y", "redo"],
    ...props.faults.map((f): [string, string] => [f.key, f.name]),
    ["shift + a fault's key", "it persists: this rep and all that follow"],
    ["?", "this list"],
  ];
  return (
    <>
      <Button $quiet $small onPress={() => setOpen(true)}>
        Keys ?
      </Button>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog aria-label="Keys">
            <Stack>
              <h2>Keys</h2>
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
                  Close
                </Button>
              </Row>
            </Stack>
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}
