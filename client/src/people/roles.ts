import type { Role } from "../api/types";
import { say } from "../words/say";

/** In the order of what they may. */
export const allRoles: Role[] = ["administrator", "practitioner", "trainer", "reception"];

export const roleWords: Record<Role, string> = {
  administrator: say("people.administrator"),
  practitioner: say("people.practitioner"),
  trainer: say("people.trainer"),
  reception: say("people.reception"),
};

export const roleMeans: Record<Role, string> = {
  administrator: say("people.administrator-may"),
  practitioner: say("people.practitioner-may"),
  trainer: say("people.trainer-may"),
  reception: say("people.reception-may"),
};
