import { type SizeWriter } from '@isometra/core';
import type { DeskEntry } from '@isometra/contract';
import type { Desk } from './desk.js';
import type { DeskNote } from './notes.js';
import type { DeskStep, Reminder } from './steps.js';

const GRADE = { rough: 'roughing', fine: 'finishing' } as const;

const PARTS = [
  [1 / 4, 'A quarter'],
  [1 / 3, 'A third'],
  [1 / 2, 'Half'],
  [2 / 3, 'Two thirds'],
  [3 / 4, 'Three quarters'],
] as const;

/** A part as people say it. */
const partWords = (part: number): string =>
  PARTS.reduce((best, one) => (Math.abs(one[0] - part) < Math.abs(best[0] - part) ? one : best))[1];

/** The same for a bearing shell, which no straightedge lies on: it is blued on its spindle. */
const ON_A_SPINDLE: Partial<Readonly<Record<DeskStep['code'], string>>> = {
  begin: 'Blue the spindle, clamp the half, turn it.',
  blue: 'Blue the spindle again, clamp, turn it.',
  look: 'Blue the spindle again before more comes off.',
};

/** What comes now, in at most eight words. @param shell on the inside of a bearing shell. */
export function stepWords(step: DeskStep, shell = false): string {
  const own = shell ? ON_A_SPINDLE[step.code] : undefined;
  if (own) return own;
  switch (step.code) {
    case 'pass':
      return `Zone ${step.zone}: one ${GRADE[step.grade]} pass at ${step.angle}°.`;
    case 'begin':
      return 'Blue it, or push the straightedge.';
    case 'read-print':
      return 'Read the print, before it smears.';
    case 'measure':
      return 'Measure before more metal comes off.';
    case 'plan':
      return 'Not there yet: plan the next depths.';
    case 'blue':
      return 'Blue it again and read the print.';
    case 'turn-or-blue':
      return 'It turns evenly: blue it now.';
    case 'turn-again':
      return 'It rocks: stone, wipe, push again.';
    case 'next-bite':
      return 'Not all of it told: read the rest.';
    case 'held-back':
      return 'Held back: compare with it, scrape nothing.';
    case 'put-away':
      return 'Archived. You can restore it on its card.';
    case 'lock-test':
      return 'Clamp both without shim: does it lock?';
    case 'joint-faces':
      return 'Joint faces are proud: bring them down.';
    case 'accept':
      return 'True and bearing: accept it.';
    case 'look':
      return `${step.passes === 1 ? 'One pass' : `${step.passes} passes`}: look again, or measure.`;
    case 'which-holds':
      return 'Plan and straightedge disagree: which is right?';
    case 'which-end':
      return 'Wrong way: find out which end is high.';
    case 'not-the-metal':
      return 'No change: check reference, seat and reading.';
    case 'other-flank':
      return 'Stop here: the other flank is off.';
    case 'accepted':
      return 'Accepted. No more work on this face.';
  }
}

const SHELL_WIPE = 'Wipe the shell and the spindle with a bare hand, and oil nothing: a film of oil prints as blue.';
const REMINDERS: Readonly<Record<Reminder, string>> = {
  'lock-test': 'Clamp both halves without shim: the spindle must lock. If it does not, the joint faces are proud.',
  burrs: 'Stone the burrs off first: they hold it up.',
  wipe: 'Wipe both faces with a bare hand: one grain is a hill.',
  glare: 'Bare iron glares. Dye under the blue shows it from every side.',
  chips: 'Brush the chips away, out of gears and oil holes.',
  blade: 'Forty passes on this edge: hone the blade.',
};
export const reminderWords = (reminder: Reminder, shell = false): string =>
  shell && reminder === 'wipe' ? SHELL_WIPE : REMINDERS[reminder];

const list = (about: DeskNote['about']): string => about.join(', ');
const zones = (about: DeskNote['about']): string => `zone${about.length > 1 ? 's' : ''} ${list(about)}`;

