import type { MessageFormatElement } from "@formatjs/icu-messageformat-parser";

export function names(elements: MessageFormatElement[]): string[];
