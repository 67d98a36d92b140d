import type { ArchiveResult } from '@isometra/contract/archive';

/** One and several of each kind, as people call them. */
const KINDS: Readonly<Record<string, readonly [string, string]>> = {
  machines: ['machine', 'machines'],
  surveys: ['survey', 'surveys'],
  rounds: ['round', 'rounds'],
  moves: ['move', 'moves'],
  surfaces: ['face', 'faces'],
  'strip-downs': ['strip-down', 'strip-downs'],
  parts: ['part', 'parts'],
  kit: ['piece of kit', 'pieces of kit'],
  limits: ['limit sheet', 'limit sheets'],
  people: ['person', 'people'],
  pictures: ['photograph', 'photographs'],
  remarks: ['note', 'notes'],
  plans: ['plan', 'plans'],
  shop: ['setting of the shop', 'settings of the shop'],
  readings: ['reading', 'readings'],
  notes: ['note of a survey', 'notes of surveys'],
  entries: ['entry at the scraping desk', 'entries at the scraping desk'],
  log: ['entry of the logbook', 'entries of the logbook'],
  photos: ['photograph of kit', 'photographs of kit'],
  versions: ['version of a limit sheet', 'versions of limit sheets'],
  checks: ['check', 'checks'],
  namedDates: ['date that was named', 'dates that were named'],
};

/** "2 machines, 14 rounds"; '' for nothing. */
export const countsWords = (counts: Readonly<Record<string, number>>): string =>
  Object.keys(KINDS)
    .filter((kind) => counts[kind])
    .map((kind) => `${counts[kind]} ${KINDS[kind][counts[kind] === 1 ? 0 : 1]}`)
    .join(', ');

/** What an archive is of: "Machine L-14". */
export function scopeWords({ manifest: { scope } }: ArchiveResult): string {
  if (scope.of === 'shop') return 'A whole shop';
  return scope.of === 'machine' ? `Machine ${scope.number}` : `Survey “${scope.title}” of ${scope.machine}`;
}

/** A line of what taking it in does. */
export interface ResultLine {
  readonly label: string;
  readonly text: string;
}

/** What taking an archive in does, or did, line by line. */
export function resultLines({ added, newer, known, grown, renamed }: ArchiveResult): ResultLine[] {
  const lines = [
    { label: 'New here', text: countsWords(added) },
    { label: 'Newer in the archive', text: countsWords(newer) },
    { label: 'Added to what is here', text: countsWords(grown) },
    { label: 'The same here, or newer', text: countsWords(known) },
    { label: 'Another number', text: renamed.map(({ from, to }) => `${from} comes in as ${to}: that number is taken here`).join(', ') },
  ];
  return lines.filter(({ text }) => text);
}
