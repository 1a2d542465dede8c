declare module "message-parser" {
  export { parse } from "@formatjs/icu-messageformat-parser";
}
