import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { CHECKS, type LimitSheet } from '@isometra/core';
import type { Machine, RoundHead, StoredRound } from '@isometra/contract';
import { rejudge, wayOut } from '@isometra/work';
import { EMPTY, Subject, catchError, forkJoin, switchMap, take } from 'rxjs';
import type { ApiFailure } from '../data/api';
import { Heads } from '../data/heads';
import { Machines } from '../data/machines';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { Glyph, type GlyphState } from '../ui/glyph';
import { inWords } from '../ui/say';
import { Notice } from '../ui/notice';
import { Choices } from '../ui/choices';
import { dateWords } from '../data/when';

/** What another sheet would say of old rounds. Looking changes nothing. */
@Component({
  selector: 'iso-rejudge',
  imports: [Glyph, Notice, Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Which old results would be different with this sheet? Looking changes nothing.</p>
    @if (machines().length) {
      <iso-choices label="Machine" [options]="choices()" [value]="chosen()" (chosen)="look($event)" />
    } @else {
      <p class="soft">There is no machine yet.</p>
    }
    <iso-notice [text]="problem()" />
    @if (rounds(); as all) {
      <p>
        <b>{{ changes().length === 0 ? 'No result' : changes().length === 1 ? 'One result' : changes().length + ' results' }}</b> of
        {{ all.length }} {{ all.length === 1 ? 'round' : 'rounds' }} would be different.
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
      font-size: 0.9375rem;
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
  private readonly headStore = inject(Heads);
  private readonly looks = new Subject<string>();
  private readonly settings = inject(Settings);
  protected readonly machines = toSignal(this.machineStore.all$, { initialValue: [] as readonly Machine[] });
  protected readonly choices = computed(() => this.machines().map(({ id, card }) => ({ value: id, label: card.number })));
  protected readonly chosen = signal<string | null>(null);
  protected readonly rounds = signal<readonly StoredRound[] | null>(null);
  private readonly heads = signal<readonly RoundHead[]>([]);
  protected readonly problem = signal('');

  constructor() {
    this.machineStore.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
    this.looks
      .pipe(
        switchMap((id) => this.fetch(id)),
        takeUntilDestroyed(),
      )
      .subscribe(([heads, rounds]) => {
        this.problem.set('');
        this.heads.set(heads);
        this.rounds.set(rounds);
      });
  }

  protected readonly changes = computed(() => {
    const shown = this.settings.shown();
    const names: Readonly<Record<string, string>> = { in: 'in', out: 'out', unsure: 'too close to call' };
    return rejudge(this.heads(), this.rounds() ?? [], this.sheet()).flatMap(({ round, quantity, before, after, zone }) => {
      const check = CHECKS.get(round.check);
      const found = round.finding?.quantities[quantity];
      if (!check || !found) return [];
      return [
        {
          when: dateWords(round.at),
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

  protected look(machineId: string): void {
    this.chosen.set(machineId);
    this.rounds.set(null);
    this.looks.next(machineId);
  }

  /** What was said of the rounds of a machine, and the rounds as they were read. */
  private fetch(machineId: string) {
    const heads = this.headStore.load(machineId).pipe(switchMap(() => this.headStore.of(machineId).pipe(take(1))));
    return forkJoin([heads, this.roundStore.list(machineId)]).pipe(
      catchError((failure: ApiFailure) => {
        this.problem.set(failure.message);
        return EMPTY;
      }),
    );
  }
}
