import { CHECKS } from '@isometra/core';
import { readPart, type DueItem, type KitItem, type Machine, type OwnItem, type Part } from '@isometra/contract';
import { goodForDays, ladderFacts } from '../ladder/overdue.js';
import { daysAfter, shopDay } from '../notebook/dates.js';
import { ruling } from '../notebook/ruling.js';
import { readCard } from '../sheets/machines.js';
import { needOf } from '../stripdown/needs.js';
import type { MachineRecords } from './known.js';
import { everyWords } from './recurring.js';

/** Checks of a machine that want to be read again after some time, each by its last round that counts. */
export function checksDue(machine: Pick<Machine, 'id' | 'card'>, heads: MachineRecords['heads'], zone: string | null): DueItem[] {
  const { again } = ladderFacts(readCard(machine.card));
  const last = new Map(
    ruling(heads)
      .filter(({ finding }) => Object.keys(finding?.quantities ?? {}).length > 0)
      .map((round) => [round.check, round]),
  );
  return [...last].flatMap(([check, round]) => {
    const definition = CHECKS.get(check);
    const days = definition && goodForDays(definition, again);
    if (!definition || days === undefined) return [];
    return [
      {
        ...{ day: daysAfter(shopDay(round.at, zone), days), what: 'check' as const, title: `Read “${definition.title}” again` },
        ...{ machineId: machine.id, number: String(machine.card.number), path: ['/machines', machine.id, 'bench', check] },
      },
    ];
  });
}

const nameOf = (part: Part): string => {
  const name = readPart(part)?.name;
  return name ? `, ${name},` : '';
};

/** Parts of a machine that are expected on some day. */
export function partsDue(machine: Pick<Machine, 'id' | 'card'>, stripDowns: MachineRecords['stripDowns']): DueItem[] {
  return stripDowns
    .filter(({ archived }) => !archived)
    .flatMap(({ id, parts }) =>
      parts.flatMap((part) => {
        const need = needOf(part);
        if (!need?.expected || need.state === 'here' || need.state === 'done') return [];
        return [
          {
            ...{ day: need.expected, what: 'part' as const, title: `Part ${part.number}${nameOf(part)} is expected` },
            ...{ machineId: machine.id, number: String(machine.card.number), path: ['/machines', machine.id, 'parts', id] },
          },
        ];
      }),
    );
}

/** Certificates that run out. */
export const kitDue = (kit: readonly KitItem[]): DueItem[] =>
  kit.flatMap(({ name, care, archived }) =>
    archived || !care.due
      ? []
      : [{ day: care.due, what: 'kit' as const, title: `Have “${name}” certified`, machineId: null, number: null, path: ['/kit'] }],
  );

/** What was added by hand to a plan and is not to be begun before some day. */
export const ownDue = (
  machine: Pick<Machine, 'id' | 'card'>,
  own: readonly Pick<OwnItem, 'title' | 'notBefore' | 'doneAt' | 'every'>[],
): DueItem[] =>
  own.flatMap(({ title, notBefore, doneAt, every }) =>
    notBefore === null || doneAt !== null
      ? []
      : [
          {
            ...{ day: notBefore, what: 'own' as const, title: every === undefined ? title : `${title}, ${everyWords(every)}` },
            ...{ machineId: machine.id, number: String(machine.card.number), path: ['/machines', machine.id, 'plan'] },
          },
        ],
  );

/** In the order of their days. */
export const byDay = (items: readonly DueItem[]): DueItem[] =>
  [...items].sort((one, other) => one.day.localeCompare(other.day) || one.title.localeCompare(other.title));
