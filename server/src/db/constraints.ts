import { ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize';
import type { Fault } from '@isometra/core';

/** What breaking a rule of the database means to whoever sent the row, by the rule's own name. */
const UNIQUE: Readonly<Record<string, Fault>> = {
  number: { path: 'card.number', message: 'is already the number of another machine', example: 'another shop number' },
  supersedes: {
    path: 'supersedes',
    message: 'that reading has already been replaced; replace the newer one',
    example: 'the id of the newer reading',
  },
  survey_notes_supersedes: {
    path: 'supersedes',
    message: 'that note has already been replaced; replace the newer one',
    example: 'the id of the newer note',
  },
  surface_entries_supersedes: {
    path: 'supersedes',
    message: 'that entry has already been put right; put the newer one right',
    example: 'the id of the newer entry',
  },
  PRIMARY: { path: 'id', message: 'is already the id of something else', example: 'a new UUID' },
};

/** The name of the rule that a row broke: `number`, `PRIMARY`. */
export function brokenRule(error: unknown): string | undefined {
  if (!(error instanceof UniqueConstraintError || error instanceof ForeignKeyConstraintError)) return undefined;
  const { message } = error.parent;
  return /for key '(?:[^'.]*\.)?([^']+)'/.exec(message)?.[1] ?? /CONSTRAINT `([^`]+)`/.exec(message)?.[1];
}

/** What a broken rule says to a person; undefined for a rule that only the server can break. */
export const faultOfRule = (rule: string): Fault | undefined => UNIQUE[rule];
