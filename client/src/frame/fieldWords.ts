import { say } from "../words/say";

/** How a client is reached, by the name of the field. */
export const contactWords = {
  phone: say("frame.phone"),
  email: say("frame.e-mail"),
  address: say("frame.address"),
  guardian: say("frame.guardian"),
  relation: say("frame.relation"),
  guardianPhone: say("frame.guardian-phone"),
} as const;

/** The four headings of a note. */
export const headingWords = {
  subjective: say("frame.subjective"),
  objective: say("frame.objective"),
  assessment: say("frame.assessment"),
  plan: say("frame.plan"),
} as const;
