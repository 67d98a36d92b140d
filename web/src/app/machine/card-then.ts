import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { distinctUntilChanged, EMPTY, map, switchMap } from 'rxjs';
import { isPast } from '@isometra/work';
import { CardsThen } from '../data/cards-then';
import { dateWords } from '../data/when';
import { MachineStore } from './machine-store';

/** An old round goes by the machine card as it stood then; what of it was changed since is told. Nothing where nothing was. */
@Component({
  selector: 'iso-card-then',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (then(); as card) {
      <p>This goes by the machine card as it stood on {{ day(card.at) }}. Since then:</p>
      <ul aria-label="Changed on the card since">
        @for (change of card.since; track $index) {
          <li>{{ change.field }}: {{ change.from ?? 'not given' }}, now {{ change.to ?? 'not given' }}</li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: block;
      font-size: 0.9375rem;
    }
    ul {
      margin: 0 0 8px;
      padding-left: 18px;
    }
  `,
})
export class CardThenNote {
  readonly roundId = input.required<string>();
  private readonly store = inject(MachineStore);
  private readonly cards = inject(CardsThen);
  protected readonly day = dateWords;
  private readonly asked = computed(() => {
    const old = this.store.old(this.roundId());
    return { id: this.roundId(), old: !!old && isPast(old) };
  });
  protected readonly then = computed(() => {
    const then = this.cards.known().get(this.roundId());
    return then?.since.length ? then : undefined;
  });

  constructor() {
    toObservable(this.asked)
      .pipe(
        distinctUntilChanged((one, other) => one.id === other.id && one.old === other.old),
        switchMap(({ id, old }) => {
          if (old) return this.cards.ask(id);
          this.cards.drop(id);
          return EMPTY;
        }),
        map(() => undefined),
        takeUntilDestroyed(),
      )
      .subscribe();
  }
}
