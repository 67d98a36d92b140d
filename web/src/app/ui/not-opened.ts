import type { Fault } from '@isometra/core';

/** Mistakes of a file that are told at once. */
const TOLD = 5;

/** Why a file was not opened: its first mistakes, each with what would do. */
export function notOpened(name: string, faults: readonly Fault[]): string {
  const words = faults.map(({ path, message, example }) => `${path} ${message}. Example: ${example}`.trim());
  const more = words.length > TOLD ? ` And ${words.length - TOLD} more.` : '';
  return `${name} was not opened: ${words.slice(0, TOLD).join('. ')}.${more}`;
}
