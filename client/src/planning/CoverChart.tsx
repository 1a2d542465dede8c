import styled from "styled-components";
import type { PlanWork } from "../api/types";
import { HiddenVisually, Small } from "../controls/layout";
import { say } from "../words/say";

const List = styled.dl`
  display: grid;
  grid-template-columns: minmax(88px, auto) minmax(0, 1fr);
  align-items: center;
  gap: 5px ${({ theme }) => theme.space(3)};
  margin: 0;
  font-size: 0.875rem;
  line-height: 1.15;
  dd {
    position: relative;
    margin: 0;
    height: 12px;
    background: ${({ theme }) => theme.colour.wash};
  }
`;

const Trained = styled.i`
  position: absolute;
  inset: 0 auto 0 0;
  background: ${({ theme }) => theme.colour.sea};
  forced-color-adjust: none;
`;

const Wanted = styled.i`
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 3px;
  background: ${({ theme }) => theme.colour.clay};
  forced-color-adjust: none;
`;

/** Minutes a week in each direction, and where they would stand if they were shared by what each direction lacks. */
export function CoverChart({ work }: { work: PlanWork }) {
  const shown = work.directions.filter((d) => d.minutes > 0 || (d.wanted ?? 0) > 0);
  const most = Math.max(...shown.flatMap((d) => [d.minutes, d.wanted ?? 0]), 1);
  const at = (minutes: number) => `${(100 * minutes) / most}%`;
  const wanted = shown.some((d) => d.wanted != null);
  return (
    <section aria-label={say("planning.what-it-trains")}>
      <h3>{wanted ? say("planning.what-it-trains-against") : say("planning.what-it-trains")}</h3>
      <List>
        {shown.map((d) => (
          <Line key={d.sector} name={d.name}>
            <Trained style={{ width: at(d.minutes) }} />
            {d.wanted != null && <Wanted style={{ left: `calc(${at(d.wanted)} - 2px)` }} />}
            <HiddenVisually>
              {d.wanted == null
                ? say("planning.minutes-min", { minutes: d.minutes.toFixed(1) })
                : say("planning.min-of-wanted", {
                    minutes: d.minutes.toFixed(1),
                    wanted: d.wanted.toFixed(1),
                  })}
            </HiddenVisually>
          </Line>
        ))}
      </List>
      <Small style={{ fontSize: "0.8125rem", marginTop: 4 }}>
        {wanted ? say("planning.bar-trained-line-wanted") : say("planning.bar-trained")}
      </Small>
    </section>
  );
}

const Line = (props: { name: string; children: React.ReactNode }) => (
  <>
    <dt>{props.name}</dt>
    <dd>{props.children}</dd>
  </>
);
