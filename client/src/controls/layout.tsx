import styled from "styled-components";
import { say } from "../words/say";

export const Page = styled.main`
  max-width: 1320px;
  margin: 0 auto;
  padding: ${({ theme }) => theme.space(4)} ${({ theme }) => theme.space(5)} ${({ theme }) => theme.space(5)};
`;

export const Columns = styled.div<{ $at?: string }>`
  display: grid;
  grid-template-columns: ${({ $at }) => $at ?? "1fr 1fr"};
  gap: ${({ theme }) => theme.space(8)};
  align-items: start;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** Two short fields beside each other, also on a tablet held upright. */
export const Pair = styled.div<{ $at?: string }>`
  display: grid;
  grid-template-columns: ${({ $at }) => $at ?? "minmax(0, 1fr) minmax(0, 1fr)"};
  gap: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(4)};
  align-items: end;
  @media (max-width: 37.5em) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

export const Stack = styled.div<{ $gap?: number }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: ${({ theme, $gap }) => theme.space($gap ?? 4)};
  align-content: start;
  min-width: 0;
`;

export const Row = styled.div<{ $gap?: number; $between?: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: ${({ $between }) => ($between ? "space-between" : "flex-start")};
  gap: ${({ theme, $gap }) => theme.space($gap ?? 3)};
`;

/** Stays at the lower edge wherever the page is scrolled to: what goes on is one press. */
export const Bar = styled.div`
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${({ theme }) => theme.space(4)};
  padding: ${({ theme }) => theme.space(3)} 0;
  background: ${({ theme }) => theme.colour.paper};
  border-top: 2px solid ${({ theme }) => theme.colour.ink};
`;

export const Quiet = styled.span`
  color: ${({ theme }) => theme.colour.grey};
`;

export const Small = styled.p`
  color: ${({ theme }) => theme.colour.grey};
  font-size: 0.9375rem;
`;

export const Ruled = styled.section`
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  padding-top: ${({ theme }) => theme.space(3)};
`;

export const HiddenVisually = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;

const Notice = styled.div<{ $grave?: boolean }>`
  border-inline-start: 6px solid ${({ theme, $grave }) => ($grave ? theme.colour.clay : theme.colour.ochre)};
  background: ${({ theme }) => theme.colour.sheet};
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(4)};
`;

export function Note(props: { children: React.ReactNode; grave?: boolean }) {
  return (
    <Notice $grave={props.grave} role={props.grave ? "alert" : "note"}>
      {props.children}
    </Notice>
  );
}

/** What to do when there is nothing to show. */
export function Empty(props: { title: string; children: React.ReactNode }) {
  return (
    <Stack $gap={3} style={{ padding: "48px 0", maxWidth: 620 }}>
      <h1>{props.title}</h1>
      <div>{props.children}</div>
    </Stack>
  );
}

export function ProblemNote(props: { error: unknown }) {
  if (!props.error) return null;
  const message = props.error instanceof Error ? props.error.message : say("controls.something-went-wrong");
  return <Note grave>{message}</Note>;
}
