import { Link } from "react-router";
import { useLibrary } from "../api/queries";
import type { RaterFigures } from "../api/types";
import { Table } from "../controls/DataTable";
import { FigureList } from "../controls/FigureList";
import { Small, Stack } from "../controls/layout";
import { Wide } from "../controls/Table";
import { say } from "../words/say";
import { countWords, shareWords, withMinus } from "./shares";

/** What the clips say of one's own eye: nobody else sees it. */
export function OwnFigures({ own }: { own: RaterFigures }) {
  const { data: library } = useLibrary();
  const name = (code: string) => library?.faults.find((fault) => fault.code === code)?.name ?? code;
  if (own.clips === 0) return <p>{say("practice.nothing-yet", { needed: own.needed })}</p>;
  const late = (of: RaterFigures["reps"], unit: string) =>
    of
      ? withMinus(say("practice.late-within", { median: of.median, low: of.low, high: of.high, unit }))
      : "–";
  const figures: [string, string][] = [
    [say("practice.faults-missed"), shareWords(own.missed)],
    [say("practice.clean-marked"), shareWords(own.falseMarks)],
    [say("practice.told-apart"), own.dPrime == null ? "–" : say("practice.d-prime", { d: own.dPrime })],
    [say("practice.marked-late-reps"), late(own.reps, say("practice.reps"))],
    [say("practice.marked-late-seconds"), late(own.seconds, "s")],
    [say("practice.other-side"), countWords(own.otherSide, own.sided)],
  ];
  return (
    <Stack $gap={4}>
      {own.enough ? (
        <FigureList small figures={figures} />
      ) : (
        <p>{say("practice.not-enough-yet", { clips: own.clips, needed: own.needed })}</p>
      )}
      {own.lookNext.length > 0 && (
        <p>
          <strong>{say("practice.look-next")}</strong> {own.lookNext.map(name).join(" · ")}
        </p>
      )}
      <Wide label={say("practice.by-fault")}>
        <Table>
          <thead>
            <tr>
              <th>{say("practice.fault")}</th>
              <th>{say("practice.shown")}</th>
              <th>{say("practice.marked")}</th>
              <th>{say("practice.named")}</th>
              <th>{say("practice.missed-about")}</th>
            </tr>
          </thead>
          <tbody>
            {own.faults.map((fault) => (
              <tr key={fault.fault}>
                <td>{name(fault.fault)}</td>
                <td>{fault.shown}</td>
                <td>{fault.marked}</td>
                <td>{fault.named}</td>
                <td>{shareWords({ value: fault.missed, low: fault.low, high: fault.high })}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
      <Small>
        {say("practice.what-figures-mean")} <Link to="/library">{say("practice.see-faults")}</Link>
      </Small>
    </Stack>
  );
}
