import { minutesWords, MOST_ROOM, type HelpCode } from '@isometra/work';
import { WEEKDAY_NAMES, WEEKDAYS, type NamedDate, type PlanItem, type PlanKind, type PlannedPerson } from '@isometra/contract';
import { dayWords, today } from '../data/when';
import { counted } from '../ui/say';

/** What an item is, in a word. */
export const KIND_WORDS: Readonly<Record<PlanKind, string>> = {
  read: 'read',
  move: 'correct',
  perhaps: 'perhaps',
  'by-hand': 'by hand',
  scrape: 'scrape',
  change: 'change',
  part: 'part',
  assemble: 'fit',
  kit: 'kit',
  'to-do': 'to do',
  own: 'added',
};

/** What an item likely takes: "40 min", "14 days"; a wait says until when. */
export function takesWords({ minutes, wait, notBefore }: PlanItem): string {
  if (wait !== null) {
    if (wait > 0) return wait < 48 ? `${Math.round(wait)} h by the clock` : `${Math.round(wait / 24)} days`;
    if (notBefore === null) return 'no date yet';
    return notBefore < today() ? 'overdue' : `until ${dayWords(notBefore)}`;
  }
  return minutes ? minutesWords(minutes[1]) : '';
}

/** Between which minutes it lies; '' where that is settled. */
export function rangeWords({ minutes, wait }: PlanItem): string {
  if (!minutes || wait !== null || minutes[0] === minutes[2]) return '';
  return minutes[0] === 0 ? `up to ${minutesWords(minutes[2])}` : `${minutesWords(minutes[0])} to ${minutesWords(minutes[2])}`;
}

/** Where its minutes come from. */
export function fromWords({ from, timings, told, wait }: PlanItem): string {
  if (told?.why) return `${told.by}: ${told.why}`;
  if (wait !== null || from === 'told') return '';
  if (from === 'forecast') return 'by the forecast of the desk';
  return from === 'learned' ? `from ${counted(timings, 'timing')} of this shop` : 'a starting value';
}

/** The hours of somebody: "Tue 2 h, Sat 4 h". */
export function hoursWords({ hours }: Pick<PlannedPerson, 'hours'>): string {
  const told = WEEKDAYS.flatMap((day, i) => {
    const many = hours[day] ?? 0;
    return many > 0 ? [`${WEEKDAY_NAMES[i].slice(0, 3)} ${minutesWords(many * 60)}`] : [];
  });
  return told.join(', ') || 'no hours';
}

/** With whom it is planned, in a sentence. */
export function peopleWords(people: readonly PlannedPerson[]): string {
  const told = people.map((person) => `${person.id} (${hoursWords(person)})`).join('; ');
  const from = people[0]?.from;
  if (from === 'shop') return `Planned with ${told}, the hours of the shop.`;
  return from === 'starting' ? `Planned with ${told}. These hours are a guess: nobody has told any.` : `Planned with ${told}.`;
}

const daysWords = (days: number): string => (days < 14 ? counted(days, 'day') : counted(Math.round(days / 7), 'week'));

/** How much later something may come. */
export function roomWords(days: number): string {
  if (days === 0) return 'each day it is late moves the date';
  return days >= MOST_ROOM
    ? `${MOST_ROOM} days late or more move nothing`
    : `${counted(days, 'day')} late ${days === 1 ? 'moves' : 'move'} nothing`;
}

const HELPS: Readonly<Record<HelpCode, string>> = {
  person: 'A second person at the same hours',
  evening: 'One more evening a week',
  waits: 'Nothing to wait for',
  'nothing-more': 'Nothing more that turns out to be wrong',
};

/** What one thing would save: "One more evening a week: 3 weeks sooner." */
export const helpWords = (code: HelpCode, days: number): string =>
  `${HELPS[code]}: ${days > 0 ? `${daysWords(days)} sooner` : 'no sooner'}.`;

/** How good dates that were named before have been; '' where none has come. */
export function namedWords(named: readonly NamedDate[], widen: number): string {
  const came = named.filter((one) => one.came !== null);
  if (came.length === 0) return '';
  if (came.length < 10) return `${counted(came.length, 'date')} named before came: too few to say how good they are.`;
  const within = came.filter(({ p10, p90, came: end }) => end !== null && end >= p10 && end <= p90).length;
  const told = `${within} of ${came.length} dates named before came within their range`;
  return widen > 1 ? `${told}. The ranges are wider because of that.` : `${told}.`;
}
