import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { defer, EMPTY } from 'rxjs';
import { sentence, sizesIn } from '@isometra/core';
import { isByOrder, readingFields, readingRows, startOf, type ReadingIn, type ReadingsAbout } from '@isometra/work/table-in';
import { BenchStore } from '../bench/bench-store';
import type { ApiFailure } from '../data/api';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { Choices } from '../ui/choices';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { TableIn } from './table-in';
import type { TableRead, TableTarget } from './table-target';

/** The readings of a round out of a table. */
@Component({
  selector: 'iso-readings-page',
  imports: [Choices, Notice, Pick, RouterLink, TableIn],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.round(); as round) {
      <header>
        <h1>Readings from a table</h1>
        <p class="soft">
          {{ store.check()?.title }}, round {{ machineStore.number(round) }} ·
          <a [routerLink]="['/machines', round.machineId, 'bench', round.check, round.id]">the bench</a>
        </p>
      </header>
      <iso-notice [text]="problem()" />
      @if (takes()) {
        <iso-table-in [target]="target()" (mapped)="note($event)">
          <div class="where">
            @if (byOrder()) {
              <span>The first row is</span>
              <iso-pick label="The first row is" [options]="starts()" [value]="start() ?? usual()" (chosen)="start.set($any($event))" />
            } @else if (hasAt()) {
              <span>Places</span>
              <iso-choices label="Places" [options]="places" [value]="own()" (chosen)="own.set($any($event))" />
            }
          </div>
        </iso-table-in>
      } @else {
        <p>What this check wants is felt or seen, not read off a scale: no table can tell it.</p>
      }
    } @else {
      <iso-notice [text]="problem()" />
    }
  `,
  styleUrl: './page.css',
  styles: `
    .where {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
  `,
})
export class ReadingsPage {
  readonly roundId = input.required<string>();
  protected readonly store = inject(BenchStore);
  protected readonly machineStore = inject(MachineStore);
  private readonly settings = inject(Settings);
  protected readonly problem = signal('');
  /** Places that the plan does not have are taken. */
  protected readonly own = signal(false);
  protected readonly start = signal<number | null>(null);
  private readonly read = signal<{ readonly rows: number; readonly byOrder: boolean } | null>(null);
  protected readonly byOrder = computed(() => this.read()?.byOrder ?? false);
  protected readonly usual = computed(() => startOf(this.read()?.rows ?? 0, this.store.slots()));
  protected readonly hasAt = computed(() => this.read() !== null && this.store.slots().some(({ keys }) => typeof keys['at'] === 'number'));
  protected readonly takes = computed(() => this.store.slots().some(({ keys }) => this.store.kindOf(keys) !== 'none'));
  protected readonly places = [
    { value: false, label: 'only those of the plan' },
    { value: true, label: 'as they stand in the table' },
  ];
  protected readonly starts = computed(() =>
    this.store.slots().map(({ index, label }) => ({ value: index, label: `${index + 1}. ${sentence(label, this.sizes())}` })),
  );
  private readonly sizes = computed(() => sizesIn(this.settings.shown()));

  protected readonly target = computed((): TableTarget => {
    const target: TableTarget<ReadingIn> = {
      ...{ name: `readings:${this.store.check()?.id ?? ''}`, one: 'reading', many: 'readings' },
      fields: this.about() ? readingFields(this.about()!) : [],
      read: (table, mapping) => (this.about() ? readingRows(table, mapping, this.about()!) : []),
      write: (reading) => this.write(reading),
    };
    return target as TableTarget;
  });

  constructor() {
    effect((onCleanup) => {
      const id = this.roundId();
      const opening = untracked(() => this.store.open(id).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) }));
      onCleanup(() => opening.unsubscribe());
    });
  }

  /** The screen asks where the first row belongs where the rows tell no places. */
  protected note({ rows, mapping }: TableRead): void {
    this.read.set({ rows, byOrder: isByOrder(mapping) });
  }

  private readonly about = computed((): ReadingsAbout | undefined => {
    const [check, round] = [this.store.check(), this.store.round()];
    if (!check || !round) return undefined;
    return {
      ...{ check, round, instrument: this.store.instrument(), slots: this.store.slots(), setUp: this.store.setUp() },
      ...{ kindOf: (keys) => this.store.kindOf(keys), size: this.sizes(), ownPlaces: this.own() },
      ...(this.start() !== null && { start: this.start()! }),
    };
  });

  /** Into the outbox: it stands in the round here at once, and is sent in its turn. */
  private write(reading: ReadingIn) {
    return defer(() => {
      this.store.put(reading);
      return EMPTY;
    });
  }
}
