import { useLibrary } from "../api/queries";

/** What a rule is about, for people; ids are for records. */
export function useRuleName() {
  const { data: library } = useLibrary();
  return (id: string) => library?.rules[id] ?? id;
}
