import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import type { ReactNode } from "react";
import styled from "styled-components";

const List = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ theme }) => theme.space(1)};
`;

const Name = styled(Tab)`
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 ${({ theme }) => theme.space(2)};
  border-bottom: 3px solid transparent;
  color: ${({ theme }) => theme.colour.grey};
  cursor: pointer;
  &[data-selected] {
    border-color: ${({ theme }) => theme.colour.ink};
    color: ${({ theme }) => theme.colour.ink};
    font-weight: 700;
  }
  &[data-focus-visible] {
    outline: 3px solid ${({ theme }) => theme.colour.ochre};
    outline-offset: -3px;
  }
  @media (forced-colors: active) {
    border-color: Canvas;
    &[data-selected] {
      border-color: Highlight;
    }
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 ${({ theme }) => theme.space(4)};
`;

const Panel = styled(TabPanel)`
  padding-top: ${({ theme }) => theme.space(1)};
`;

export interface Place {
  id: string;
  name: string;
  content: ReactNode;
}

/** Several looks at the same thing, one at a time; the head stands beside their names. */
export function Places(props: {
  label: string;
  head?: ReactNode;
  places: Place[];
  more?: ReactNode;
  /** Which one is open, where that is told from outside. */
  open?: string;
  onOpen?: (id: string) => void;
}) {
  const { onOpen } = props;
  return (
    <Tabs selectedKey={props.open} onSelectionChange={onOpen && ((id) => onOpen(String(id)))}>
      <Head>
        {props.head}
        <Head style={props.head ? undefined : { flex: 1 }}>
          <List aria-label={props.label}>
            {props.places.map((place) => (
              <Name key={place.id} id={place.id}>
                {place.name}
              </Name>
            ))}
          </List>
          {props.more}
        </Head>
      </Head>
      {props.places.map((place) => (
        <Panel key={place.id} id={place.id}>
          {place.content}
        </Panel>
      ))}
    </Tabs>
  );
}
