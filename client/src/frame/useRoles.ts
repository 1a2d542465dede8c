import { useStart } from "../api/queries";

/** What whoever is signed in may; the server says so again at each request. */
export function useRoles() {
  const roles = useStart().data?.roles ?? [];
  return {
    administers: roles.includes("administrator"),
    books: roles.some((role) => role !== "administrator"),
    clinical: roles.includes("practitioner") || roles.includes("trainer"),
    judges: roles.includes("practitioner"),
    settles: roles.includes("administrator") || roles.includes("practitioner"),
  };
}
