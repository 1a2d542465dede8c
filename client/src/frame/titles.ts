import { say } from "../words/say";

/** Of the pages outside a visit. */
export const titles = {
  account: say("frame.account"),
  audit: say("frame.audit"),
  client: say("frame.client"),
  clients: say("frame.clients"),
  clinic: say("frame.clinic"),
  library: say("frame.library"),
  newClient: say("frame.new-client"),
  overrides: say("frame.overrides"),
  people: say("frame.people"),
  practice: say("frame.practice-room"),
  settings: say("frame.settings"),
  theDay: say("frame.the-day"),
} as const;
