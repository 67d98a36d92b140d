import { Directive, computed } from '@angular/core';
import { readingValue } from '@isometra/core';
import { learnedPivot, neighbours, staleWords, standingReadings } from '@isometra/work';
import { bedWords } from '../machine/bed-words';
import { JobMove } from './job-move';
import { nodSides } from './nod-words';

/** How the move of a card stands to what else is known: later rounds, other places along the bed, the other move of its round. */
@Directive()
export abstract class JobStanding extends JobMove {
  /** Why this card is old news: a later round, or a move since that upset what it was read on. */
  protected readonly outdated = computed((): string => {
    const [round, check] = [this.round(), this.check()];
    if (!round || !check || this.saved()?.doneAt) return '';
    const later = this.desk
      .of(check.id)
      .filter(({ at, finding }) => at > round.at && finding?.quantities[this.quantity()])
      .at(-1);
    if (later)
      return `Round ${this.desk.number(later)} has been read since. This card speaks of round ${this.desk.number(round)}: make it from the last one.`;
    const stale = this.desk.rungs().find((rung) => rung.check.id === check.id)?.stale;
    return stale ? `Leave it for now: ${staleWords(stale)}.` : '';
  });
  protected readonly worn = computed(() => {
    const [info, curve] = [this.info(), this.curve()];
    return info && curve ? bedWords(curve, info, this.shown()) : '';
  });
  /** Of height and side the one that undoes the other, where the round wants both. */
  protected readonly order = computed(() => {
    const [moves, kind, done] = [this.finding()?.moves ?? [], this.kind(), this.saved()?.doneAt];
    if (!kind || done) return null;
    const { before, after } = neighbours(moves, { quantity: this.quantity(), kind });
    const called = (quantity: string) => this.check()?.quantities[quantity]?.label.toLowerCase() ?? quantity;
    if (before)
      return {
        quantity: before,
        text: `${this.check()?.quantities[before]?.label} first: opening the joint loses this.`,
        link: 'To that card',
      };
    return after
      ? {
          quantity: after,
          text: `Opening the joint loses the ${called(after)}. It comes after, from a new round.`,
          link: 'What it reads now',
        }
      : null;
  });

  /** A head that nods: what its pivot is learned from. Only where a move teaches the pivot and no gain. */
  protected readonly nod = computed(() => {
    const [instrument, round, check, quantity] = [this.instrument(), this.round(), this.check(), this.told()];
    if (!instrument || !round || !quantity?.limit || !check?.corrections[this.quantity()]?.noGain) return null;
    const { radius, pivotDistance } = (check.setup.safeParse(round.setup).data ?? {}) as {
      readonly radius?: number;
      readonly pivotDistance?: number;
    };
    const before = nodSides(standingReadings(round.readings), ({ value }) => {
      const read = readingValue(value, 'indicator', instrument);
      return read.ok ? read.value : null;
    });
    const [low, high] = quantity.limit;
    if (!radius || !before || low === null || high === null) return null;
    return {
      before,
      radius,
      instrument,
      limit: (high - low) / 2,
      pivot: pivotDistance ?? null,
      learned: learnedPivot(this.desk.all()) ?? null,
    };
  });
}
