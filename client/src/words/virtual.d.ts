declare module "virtual:words/door" {
  import type { MessageFormatElement } from "react-intl";
  const messages: Record<string, MessageFormatElement[]>;
  export default messages;
}

declare module "virtual:words/rooms" {
  import type { MessageFormatElement } from "react-intl";
  const messages: Record<string, MessageFormatElement[]>;
  export default messages;
}

declare module "message-parser" {
  export { parse } from "@formatjs/icu-messageformat-parser";
}
