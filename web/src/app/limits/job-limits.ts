import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { CHECKS, JOB_KINDS, type JobLimit, type LimitLine } from '@isometra/core';
import { Settings } from '../data/settings';
import { formFaults, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { zoneInWords } from '../ui/say';
import { Button } from '../ui/controls';
import { Choices } from '../ui/choices';

/** Limits that follow from the work, with the sum that led to them. */
@Component({
  selector: 'iso-job-limits',
  imports: [SchemaForm, Button, Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Say what the work may be off by. The limits follow from it, and the sum is shown.</p>
    <iso-choices label="Kind of work" [options]="kinds" [value]="kind().id" (chosen)="choose($event)" />
    <iso-schema-form [schema]="kind().fields" [value]="job()" [faults]="faults()" (changed)="job.set($event)" />
    @if (limits().length) {
      <ul>
        @for (limit of limits(); track $index) {
          <li>
            <b>{{ limit.title }}: {{ limit.label }}</b>
            <span class="zone">{{ limit.zone }}</span>
            <span class="soft figures">{{ limit.sum }}</span>
          </li>
        }
      </ul>
      <p><button pButton type="button" class="next" (click)="take.emit(lines())">Use these limits</button></p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 16px;
      justify-items: start;
    }
    ul {
      display: grid;
      gap: 12px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      gap: 2px;
      padding-left: 14px;
      border-left: 4px solid var(--blue);
    }
    .zone {
      font-size: 1.25rem;
    }
    .figures {
      font-size: 0.875rem;
    }
  `,
})
export class JobLimits {
  readonly take = output<readonly LimitLine[]>();
  private readonly settings = inject(Settings);
  protected readonly kinds = JOB_KINDS.map(({ id, title }) => ({ value: id, label: title }));
  protected readonly kind = signal(JOB_KINDS[0]);
  protected readonly job = signal<FormValue>({});
  private readonly full = computed(() => settled(this.kind().fields, this.job(), this.settings.system()));
  protected readonly faults = computed(() => formFaults(this.kind().fields, this.full(), this.settings.system()));
  private readonly found = computed((): readonly JobLimit[] => {
    const parsed = this.kind().fields.safeParse(this.full());
    return parsed.success ? this.kind().limits(parsed.data) : [];
  });
  protected readonly lines = computed((): LimitLine[] => this.found().map(({ sum: _sum, ...line }) => line));
  protected readonly limits = computed(() =>
    this.found().map(({ check, quantity, zone, sum }) => {
      const definition = CHECKS.get(check);
      const info = definition?.quantities[quantity];
      const shown = { system: this.settings.system(), fineness: 'fine' as const };
      return { title: definition?.title ?? check, label: info?.label ?? quantity, zone: info ? zoneInWords(zone, info, shown) : '', sum };
    }),
  );

  protected choose(id: string): void {
    this.kind.set(JOB_KINDS.find((entry) => entry.id === id) ?? JOB_KINDS[0]);
    this.job.set({});
  }
}
