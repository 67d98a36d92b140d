import { CHECKS, MOVES } from '@isometra/core';
import { describable, describeCheck, describeMove, fieldLines, type Description } from '@isometra/core/describe';
import { cardFieldsFor } from './machine.js';
import { MACHINE_KINDS } from './machineKinds.js';

/** The machine card of a kind of machine, as `machine` of a history takes it. */
function describeMachine(kind: string, label: string): Description {
  return {
    ...{
      kind: 'machine',
      name: kind,
      title: label,
      about: 'The machine of a history, and the card of a machine in the shop.',
      machines: [],
    },
    parts: [{ part: 'machine', about: 'Lengths without a unit are mm.', fields: fieldLines(cardFieldsFor(kind)) }],
    quantities: [],
  };
}

/** Everything that a file may be about: checks, moves and kinds of machine. */
export const described = (): Description[] => [...describable(), ...MACHINE_KINDS.map(({ value, label }) => describeMachine(value, label))];

/** One check, move or kind of machine, by the name that it has in a file; undefined where there is none. */
export function describedAs(name: string): Description | undefined {
  const [check, move, kind] = [CHECKS.get(name), MOVES.get(name), MACHINE_KINDS.find(({ value }) => value === name)];
  if (check) return describeCheck(check);
  if (move?.plan) return describeMove(move);
  return kind && describeMachine(kind.value, kind.label);
}