const CLAMPED: Readonly<Record<string, string>> = { lower: 'the lower half', upper: 'the upper half', both: 'both halves' };
const clampedWords = (which: string | number | undefined): string => CLAMPED[which ?? ''] ?? 'nothing';

/** What matters now, in words. Lengths in mm and depths in µm are put in by `size`, what the aim reads by `aim`. */
export function deskNoteWords(
  { code, about }: DeskNote,
  size: (value: number, dimension: 'length' | 'deviation') => string,
  aim: (value: number) => string = String,
): string {
  const number = (i: number): number => Number(about[i] ?? 0);
  switch (code) {
    case 'trend':
      return `${partWords(number(0) / 100)} of what is left goes each time it is measured: about ${number(1)} ${number(1) === 1 ? 'time' : 'times'} more until it is there.`;
    case 'stalled':
      return 'Three measurements and no change: it is not the metal that is left. Check the reference, the seat and how it is measured.';
    case 'grew':
      return 'It went the wrong way. Stop, and find out which end is high before more comes off.';
    case 'teeters':
      return `It rocks: ${zones(about)} blue only when that end is pressed, and ${about.length > 1 ? 'are' : 'is'} not high. Scrape what is blue both ways.`;
    case 'film-differs':
      return `The film was ${size(number(0), 'deviation')} and is ${size(number(1), 'deviation')} now: these two prints are not to be compared.`;
    case 'too-much-blue':
      return 'Too much blue: it fills the hollows and hides where it bears. Wipe it thinner and rub again.';
    case 'print-not-trusted':
      return `The print would turn at ${size(number(0), 'length')} and ${size(number(1), 'length')}; the straightedge does not. Trust the straightedge: the film, its length or rocking misled the print.`;
    case 'polished-early':
      return 'Contact is being brought in while the geometry is not met: that print will be scraped off again.';
    case 'liner-ends':
      return `The liner has ${size(Math.max(0, number(0)), 'deviation')} to give, and ${size(number(1), 'deviation')} are to come off: it does not reach. Take it from the other face, or put a new one on.`;
    case 'relieved':
      return 'Relieved: what was read on this casting before counts no more, and may read worse before it is true. Bed it, then read it again.';
    case 'forgotten':
      return `No pass on ${zones(about)} for ten blues: low there, or forgotten?`;
    case 'reference-short':
      return `The reference is ${size(number(0), 'length')} long and does not reach both ends at once: what it did not reach is unknown, not low. Take two bites that overlap.`;
    case 'reserve':
      return `What is left are the last ${about[0]} finishing passes: they are kept for contact. Measure before they go.`;
    case 'rocks':
      return 'Two tries at one end pivoted more than a tenth of its length apart: it rocks, or there is a grain under it. Neither try shows where it is high.';
    case 'clamped-differs':
      return `The print before was with ${clampedWords(about[0])} clamped, this one with ${clampedWords(about[1])}: they are not to be compared.`;
    case 'contact-shifts':
      return `Finishing for contact has shifted what it is true by: ${aim(number(0))} each time. Stop the alignment at ${aim(number(1))}, and contact brings it home.`;
    case 'bites-differ':
      return `Only one of two bites bears in ${zones(about)}, which both reached: a step, or the straightedge leaned. Read heights in both bites and plan by them: they join where they overlap.`;
    case 'worse-by-relief':
      return 'It reads worse than before the relief: it now bears where it did not. Bed it, read it again, and take that for the start.';
    case 'wrong-flank':
      return 'Hollow now where the pins read wide, and they still do; the other flank is high there: this was the straight flank. Stop here, and work the other one.';
    case 'overshot':
      return 'Hollow now where the pins read wide: more came off the middle than stood there. Leave the middle alone, push the straightedge on the other flank too, and read the pins again.';
    case 'turns-otherwise':
      return `By the plan the straightedge bears on ${zones(about.slice(1))}; it turns as if it bore about ${size(number(0), 'length')}. More passes by the plan alone may go wrong: wipe, push once more, then say which of the two the work is to go by.`;
  }
}

