import { CHANGE_KINDS, CHECKS } from '@isometra/core';

/** Why a result no longer counts. */
export type StaleReason =
  | { readonly code: 'moved' }
  | { readonly code: 'during-move' }
  | { readonly code: 'upset'; readonly check: string }
  | { readonly code: 'from-the-top'; readonly check: string }
  | { readonly code: 'rebased'; readonly register: string }
  | { readonly code: 'event'; readonly event: string }
  | { readonly code: 'change-made'; readonly change: string };

/** Why a rung is left alone. */
export type LeftReason = { readonly code: 'left-out'; readonly why: string } | { readonly code: 'too-small'; readonly why: string };

/** What a call waits for: a rung it depends on whose finding halts what follows. */
export interface Waiting {
  readonly check: string;
  readonly code: string;
}

const title = (id: string): string => CHECKS.get(id)?.title ?? id;

/** What happened to a whole machine, in words. */
export const EVENT_WORDS: Readonly<Record<string, string>> = {
  levelled: 'the machine was levelled',
  moved: 'the machine was moved',
  crashed: 'the machine crashed',
  'bolts-slackened': 'bolts were slackened',
  'part-off': 'a part was taken off',
};

/** Why a result no longer counts, in words. */
export function staleWords(reason: StaleReason): string {
  switch (reason.code) {
    case 'moved':
      return 'moved since: read it again';
    case 'during-move':
      return 'read while it was being moved: read it again';
    case 'upset':
      return `upset by a move on “${title(reason.check)}”`;
    case 'rebased':
      return `“${reason.register}” was changed in the control, and what this is built on with it: read it again`;
    case 'from-the-top':
      return `“${title(reason.check)}” was moved, and this survey begins again from the top after a move`;
    case 'event':
      return `${EVENT_WORDS[reason.event] ?? 'something happened to the machine'}: read it again`;
    case 'change-made':
      return `“${CHANGE_KINDS.find((kind) => kind.id === reason.change)?.title ?? reason.change}” has been done since: read it again`;
  }
}

/** Why a rung is left alone, in words. */
export const leftWords = ({ code, why }: LeftReason): string => (code === 'left-out' ? `left out: ${why}` : `too small to matter: ${why}`);

const WAITS: Readonly<Record<string, string>> = {
  'seat-rocks': 'the casting rocks on its seat',
  'spindle-tips': 'the bar tips the spindle in its bearings',
};

/** What a call waits for, in words. */
export const waitWords = ({ check, code }: Waiting): string => `it waits for “${title(check)}”: ${WAITS[code] ?? 'correct that first'}`;
