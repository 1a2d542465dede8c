import { useQuery } from "@tanstack/react-query";
import { Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";
import { api, got } from "../api/client";
import { useFigureSheet } from "../api/queries";
import type { Swap, SwapList } from "../api/types";
import { Button } from "../controls/Button";
import { Sheet, Veil } from "../controls/Modal";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { FigureView } from "../figure/FigureView";
import { say } from "../words/say";

const directionWords = {
  none: "",
  front: say("frame.against-arching"),
  back: say("frame.against-rounding"),
  side: say("frame.against-side-bending"),
  twist: say("frame.against-turning"),
  pelvis: say("frame.for-a-level-pelvis"),
} as const;

const Choice = styled(Button)`
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  width: 100%;
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)};
  text-align: start;
  border-width: 1px;
`;

/** Equals of an exercise: the same direction, about as much asked, with the figures and what else is different. */
export function SwapDialog(props: { episodeId: string; rungId: string; onPick: (rungId: string) => void }) {
  return (
    <DialogTrigger>
      <Button $quiet $small>
        {say("frame.swap")}
      </Button>
      <Veil isDismissable>
        <Sheet $wide>
          <Dialog aria-label={say("frame.swap-for-an-equal")}>
            {({ close }) => (
              <Equals
                {...props}
                onPick={(id) => {
                  props.onPick(id);
                  close();
                }}
                onClose={close}
              />
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}

function Equals(props: {
  episodeId: string;
  rungId: string;
  onPick: (rungId: string) => void;
  onClose: () => void;
}) {
  const { episodeId, rungId } = props;
  const { data, error } = useQuery({
    queryKey: ["swaps", episodeId, rungId],
    queryFn: () =>
      got(
        api.GET("/api/episodes/{id}/plan/swaps/{rungId}", {
          params: { path: { id: episodeId, rungId } },
        }),
      ),
  });
  return (
    <Stack $gap={3}>
      <Row $between>
        <h2>{say("frame.swap-for-an-equal")}</h2>
        <Button $quiet $small onPress={props.onClose}>
          {say("frame.close")}
        </Button>
      </Row>
      <ProblemNote error={error} />
      {data && <Explains list={data} />}
      {data?.swaps.map((swap) => (
        <One key={swap.rungId} swap={swap} onPick={() => props.onPick(swap.rungId)} />
      ))}
    </Stack>
  );
}

function Explains({ list }: { list: SwapList }) {
  if (list.direction === "none") {
    return <p>{say("frame.this-exercise-asks-for-no")}</p>;
  }
  if (list.swaps.length === 0) {
    return <p>{say("frame.nothing-else-that-may-be")}</p>;
  }
  const asks = say("frame.it-asks-for-newtonmetres-n", {
    newtonMetres: list.newtonMetres.toFixed(0),
    directionWords: directionWords[list.direction],
  });
  return (
    <Small>
      {say("frame.asks-near-for-a-typical", {
        asks,
        near: list.near ? say("frame.these-ask-for-about-as") : say("frame.nothing-that-may-be-given"),
      })}
    </Small>
  );
}

function One({ swap, onPick }: { swap: Swap; onPick: () => void }) {
  const { data: figures } = useFigureSheet("right");
  const figure = figures?.find((f) => f.rungId === swap.rungId)?.figure;
  return (
    <Choice $quiet onPress={onPick}>
      <span style={{ width: 104, height: 64 }} aria-hidden>
        {figure && <FigureView figure={figure} />}
      </span>
      <span>
        <strong>{swap.name}</strong> <Quiet>{swap.ladderName.toLowerCase()}</Quiet>
        <br />
        <Quiet>
          {[...swap.difference, ...(swap.screened ? [] : [say("frame.not-screened-watch")])].join(" · ") ||
            say("frame.the-same-set-up")}
        </Quiet>
      </span>
      <strong>
        {swap.percentMore > 0 ? "+" : swap.percentMore < 0 ? "−" : ""}
        {Math.abs(swap.percentMore)} %
      </strong>
    </Choice>
  );
}
