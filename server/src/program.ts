import { readFileSync } from 'node:fs';

/** Version of the program, as its package has it. */
export const { version: PROGRAM } = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')) as { version: string };
