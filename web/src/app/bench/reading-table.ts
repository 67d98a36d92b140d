import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { showSize, sentence, sizesIn } from '@isometra/core';
import type { StoredReading } from '@isometra/contract';
import { isWithdrawn } from '@isometra/work';
import { Settings } from '../data/settings';
import { BenchStore } from './bench-store';
import { Button } from '../ui/controls';
import { Grid } from '../ui/grid';

/** The same readings as a table, for those who prefer it; and where one is corrected. */
@Component({
  selector: 'iso-reading-table',
  imports: [Button, Grid],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-grid [rows]="rows()" label="Readings of this round">
      <ng-template #head>
        <tr>
          <th>Place</th>
          <th>At</th>
          <th>Reads</th>
          <th>Set-up</th>
          <th>Who</th>
          <th></th>
        </tr>
      </ng-template>
      <ng-template #row let-row>
        <tr [class.gone]="!row.stands">
          <td>{{ row.label }}</td>
          <td class="figures">{{ row.at }}</td>
          <td class="figures">{{ row.told }}</td>
          <td class="figures">{{ row.reading.set }}</td>
          <td>{{ row.reading.by }}</td>
          <td>
            @if (row.stands) {
              <button pButton type="button" class="plain" (click)="store.correct(row.reading)">Correct</button>
              <button pButton type="button" class="plain" (click)="store.withdraw(row.reading)">Withdraw</button>
            } @else {
              <span class="soft">{{ row.why }}</span>
            }
          </td>
        </tr>
      </ng-template>
      <ng-template #none>
        <tr>
          <td colspan="6" class="soft">Nothing read yet.</td>
        </tr>
      </ng-template>
    </iso-grid>
  `,
  styles: `
    :host {
      display: block;
      max-height: 330px;
      overflow: auto;
      border: 1px solid var(--line);
      background: var(--panel);
    }
    iso-grid {
      font-size: 0.9375rem;
    }
    th,
    td {
      padding: 6px 12px;
      border-bottom: 1px solid var(--line);
      text-align: left;
    }
    th {
      position: sticky;
      top: 0;
      background: var(--sunk);
      font: 600 0.9375rem/1.2 var(--narrow);
    }
    .gone .figures {
      color: var(--soft);
      text-decoration: line-through;
    }
    button + button {
      margin-left: 10px;
    }
  `,
})
export class ReadingTable {
  protected readonly store = inject(BenchStore);
  private readonly settings = inject(Settings);

  protected readonly rows = this.store.afterCall(() => {
    const all = this.store.round()?.readings ?? [];
    const standing = new Set(this.store.standing().map((reading) => reading.id));
    const later = new Map(all.filter((reading) => reading.supersedes).map((reading) => [reading.supersedes, reading]));
    return all
      .filter((reading) => !isWithdrawn(reading))
      .map((reading) => ({
        reading,
        told: this.store.toldBy(reading),
        stands: standing.has(reading.id),
        why: later.get(reading.id)?.why ?? '',
        label: this.label(reading),
        at: typeof reading.keys['at'] === 'number' ? showSize(reading.keys['at'], 'length', this.settings.system(), 'coarse') : '',
      }));
  });

  private label(reading: StoredReading): string {
    const slot = this.store.slotOf(reading.keys);
    return slot ? sentence(slot.label, sizesIn(this.settings.shown())) : Object.values(reading.keys).join(' ');
  }
}
