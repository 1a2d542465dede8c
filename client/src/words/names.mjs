import { TYPE } from "@formatjs/icu-messageformat-parser";

/** Names of the values that a parsed sentence asks for, in order. */
export function names(elements) {
  const of = (element) => [
    ...(element.type === TYPE.literal || element.type === TYPE.pound ? [] : [element.value]),
    ...(element.type === TYPE.tag ? names(element.children) : []),
    ...Object.values(element.options ?? {}).flatMap((option) => names(option.value)),
  ];
  return [...new Set(elements.flatMap(of))].sort();
}
