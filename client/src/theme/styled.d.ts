import "styled-components";
import type { Tokens } from "./tokens";

declare module "styled-components" {
  // The theme is the tokens; the interface exists only to be merged.
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type
  export interface DefaultTheme extends Tokens {}
}
