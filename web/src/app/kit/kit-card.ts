import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { instrumentSchemaFor, type Fault } from '@isometra/core';
import { kitFaults, type KitItem } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Kit } from '../data/kit';
import { Settings } from '../data/settings';
import { settled, withField, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { ShimTable, type ShimRow } from './shim-table';

/** One piece of kit: shown short, opened to be changed. */
@Component({
  selector: 'iso-kit-card',
  imports: [SchemaForm, ShimTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kit-card.html',
  styles: `
    :host {
      display: block;
      padding: 12px 16px;
      border: 1px solid var(--line);
      background: var(--panel);
    }
    .short {
      display: flex;
      gap: 14px;
      align-items: center;
    }
    .short b {
      min-width: 15em;
      font: 600 18px/1.2 var(--narrow);
    }
    .short .figures {
      flex: 1;
      font-size: 15px;
      color: var(--soft);
    }
    form {
      display: grid;
      gap: 14px;
    }
    .name {
      display: grid;
      gap: 4px;
      max-width: 380px;
    }
    .acts {
      display: flex;
      gap: 10px;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class KitCard {
  readonly item = input.required<KitItem>();
  readonly done = output<void>();
  private readonly kit = inject(Kit);
  private readonly settings = inject(Settings);

  protected readonly open = linkedSignal(() => this.item().version === 0);
  protected readonly name = linkedSignal(() => this.item().name);
  protected readonly data = linkedSignal<FormValue>(() => this.item().data);
  protected readonly schema = computed(() => instrumentSchemaFor(this.data()['kind']));
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  private readonly newer = signal<KitItem | null>(null);

  /** What is stored: an instrument with its units written out. */
  private readonly full = computed(() =>
    this.item().kind === 'instrument' ? settled(this.schema(), this.data(), this.settings.system()) : this.data(),
  );
  protected readonly faults = computed((): Fault[] =>
    kitFaults({ kind: this.item().kind, data: this.full() }).map((fault) => ({ ...fault, path: fault.path.replace(/^data\.?/, '') })),
  );
  protected readonly stock = computed(() => (this.data()['stock'] ?? []) as readonly ShimRow[]);
  protected readonly short = computed(() => {
    const data = this.item().data;
    if (this.item().kind === 'shim-stock')
      return ((data['stock'] ?? []) as readonly ShimRow[]).map((row) => `${row.count} × ${row.thickness}`).join(', ') || 'empty';
    return [
      data['kind'],
      data['graduation'],
      data['range'] && `${String(data['range'])} divisions`,
      data['holderSag'] && `holder sag ${String(data['holderSag'])}`,
    ]
      .filter(Boolean)
      .join(', ');
  });

  protected setStock(stock: readonly ShimRow[]): void {
    this.data.update((data) => withField({ ...data, stock }, 'stock', stock));
    if (stock.length === 0) this.data.set({ stock: [] });
  }

  protected cancel(): void {
    this.name.set(this.item().name);
    this.data.set(this.item().data);
    this.open.set(false);
    this.done.emit();
  }

  protected save(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    if (this.faults().length || !this.name().trim()) {
      this.problem.set(this.name().trim() ? '' : 'Name is missing. Try: Lever dial, 2 µm');
      return;
    }
    const version = this.newer()?.version ?? this.item().version;
    this.kit.save({ ...this.item(), name: this.name().trim(), data: this.full(), version }).subscribe({
      next: () => {
        this.open.set(false);
        this.problem.set('');
        this.done.emit();
      },
      error: (failure: ApiFailure) => {
        if (failure.current) this.newer.set(failure.current as KitItem);
        this.problem.set(
          failure.current
            ? 'Somebody else has changed it meanwhile. What you typed is still here; keep it again to put it over theirs.'
            : failure.message,
        );
      },
    });
  }
}
