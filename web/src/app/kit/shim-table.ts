import { ChangeDetectionStrategy, Component, input, linkedSignal, output } from '@angular/core';
import type { Fault } from '@isometra/core';
import { Button } from '../ui/controls';
import { Figure } from '../ui/figure';
import { TextBox } from '../ui/text-box';
import { Notice } from '../ui/notice';
import { Grid } from '../ui/grid';

export interface ShimRow {
  readonly thickness: string | number;
  readonly count: number;
}

/** Leaves of shim by thickness. */
@Component({
  selector: 'iso-shim-table',
  imports: [Button, Figure, TextBox, Notice, Grid],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-grid [rows]="rows()" label="Leaves by thickness">
      <ng-template #head>
        <tr>
          <th>Thickness</th>
          <th>Leaves</th>
          <th></th>
        </tr>
      </ng-template>
      <ng-template #row let-row let-i="index">
        <tr>
          <td>
            <iso-figure
              label=""
              [name]="'Thickness of row ' + (i + 1)"
              of="deviation"
              example="0.05 mm"
              [read]="LEAF"
              [value]="typed(row)"
              (typed)="set(i, { thickness: $event })"
            />
          </td>
          <td>
            <iso-text-box
              [whole]="true"
              class="count"
              [label]="'Leaves of row ' + (i + 1)"
              [value]="row.count"
              (entered)="set(i, { count: whole($event) })"
            />
          </td>
          <td>
            <button pButton type="button" class="plain" (click)="put(without(i))">Take out</button>
            @if (fault(i); as fault) {
              <iso-notice [text]="fault.message + '. Example: ' + fault.example" />
            }
          </td>
        </tr>
      </ng-template>
    </iso-grid>
    <button pButton type="button" (click)="put([...latest(), { thickness: '', count: 1 }])">Add a thickness</button>
  `,
  styles: `
    iso-grid {
      display: block;
      margin-bottom: 10px;
    }
    th {
      text-align: left;
      font: 600 0.9375rem/1.2 var(--narrow);
    }
    td {
      padding: 3px 12px 3px 0;
    }
    iso-text-box {
      width: 150px;
    }
    .count {
      width: 74px;
    }
  `,
})
export class ShimTable {
  readonly rows = input.required<readonly ShimRow[]>();
  readonly faults = input<readonly Fault[]>([]);
  readonly changed = output<readonly ShimRow[]>();
  /** A leaf is marked in mm or inches; none is thinner than 5 µm or thicker than 5 mm. */
  protected readonly LEAF = { engraved: true, usual: [5, 5000] } as const;
  /** Field left and button pressed can come in one turn, before what was typed is back from the parent. */
  protected readonly latest = linkedSignal(() => this.rows());

  /** A thickness as typed; a number is in the unit of the file. */
  protected typed({ thickness }: ShimRow): string {
    return typeof thickness === 'number' ? `${thickness} µm` : thickness;
  }

  protected fault(index: number): Fault | undefined {
    return this.faults().find((fault) => fault.path.startsWith(`stock[${index}]`));
  }

  protected set(index: number, change: Partial<ShimRow>): void {
    this.put(this.latest().map((row, i) => (i === index ? { ...row, ...change } : row)));
  }

  protected put(rows: readonly ShimRow[]): void {
    this.latest.set(rows);
    this.changed.emit(rows);
  }

  protected without(index: number): readonly ShimRow[] {
    return this.latest().filter((_, i) => i !== index);
  }

  /** A count as typed; what is no whole number stays visible as a fault. */
  protected whole(text: string): number {
    return Number(text.trim() || NaN);
  }
}
