import type { Policy } from "../api/types";

/** A value of a policy: a number, a word, or a list of words. */
export type PolicyValue = number | string | string[];

/** The value at a path such as "stirredUp.high.reps". */
export const valueAt = (policy: Policy, path: string) =>
  path
    .split(".")
    .reduce<unknown>((node, name) => (node as Record<string, unknown>)[name], policy) as PolicyValue;

/** The policy with another value at a path; nothing else changes. */
export function withValue(policy: Policy, path: string, value: PolicyValue): Policy {
  const put = (node: Record<string, unknown>, [name, ...rest]: string[]): Record<string, unknown> => ({
    ...node,
    [name!]: rest.length === 0 ? value : put(node[name!] as Record<string, unknown>, rest),
  });
  return put(policy as unknown as Record<string, unknown>, path.split(".")) as unknown as Policy;
}

export const same = (a: PolicyValue, b: PolicyValue) => JSON.stringify(a) === JSON.stringify(b);
