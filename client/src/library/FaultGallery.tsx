import styled from "styled-components";
import { useFaultFigure } from "../api/queries";
import type { Fault, Library, Rung, Side } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { FigureView } from "../figure/FigureView";
import { Term } from "../frame/Term";
import { say } from "../words/say";

const Faults = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: ${({ theme }) => theme.space(5)};
  margin-top: ${({ theme }) => theme.space(3)};
`;

const kinds = {
  breaking: say("library.breaks-the-rep"),
  quality: say("library.coach-it"),
  information: say("library.note-it"),
} as const;

/** How the rung fails: each fault over the clean posture, what is seen and what mends it. */
export function FaultGallery(props: { rung: Rung; side: Side; drawn: string[]; library: Library }) {
  const { rung } = props;
  const faults = rung.faults.flatMap((code) => props.library.faults.find((f) => f.code === code) ?? []);
  const ordered = [...faults].sort(
    (a, b) => Number(props.drawn.includes(b.code)) - Number(props.drawn.includes(a.code)),
  );
  return (
    <section aria-label={say("library.faults-to-watch-for")}>
      <h2>
        <Term name="compensation-fault">{say("library.what-gives-way")}</Term>
      </h2>
      <Faults>
        {ordered.map((fault) => (
          <li key={fault.code}>
            {props.drawn.includes(fault.code) && (
              <FaultFigure rungId={rung.id} fault={fault} side={props.side} />
            )}
            <strong>{fault.name}</strong>{" "}
            <Quiet>· {kinds[rung.faultKinds?.[fault.code] ?? fault.kind]}</Quiet>
            <p>{fault.seen}</p>
            {fault.mends.length > 0 && (
              <Small>{say("library.mend-mends", { mends: fault.mends.join("; ") })}</Small>
            )}
          </li>
        ))}
      </Faults>
    </section>
  );
}

function FaultFigure(props: { rungId: string; fault: Fault; side: Side }) {
  const { data } = useFaultFigure(props.rungId, props.fault.code, props.side);
  return <div style={{ height: 130 }}>{data && <FigureView figure={data} />}</div>;
}
