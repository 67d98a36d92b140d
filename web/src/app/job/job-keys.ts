import type { KeyHint } from '../data/keys';

/** What the keys of a job card act on. */
export interface CardInHand {
  /** The card is on the screen, and there is something on it to do. */
  readonly open: () => boolean;
  /** The ticks of its steps, in order. */
  readonly boxes: () => readonly HTMLInputElement[];
  /** The first step that is not ticked yet; below nothing when all are. */
  readonly nextStep: () => number;
  readonly tick: (index: number) => void;
  readonly byHand: () => boolean;
  readonly toScrew: () => void;
  /** Go to the scraping desk of this card. @returns false where it has none. */
  readonly toDesk: () => boolean;
  readonly done: () => void;
  /** Leave the question whether all of it is done. @returns false where it is not asked. */
  readonly notDone: () => boolean;
}

/** The keys of a card: the next step is ticked, the hand goes from tick to tick, to the screw, and it is done. */
export function jobKeys(card: CardInHand): readonly KeyHint[] {
  const when = (act: () => void, able: () => boolean = () => true): boolean => {
    if (!card.open() || !able()) return false;
    act();
    return true;
  };
  const go = (by: 1 | -1): void => {
    const boxes = card.boxes();
    const now = boxes.indexOf(document.activeElement as HTMLInputElement);
    const first = by > 0 ? 0 : boxes.length - 1;
    boxes[now < 0 ? first : Math.max(0, Math.min(boxes.length - 1, now + by))]?.focus();
  };
  const tickNext = (): void => {
    const next = card.nextStep();
    card.tick(next);
    card.boxes()[next]?.focus();
  };
  return [
    {
      shown: 'Enter',
      does: 'tick the next step',
      keys: ['Enter'],
      // Enter on a button or a link is that button.
      run: (event) => !(event.target as Element | null)?.closest('button, a') && when(tickNext, () => card.nextStep() >= 0),
    },
    {
      shown: '↑ ↓',
      does: 'from step to step',
      keys: ['ArrowDown', 'ArrowUp'],
      repeats: true,
      run: (event) =>
        !(event.target as Element | null)?.closest('[role="radiogroup"]') && when(() => go(event.key === 'ArrowDown' ? 1 : -1)),
    },
    { shown: 'S', does: 'at the dial', keys: ['s'], run: () => when(card.toScrew, card.byHand) },
    { shown: 'W', does: 'to the scraping desk', keys: ['w'], quiet: true, run: () => card.open() && card.toDesk() },
    { shown: 'D', does: 'it is done', keys: ['d'], run: () => when(card.done) },
    { shown: 'Esc', does: 'not all of it is done', keys: ['Escape'], quiet: true, run: card.notDone },
  ];
}
