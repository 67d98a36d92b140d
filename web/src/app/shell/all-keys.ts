import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { Keys } from '../data/keys';
import { Button } from '../ui/controls';

/** All the keys that work right now. */
@Component({
  selector: 'iso-all-keys',
  imports: [Dialog, Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Keys that work here"
      [visible]="true"
      [modal]="true"
      [draggable]="false"
      [resizable]="false"
      [closable]="false"
      [dismissableMask]="true"
      [closeOnEscape]="false"
      [style]="{ width: 'min(520px, 92vw)' }"
      (visibleChange)="closed.emit()"
    >
      <dl>
        @for (hint of keys.all(); track hint.shown) {
          <dt>
            <kbd>{{ hint.shown }}</kbd>
          </dt>
          <dd>{{ hint.does }}</dd>
        }
      </dl>
      <ng-template #footer>
        <button pButton type="button" (click)="closed.emit()">Close</button>
      </ng-template>
    </p-dialog>
  `,
  styles: `
    dl {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 6px 16px;
      margin: 0;
    }

    dd {
      margin: 0;
    }

    kbd {
      padding: 1px 8px;
      border: 1px solid var(--edge);
      background: var(--paper);
      font: 500 14px/1.4 var(--figures);
    }
  `,
})
export class AllKeys {
  protected readonly keys = inject(Keys);
  readonly closed = output();
}
