import { ChangeDetectionStrategy, Component, effect, inject, input, type OnInit, output, signal, untracked } from '@angular/core';
import { ActivatedRoute } from '@angular/router';
import type { FieldChange, Kept, StateHead, StateThen } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { States } from '../data/states';
import { timeWords } from '../data/when';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';

/** A change in words: from what to what, what was added, what was taken out. */
export function changeWords({ field, from, to }: FieldChange): string {
  // A sentence is set off from the words round it.
  const said = (text: string): string => (text.length > LONG ? `“${text}”` : text);
  if (from === null) return `${field}: ${said(to ?? '')}, not given before`;
  return to === null ? `${field}: ${said(from)} taken out` : `${field}: ${said(from)} to ${said(to)}`;
}
const LONG = 24;

/** Every state that a card, a piece of kit or a face has had: who made it so, when, and from what to what. Any of them can be looked at. */
@Component({
  selector: 'iso-earlier',
  imports: [Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details #all [open]="open()" (toggle)="open.set(all.open)">
      <summary>Earlier states</summary>
      @if (states(); as known) {
        <ol>
          @for (state of known; track state.version) {
            <li [class.on]="state.version === shown()">
              <span class="when">{{ state.at ? when(state.at) + ', ' + state.by : 'before earlier states were kept' }}</span>
              <span class="what">
                @for (change of state.changes; track $index) {
                  <span>{{ words(change) }}</span>
                } @empty {
                  <span>{{ $last ? 'As it was first kept' : 'Saved, and nothing changed' }}</span>
                }
              </span>
              @if ($first) {
                <span class="soft">as it stands now</span>
              } @else {
                <button
                  pButton
                  type="button"
                  class="plain"
                  [attr.aria-label]="'Look at it as it stood ' + (state.at ? when(state.at) : 'at first')"
                  (click)="look(state)"
                >
                  look at it as it stood
                </button>
              }
            </li>
          } @empty {
            <li>It has not been changed since earlier states are kept.</li>
          }
        </ol>
      }
      <iso-notice [text]="problem()" />
    </details>
  `,
  styles: `
    summary {
      font: 600 1.0625rem/1.4 var(--narrow);
      color: var(--blue);
      cursor: pointer;
    }
    ol {
      display: grid;
      margin: 8px 0 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 190px minmax(0, 1fr) max-content;
      gap: 4px 14px;
      align-items: baseline;
      padding: 6px 0;
      border-top: 1px solid var(--line);
    }
    li.on {
      background: var(--panel);
      font-weight: 600;
    }
    .when {
      color: var(--soft);
      font-size: 0.875rem;
    }
    .what {
      display: grid;
      overflow-wrap: anywhere;
    }
    @media (max-width: 700px) {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class Earlier implements OnInit {
  readonly what = input.required<Kept>();
  readonly of = input.required<string>();
  /** The version that stands now: with another one the list is asked for anew. */
  readonly version = input.required<number>();
  /** The version that is looked at. */
  readonly shown = input<number | null>(null);
  readonly looked = output<StateThen>();

  private readonly store = inject(States);
  protected readonly open = signal(false);
  protected readonly states = signal<readonly StateHead[] | null>(null);
  protected readonly problem = signal('');
  protected readonly when = timeWords;
  protected readonly words = changeWords;

  constructor() {
    effect((onCleanup) => {
      const [what, id, open] = [this.what(), this.of(), this.open()];
      this.version();
      if (!open) return;
      const asked = untracked(() =>
        this.store.of(what, id).subscribe({
          next: (states) => {
            this.problem.set('');
            this.states.set(states);
          },
          error: (failure: ApiFailure) => this.problem.set(failure.message),
        }),
      );
      onCleanup(() => asked.unsubscribe());
    });
  }

  /** The address may name a state of this: it is looked at once, as from the list. */
  private readonly named = inject(ActivatedRoute).snapshot?.queryParamMap?.get('state') ?? '';

  ngOnInit(): void {
    const [of, version] = this.named.split('.');
    if (of !== this.of() || !/^\d+$/.test(version ?? '')) return;
    this.open.set(true);
    this.look({ version: Number(version) });
  }

  protected look({ version }: Pick<StateHead, 'version'>): void {
    this.store.at(this.what(), this.of(), version).subscribe({
      next: (then) => this.looked.emit(then),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
