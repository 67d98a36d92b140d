import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { Keys } from '../data/keys';
import { Dialog } from '../ui/dialog';

/** All the keys that work right now. */
@Component({
  selector: 'iso-all-keys',
  imports: [Dialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-dialog heading="Keys that work here" (closed)="closed.emit()">
      <dl>
        @for (hint of keys.all(); track hint.shown) {
          <dt>
            <kbd>{{ hint.shown }}</kbd>
          </dt>
          <dd>{{ hint.does }}</dd>
        }
      </dl>
    </iso-dialog>
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
      font: 500 0.875rem/1.4 var(--figures);
    }
  `,
})
export class AllKeys {
  protected readonly keys = inject(Keys);
  readonly closed = output();
}