const STATES: Readonly<Record<Desk['state'], string>> = {
  rough: 'roughing',
  contact: 'bringing in contact',
  measure: 'to be measured',
  accept: 'accepted',
};
export const stateWords = (state: Desk['state']): string => STATES[state];

/** "High at 250 mm, 40 mm left of last time." `toLeft`: whether end A is at the left as the face lies. */
export function turnedWords({ turned }: Pick<Desk, 'turned'>, length: (mm: number) => string, toLeft = true): string {
  if (!turned) return '';
  const { code, centre, moved } = turned;
  const where =
    {
      'hinge-high': 'High at',
      'hinge-crowned': 'Crowned about',
      'hinge-even': 'Bears evenly, or on two bands, about',
      'hinge-light-middle': 'Light in the middle about',
      'hinge-hollow': 'Hollow about',
      'hinge-rocks': 'It rocks about',
    }[code] ?? 'Bears about';
  const way = moved !== null && moved < 0 === toLeft ? 'left' : 'right';
  return `${where} ${length(centre)}${moved === null || Math.abs(moved) < 5 ? '' : `, ${length(Math.abs(moved))} ${way} of last time`}.`;
}

/** How blue a zone looks, by the part of it that is blue. */
const blueWords = (share: number): string => (share <= 0.01 ? 'bare' : share < 0.15 ? 'light' : share < 0.4 ? 'good' : 'heavy');

const KIND = {
  whole: 'pass',
  'blue-only': 'pass over the blue only',
  relief: 'pass for relief',
  'break-up': 'pass to break it up',
} as const;
const per = (share: number | null): string => (share === null ? '' : `, ${Math.round(100 * share)} % bears`);

/** What an entry says, in words; a measurement in the unit of the aim. */
export function entryWords(entry: DeskEntry, unit: string, size: SizeWriter): string {
  const length = (mm: number): string => size(Math.round(mm), 'length');
  switch (entry.kind) {
    case 'pass':
      return `Zone ${entry.content.zone}: one ${GRADE[entry.content.grade]} ${KIND[entry.content.kind]} at ${entry.content.angle}°`;
    case 'blue':
      return `Blued${entry.content.film === null ? '' : `, film ${size(entry.content.film, 'deviation')}`}${entry.content.dye ? ', over dye' : ''}${entry.content.clamped ? `, ${clampedWords(entry.content.clamped)} clamped` : ''}`;
    case 'lock':
      return entry.content.locks ? 'It locks without shim' : 'It does not lock without shim: the joint faces are proud';
    case 'hinge':
      return `Turned at ${length(entry.content.a)} and ${length(entry.content.b)} of ${length(entry.content.length)}${entry.content.again ? `, then at ${length(entry.content.again.a)} and ${length(entry.content.again.b)}` : ''}`;
    case 'print':
      if (!entry.content.picture && entry.content.result.spotsPerSquare === null)
        return `Print told by eye: ${entry.content.result.zones.map(({ id, bearingShare }) => `zone ${id} ${blueWords(bearingShare)}`).join(', ')}`;
      return `Print read${entry.content.picture ? '' : ' by eye'}${entry.content.bite ? `, from ${length(entry.content.bite.from)}` : ''}: ${entry.content.result.spots} spots${per(entry.content.result.bearingShare)}`;
    case 'measure':
      return `Measured: ${Number(entry.content.value.toPrecision(4))} ± ${Number(entry.content.doubt.toPrecision(2))} ${unit.replace('um', 'µm')}`;
    case 'plan':
      return `Planned: ${entry.content.why}`;
    case 'state':
      return `${stateWords(entry.content.state)}: ${entry.content.why}`;
    case 'blade':
      return `Blade: ${entry.content.name}${entry.content.stroke === null ? '' : `, strokes of ${size(entry.content.stroke, 'length')}`}${entry.content.width === undefined ? '' : `, ${size(entry.content.width, 'length')} wide`}`;
    case 'believed':
      return entry.content.which === 'plan'
        ? 'The plan is believed against the straightedge'
        : 'The straightedge is believed against the plan';
    case 'done':
      return 'Done for the night';
    case 'withdrawn':
      return 'Taken back';
  }
}
