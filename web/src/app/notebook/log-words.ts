import { CHECKS, DIMENSIONS, toYou } from '@isometra/core';
import type { LogEntry, LogKind, LogState } from '@isometra/contract';
import { noteLines } from '@isometra/work';
import { resultTold, type ResultTold } from '../ui/result-told';
import { counted, sizeOf, type Shown } from '../ui/say';

/** What the logbook is about, as people call it. */
export const KIND_WORDS: Readonly<Record<LogKind, string>> = {
  round: 'Rounds',
  caution: 'Cautions read',
  reading: 'Readings corrected',
  move: 'Moves',
  note: 'Notes and photographs',
  survey: 'Surveys and what was noted in them',
  scraping: 'Scraping',
  'strip-down': 'Strip-down and assembly',
  plan: 'Plans',
  machine: 'Machine cards',
  kit: 'Kit',
  limits: 'Limit sheets',
  shop: 'The shop',
  device: 'Phones and tablets',
  'judged-anew': 'Judged again',
};

export const STATE_WORDS: Readonly<Record<LogState, string>> = {
  out: 'Outside a limit',
  unsure: 'Too close to call',
  in: 'Inside every limit',
};

const BEGUN = ': round begun';

/** Whether an entry stands for a round itself: beside it stands what the round says. */
export const standsForRound = ({ what, text }: LogEntry): boolean => what === 'round' && text.endsWith(BEGUN);

/** How far a move goes is written down in the unit of files, and which way in the words of files: both are told as everywhere else. */
function moveText({ text, round, quantity }: LogEntry, shown: Shown): string {
  const info = CHECKS.get(round?.check ?? '')?.quantities[quantity ?? ''];
  if (!info) return text;
  const [start, figure, way] = text.split(new RegExp(`, (\\d+(?:\\.\\d+)?) ${DIMENSIONS[info.dimension].base} `), 3);
  return way === undefined ? text : `${start}, ${sizeOf(Number(figure), info, shown, 1).large} ${toYou(way)}`;
}

/** The words of a note in one line; its things to do stand below it. */
function noteText({ text, remark }: LogEntry): string {
  const words = noteLines(remark?.text ?? text).flatMap((line) => (line.done === undefined && line.text.trim() ? [line.text.trim()] : []));
  return words.join(' ') || (remark?.pictures.length ? 'Photograph' : 'To do');
}

/** What an entry says: in the unit of the day, and in the words of the screens. */
export function logText(entry: LogEntry, shown: Shown): string {
  const { text, what, round } = entry;
  if (standsForRound(entry)) return `${text.slice(0, -BEGUN.length)}${round ? `, round ${round.number}` : ''}`;
  if (entry.note === 'stands') return noteText(entry);
  return what === 'move' ? moveText(entry, shown) : text;
}

/** What is told of a round without naming it. */
const LEANS: readonly string[] = ['reading', 'move', 'caution'];

/** What stands beside an entry: what a round was read with and how it stands; which round something belongs to. */
export function logBeside(entry: LogEntry): string {
  const { round, what, remark } = entry;
  if (remark) return remark.place.words;
  if (!round) return '';
  if (!standsForRound(entry)) return LEANS.includes(what) ? `${CHECKS.get(round.check)?.title ?? round.check}, round ${round.number}` : '';
  const unread = round.unread ? `${counted(round.unread, 'place')} left` : '';
  return [round.instrumentName, unread, round.struck && 'discarded', round.ahead && 'dated in the future'].filter(Boolean).join(', ');
}

/** Where an entry leads; undefined where it leads nowhere. */
export function logPath({
  what,
  machineId,
  thing,
  thingId,
  round,
  quantity,
  part,
  remark,
  version,
}: LogEntry): readonly string[] | undefined {
  const shop: Readonly<Record<string, readonly string[] | undefined>> = {
    note: remark ? [remark.place.path] : undefined,
    kit: ['/kit'],
    limits: thingId ? ['/limits', thingId] : undefined,
    shop: ['/shop'],
  };
  const ofShop = what === 'shop' ? 'shop' : (thing ?? '');
  if (ofShop in shop) return shop[ofShop];
  if (!machineId) return undefined;
  const machine = ['/machines', machineId];
  const paths: Readonly<Record<string, readonly (string | null | undefined)[]>> = {
    round: [...machine, 'bench', round?.check, round?.id],
    move: [...machine, 'move', round?.id, quantity],
    face: version === null ? [...machine, 'scraping', thingId] : [...machine, 'scraping', thingId, 'face'],
    survey: part ? [...machine, 'rounds', part] : [...machine, 'campaign'],
    machine: [...machine, 'card'],
    'strip-down': [...machine, 'parts', thingId],
    part: [...machine, 'parts', part],
    plan: [...machine, 'plan'],
  };
  const path = paths[thing ?? ''];
  return path?.every((piece): piece is string => !!piece) ? path : undefined;
}

/** What of the address says what is looked at: the card as it stood then, the part among others. */
export function logState({ thing, thingId, version }: LogEntry): Readonly<Record<string, string>> | null {
  if (thing === 'part' && thingId) return { part: thingId };
  return version === null ? null : { state: `${thingId}.${version}` };
}

/** One result of a round, as it stands beside its entry. */
export interface LogCall extends ResultTold {
  readonly label: string;
}

/** What a round says, judged quantities alone. */
export function logCalls({ round }: LogEntry, shown: Shown): readonly LogCall[] {
  const infos = CHECKS.get(round?.check ?? '')?.quantities ?? {};
  return Object.entries(round?.finding?.quantities ?? {}).flatMap(([name, quantity]) => {
    const info = infos[name];
    return info && quantity.verdict !== null ? [{ label: info.label, ...resultTold(quantity, info, shown) }] : [];
  });
}
