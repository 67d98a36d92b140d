import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { KitItem, Machine } from '@isometra/contract';
import { kitFields, kitRows, machineFields, machineRows } from '@isometra/work/table-in';
import type { ApiFailure } from '../data/api';
import { newId } from '../data/id';
import { Kit } from '../data/kit';
import { Machines } from '../data/machines';
import { Notice } from '../ui/notice';
import { TableIn } from './table-in';
import type { TableTarget } from './table-target';

/** Kit or machines out of a table. What is here already is known by its id, its name or its number. */
@Component({
  selector: 'iso-things-page',
  imports: [Notice, RouterLink, TableIn],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1>{{ of() === 'kit' ? 'Kit from a table' : 'Machines from a table' }}</h1>
      <p class="soft">
        What is here already is known by its {{ of() === 'kit' ? 'name' : 'number' }} and only changed. Nothing is written before you say
        so.
        <a [routerLink]="of() === 'kit' ? '/kit' : '/machines'">{{ of() === 'kit' ? 'The kit' : 'The machines' }}</a>
      </p>
    </header>
    <iso-notice [text]="problem()" />
    @if (ready()) {
      <iso-table-in [target]="target()" />
    }
  `,
  styleUrl: './page.css',
})
export class ThingsPage {
  /** 'kit' or 'machines', as it stands in the address. */
  readonly of = input.required<string>();
  private readonly kit = inject(Kit);
  private readonly machines = inject(Machines);
  protected readonly problem = signal('');
  private readonly kitHere = toSignal(this.kit.all$, { initialValue: [] });
  private readonly machinesHere = toSignal(this.machines.all$, { initialValue: [] });
  private readonly loaded = signal<readonly string[]>([]);
  /** Nothing is compared with a shop that is not known yet. */
  protected readonly ready = computed(() => this.loaded().includes(this.of()));

  private readonly kitTarget: TableTarget<KitItem> = {
    ...{ name: 'kit', one: 'piece of kit', many: 'pieces of kit', fields: kitFields() },
    read: (table, mapping) => kitRows(table, mapping, this.kitHere(), newId),
    write: (item) => this.kit.save(item),
  };
  private readonly machineTarget: TableTarget<Machine> = {
    ...{ name: 'machines', one: 'machine', many: 'machines', fields: machineFields() },
    read: (table, mapping) => machineRows(table, mapping, this.machinesHere(), newId),
    write: (machine) => this.machines.save(machine),
  };
  protected readonly target = computed(() => (this.of() === 'kit' ? this.kitTarget : this.machineTarget) as TableTarget);

  constructor() {
    for (const [name, store] of [['kit', this.kit] as const, ['machines', this.machines] as const])
      store.load().subscribe({
        complete: () => this.loaded.update((names) => [...names, name]),
        error: (failure: ApiFailure) => this.problem.set(failure.message),
      });
  }
}
