import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { CHECKS, type LimitSheet } from '@isometra/core';
import { rejudge, type Machine, type Round } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Machines } from '../data/machines';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { Glyph, wayOut, type GlyphState } from '../ui/glyph';
import { inWords } from '../ui/say';

/** What another sheet would say of old rounds. Looking changes nothing. */
@Component({
  selector: 'iso-rejudge',
  imports: [Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Which old calls would come out differently by this sheet? Nothing is changed by looking.</p>
    <div class="segments" role="radiogroup" aria-label="Machine">
      @for (machine of machines(); track machine.id) {
        <label [class.on]="chosen()?.id === machine.id"
          ><input type="radio" name="machine" [checked]="chosen()?.id === machine.id" (change)="look(machine)" />
          {{ machine.card.number }}</label
        >
      } @empty {
        <p class="soft">There is no machine yet.</p>
      }
    </div>
    @if (problem()) {
      <p role="alert">{{ problem() }}</p>
    }
    @if (rounds(); as all) {
      <p>
        <b>{{ changes().length === 0 ? 'No call' : changes().length === 1 ? 'One call' : changes().length + ' calls' }}</b> of
        {{ all.length }} {{ all.length === 1 ? 'round' : 'rounds' }} would come out differently.
      </p>
      <ul>
        @for (change of changes(); track $index) {
          <li>
            <span class="when">{{ change.when }}</span>
            <b>{{ change.title }}</b>
            <span>{{ change.label }}: {{ change.value }}</span>
            <span class="turn"
              ><iso-glyph [state]="change.before" [way]="change.ways[0]" /> {{ change.words[0] }} <span aria-hidden="true">→</span>
              <iso-glyph [state]="change.after" [way]="change.ways[1]" /> would be {{ change.words[1] }}</span
            >
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 7em 15em 1fr auto;
      gap: 14px;
      align-items: center;
      padding: 8px 0;
      border-top: 1px solid var(--line);
    }
    .when {
      color: var(--soft);
      font-size: 15px;
    }
    .turn {
      display: inline-flex;
      gap: 6px;
      align-items: center;
    }
  `,
})
export class Rejudge {
  readonly sheet = input.required<LimitSheet>();
  private readonly machineStore = inject(Machines);
  private readonly roundStore = inject(Rounds);
  private readonly settings = inject(Settings);
  protected readonly machines = toSignal(this.machineStore.all$, { initialValue: [] as readonly Machine[] });
  protected readonly chosen = signal<Machine | null>(null);
  protected readonly rounds = signal<readonly Round[] | null>(null);
  protected readonly problem = signal('');

  constructor() {
    this.machineStore.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected readonly changes = computed(() => {
    const shown = { system: this.settings.system(), fineness: this.settings.fineness() };
    const names: Readonly<Record<string, string>> = { in: 'in', out: 'out', unsure: 'too close to call' };
    return rejudge(this.rounds() ?? [], this.sheet()).flatMap(({ round, quantity, before, after, zone }) => {
      const check = CHECKS.get(round.check);
      const found = round.finding?.quantities[quantity];
      if (!check || !found) return [];
      return [
        {
          when: new Date(round.at).toLocaleDateString(undefined, { dateStyle: 'medium' }),
          title: `${check.title}, round ${round.number}`,
          label: check.quantities[quantity].label,
          value: inWords(found, check.quantities[quantity], shown),
          before: before as GlyphState,
          after: after as GlyphState,
          ways: [wayOut(found, check.quantities[quantity]), wayOut({ value: found.value, limit: zone }, check.quantities[quantity])],
          words: [names[before], names[after]],
        },
      ];
    });
  });

  protected look(machine: Machine): void {
    this.chosen.set(machine);
    this.rounds.set(null);
    this.roundStore.list(machine.id).subscribe({
      next: (rounds) => {
        this.problem.set('');
        this.rounds.set(rounds);
      },
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
