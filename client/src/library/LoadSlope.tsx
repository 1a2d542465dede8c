import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Library, RungPage } from "../api/types";
import { Quiet } from "../controls/layout";
import { rungPath } from "./LibraryPage";
import { say } from "../words/say";

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Step = styled(Link)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 44% 34px;
  gap: ${({ theme }) => theme.space(2)};
  align-items: center;
  min-height: 30px;
  color: ${({ theme }) => theme.colour.ink};
  text-decoration: none;
  font-size: 0.9375rem;
  line-height: 1.1;
  &:hover span {
    text-decoration: underline;
  }
  &[aria-current] {
    font-weight: 700;
  }
  output {
    text-align: end;
    font-variant-numeric: tabular-nums;
  }
`;

const Bar = styled.i<{ $here: boolean }>`
  position: relative;
  display: block;
  height: 14px;
  background: ${({ theme, $here }) => ($here ? theme.colour.rule : theme.colour.sand)};
  b {
    position: absolute;
    inset: 0 auto 0 0;
    background: ${({ theme }) => theme.colour.ink};
  }
`;

/** What each rung of the ladder asks for in its own direction, hardest on top; the one shown moves with the sliders. */
export function LoadSlope(props: { page: RungPage; library: Library; now: number | null }) {
  const { page, library } = props;
  const [search] = useSearchParams();
  const most = Math.max(1, props.now ?? 0, ...page.slope.map((step) => step.newtonMetres));
  return (
    <List reversed aria-label={say("library.load-of-each-rung-of")}>
      {[...page.slope].reverse().map((step) => {
        const here = step.rungId === page.rungId;
        const value = here && props.now !== null ? props.now : step.newtonMetres;
        return (
          <li key={step.rungId} title={step.reason ?? undefined}>
            <Step to={rungPath(step.rungId, search.get("episode"))} aria-current={here ? "page" : undefined}>
              <span>
                {findRung(library, step.rungId).rung.name}
                {step.rungId === page.presentRungId && <Quiet> {say("library.in-the-plan")}</Quiet>}
              </span>
              <Bar
                $here={here}
                style={{ width: `${(100 * Math.max(value, step.newtonMetres)) / most}%` }}
                aria-hidden
              >
                {here && (
                  <b style={{ width: `${(100 * value) / Math.max(value, step.newtonMetres, 0.01)}%` }} />
                )}
              </Bar>
              <output>{value.toFixed(0)}</output>
            </Step>
          </li>
        );
      })}
    </List>
  );
}
