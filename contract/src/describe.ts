import { describable, fieldLines, type Description } from '@isometra/core/describe';
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
