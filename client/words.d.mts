import type { MessageFormatElement } from "@formatjs/icu-messageformat-parser";

export const folder: string;
export function files(): string[];
export function sentences(): Record<string, string>;
export function compiled(texts: Record<string, string>): Record<string, MessageFormatElement[]>;
export function declarations(texts: Record<string, string>): string;
export function saidIn(source: string, texts: Record<string, string>): Record<string, string>;
