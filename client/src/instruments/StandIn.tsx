import { useMutation } from "@tanstack/react-query";
import {
  Button as AriaButton,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
  Label,
} from "react-aria-components";
import styled from "styled-components";
import { api, got } from "../api/client";
import type { DeviceView } from "../api/types";
import { HiddenVisually } from "../controls/layout";

const Opener = styled(AriaButton)`
  min-height: 40px;
  padding: 0 ${({ theme }) => theme.space(3)};
  border: 2px dashed ${({ theme }) => theme.colour.slate};
  border-radius: ${({ theme }) => theme.radius};
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
`;

const List = styled(ListBox)`
  background: ${({ theme }) => theme.colour.sheet};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  padding: ${({ theme }) => theme.space(1)};
  div {
    padding: ${({ theme }) => theme.space(3)};
    cursor: pointer;
  }
  [data-focused] {
    background: ${({ theme }) => theme.colour.wash};
  }
`;

/** What the client of a simulated instrument does next; a real instrument has none of this. */
export function StandIn({ device }: { device: DeviceView }) {
  const begin = useMutation({
    mutationFn: (script: string) =>
      got(
        api.POST("/api/instruments/{device}/script", {
          params: { path: { device: device.device } },
          body: { script },
        }),
      ),
  });
  if (device.scripts.length === 0) return null;
  return (
    <Select placeholder="Simulated client …" onChange={(key) => begin.mutate(String(key))}>
      <Label>
        <HiddenVisually>The simulated client</HiddenVisually>
      </Label>
      <Opener>
        <SelectValue />
      </Opener>
      <Popover>
        <List>
          {device.scripts.map((script) => (
            <ListBoxItem key={script.id} id={script.id} textValue={script.words}>
              {script.words}
            </ListBoxItem>
          ))}
        </List>
      </Popover>
    </Select>
  );
}
