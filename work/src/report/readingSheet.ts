import { CHECKS, sentence, sizesIn, type UnitSystem } from '@isometra/core';
import type { Machine, StoredRound } from '@isometra/contract';
import { shopDate } from '../notebook/dates.js';
import type { Block, Report } from './blocks.js';
import { factsOf } from './factsOf.js';
import { plannedSlots } from '../sheets/slots.js';
import { methodBlock, NumberedPlaces } from './method.js';

/** What a blank sheet is made from. */
export interface SheetFacts {
  readonly machine: Machine;
  readonly round: StoredRound;
  readonly system: UnitSystem;
  readonly zone: string | null;
}

/**
 * A blank sheet for a round, to be read without a screen: how it is set up, and a box for every place in working order. Its figures are
 * typed in the order of the boxes afterwards.
 */
export function readingSheet({ machine, round, system, zone }: SheetFacts): Report {
  const definition = CHECKS.get(round.check);
  const slots = plannedSlots(round);
  const write = sizesIn({ system, fineness: 'coarse' });
  const boxes = slots.map((slot) => ({ label: `${sentence(slot.label, write)}${slot.closing ? ', once more' : ''}`, ask: slot.ask ?? '' }));
  const places = new NumberedPlaces(round.check);
  slots.forEach(({ keys }, i) => places.put(keys, i + 1));
  const title = definition?.title ?? round.check;
  const setUp = [
    ['Machine', [machine.card.number, machine.card.nickname].filter(Boolean).join(', ')] as const,
    ...factsOf(definition?.setup, round.setup, system),
    ...factsOf(definition?.conditions, round.conditions, system),
    ...(round.instrumentName ? [['Instrument', round.instrumentName] as const] : []),
  ];
  const blocks: Block[] = [
    { kind: 'heading', level: 1, text: title },
    { kind: 'text', text: definition?.question ?? '' },
    { kind: 'facts', rows: setUp },
    { kind: 'heading', level: 2, text: 'Readings' },
    {
      kind: 'text',
      text: 'Read from the first box to the last. Write the figure as the dial says it, with its sign. The second box is for reading a place again. The numbers on the drawing are those of the boxes.',
    },
    ...methodBlock({ round, places, length: (mm) => write(mm, 'length') }),
    { kind: 'boxes', boxes },
    {
      kind: 'facts',
      rows: [
        ['Read by, on', ' '],
        ['What struck you', ' '],
      ],
    },
  ];
  return {
    title: `${title}, ${machine.card.number}`,
    foot: `${machine.card.number}, ${title}, set up ${shopDate(round.at, zone)}`,
    blocks,
  };
}
