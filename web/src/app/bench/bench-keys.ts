import type { KeyHint } from '../data/keys';

interface Actions {
  readonly step: (by: number) => void;
  readonly repeat: () => void;
  readonly table: () => void;
  readonly another: () => void;
  readonly asSetUp: () => void;
  readonly move: () => boolean;
  readonly next: () => void;
  readonly focus: () => void;
}

/** Whether a key comes from a field other than the reading. */
const elsewhere = (event: KeyboardEvent): boolean => {
  const target = event.target as HTMLElement | null;
  return target?.tagName === 'INPUT' && target.id !== 'reading';
};

/** Keys of the bench. Letters work while the reading field is empty, so that the hand need not leave it. */
export function benchKeys(actions: Actions): readonly KeyHint[] {
  const letter = (shown: string, does: string, run: () => boolean | void): KeyHint => ({ shown, does, keys: [shown.toLowerCase()], run });
  return [
    { shown: 'Enter', does: 'record the reading', keys: [], run: () => false },
    { shown: '±', does: 'change its sign', keys: [], run: () => false },
    { shown: '← →', does: 'move the needle', keys: [], run: () => false },
    { shown: 'Space', does: 'record what the needle shows', keys: [], run: () => false },
    {
      shown: '↑ ↓',
      does: 'another place',
      keys: ['ArrowUp', 'ArrowDown'],
      repeats: true,
      inFields: true,
      run: (event) => {
        if (elsewhere(event)) return false;
        actions.step(event.key === 'ArrowUp' ? -1 : 1);
        actions.focus();
        return true;
      },
    },
    letter('R', 'read the last place again', () => (actions.repeat(), actions.focus())),
    letter('S', 'another set-up', actions.another),
    letter('T', 'table', actions.table),
    letter('E', 'edit the set-up', actions.asSetUp),
    letter('M', 'the move', actions.move),
    letter('N', 'rounds so far', actions.next),
  ];
}
