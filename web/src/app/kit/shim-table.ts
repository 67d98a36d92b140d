import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Fault } from '@isometra/core';

export interface ShimRow {
  readonly thickness: string | number;
  readonly count: number;
}

/** Leaves of shim by thickness. */
@Component({
  selector: 'iso-shim-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <thead>
        <tr>
          <th>Thickness</th>
          <th>Leaves</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track $index) {
          <tr>
            <td>
              <input
                type="text"
                [attr.aria-label]="'Thickness of row ' + ($index + 1)"
                [value]="row.thickness"
                [attr.aria-invalid]="fault($index) ? 'true' : null"
                (change)="set($index, { thickness: $any($event.target).value })"
              />
            </td>
            <td>
              <input
                type="text"
                inputmode="numeric"
                size="4"
                [attr.aria-label]="'Leaves of row ' + ($index + 1)"
                [value]="row.count"
                (change)="set($index, { count: whole($any($event.target).value) })"
              />
            </td>
            <td>
              <button type="button" class="plain" (click)="changed.emit(without($index))">Take out</button>
              @if (fault($index); as fault) {
                <span class="fault" role="alert">{{ fault.message }}. Try: {{ fault.example }}</span>
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
    <button type="button" (click)="changed.emit([...rows(), { thickness: '0.05 mm', count: 1 }])">Add a thickness</button>
  `,
  styles: `
    table {
      border-collapse: collapse;
      margin-bottom: 10px;
    }
    th {
      text-align: left;
      font: 600 15px/1.2 var(--narrow);
    }
    td {
      padding: 3px 12px 3px 0;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class ShimTable {
  readonly rows = input.required<readonly ShimRow[]>();
  readonly faults = input<readonly Fault[]>([]);
  readonly changed = output<readonly ShimRow[]>();

  protected fault(index: number): Fault | undefined {
    return this.faults().find((fault) => fault.path.startsWith(`stock[${index}]`));
  }

  protected set(index: number, change: Partial<ShimRow>): void {
    this.changed.emit(this.rows().map((row, i) => (i === index ? { ...row, ...change } : row)));
  }

  protected without(index: number): readonly ShimRow[] {
    return this.rows().filter((_, i) => i !== index);
  }

  /** A count as typed; what is no whole number stays visible as a fault. */
  protected whole(text: string): number {
    return Number(text.trim() || NaN);
  }
}
