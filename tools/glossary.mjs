// Words of the product: one name for one thing. `npm run words -- --check` holds every text against these rules.

/** What a text must not hold, and what to write in its place. */
const RULES = [
  [/ {2,}/, 'double space'],
  [/[a-z] [.,;:?!](?=\s|$)/, 'space before a full stop or comma'],
  [/\bto to\b|\bthe the\b|\bof of\b/, 'a word twice'],
  [/\b1 (days|passes|rounds|evenings|layers)\b/, 'one is no plural'],
  [/\b\d{1,2}\/\d{1,2}\/\d{2,4}\b/, 'a date is written "18 Nov 2026"'],
  [/\brungs?\b/i, 'say "check"'],
  [/\b(the|no|old|one) calls?\b/i, 'say "result"'],
  [/\breckon/i, 'say "allow for"'],
  [/\bput away\b/i, 'say "archived", or "closed" of a card'],
  [/\bstruck out\b|\bstrike it\b/i, 'say "discarded"'],
  [/\bhangs? on\b/i, 'say "depends on", or "mounted on"'],
  [/\banew\b/i, 'say "again"'],
  [/\bTry: /, 'say "Example: "'],
  [/\baims?\b(?! at)/i, 'say "target"'],
];

/** Texts that are no sentences of the product: names in the files of the database and of the program. */
const NO_SENTENCE = /\b(SELECT|INSERT|UPDATE|DELETE) [A-Z`(]|^[a-z]+-[a-z-]+$/;

/** What is wrong with a text, in a few words each. */
export const faultsOfText = (text) =>
  NO_SENTENCE.test(text) ? [] : RULES.filter(([pattern]) => pattern.test(text)).map(([, fault]) => fault);
