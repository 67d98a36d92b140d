import { readLimitSheet, type Fault, type LimitSheet } from '@isometra/core';
import { limitsFromCsv } from '@isometra/work/limit-csv';

/** What a file held: a sheet, or every mistake in it. */
export interface FromFile {
  readonly sheet?: LimitSheet;
  readonly faults: readonly Fault[];
}

/** Read a limit sheet from a file: JSON by its name or its first bracket, else a table named after the file. */
export function limitsFromFile(name: string, text: string): FromFile {
  if (!/\.json$/i.test(name) && !text.trimStart().startsWith('{')) return limitsFromCsv(text, name.replace(/\.[^.]+$/, '').slice(0, 60));
  try {
    return readLimitSheet(JSON.parse(text));
  } catch (error) {
    return {
      faults: [{ path: '', message: `the file is not JSON: ${(error as Error).message}`, example: '{ "format": "isometra-limits/1", … }' }],
    };
  }
}
