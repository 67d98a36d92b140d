import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { defer, EMPTY } from 'rxjs';
import { sentence, sizesIn } from '@isometra/core';
import { isByOrder, placesTaken, readingFields, readingRows, startOf, type ReadingIn, type ReadingsAbout } from '@isometra/work/table-in';
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
              <iso-pick label="The first row is" [options]="starts()" [value]="start()" (chosen)="start.set($any($event))" />
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
  /** The place of the first row: where the round stood when the table was opened, whatever is written since, here or elsewhere. */
  protected readonly start = signal<number | null>(null);
  private readonly read = signal<TableRead | null>(null);
  protected readonly byOrder = computed(() => {
    const read = this.read();
    return read !== null && isByOrder(read.mapping);
  });
  protected readonly hasAt = computed(() => this.read() !== null && this.store.slots().some(({ keys }) => typeof keys['at'] === 'number'));
  /** A table can tell something of it beside its places. */
  protected readonly takes = computed(() => this.target().fields.some(({ key }) => !key.startsWith('keys.')));
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
  protected note(read: TableRead): void {
    if (this.read()?.table !== read.table) this.start.set(startOf(placesTaken(read.table), this.store.slots()));
    this.read.set(read);
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
