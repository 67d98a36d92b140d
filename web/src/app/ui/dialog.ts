import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Dialog as PrimeDialog } from 'primeng/dialog';
import { Button } from './controls';

/** Something shown over the work until it is closed: by its button, or by a touch beside it. Escape is the keys' own. */
@Component({
  selector: 'iso-dialog',
  imports: [PrimeDialog, Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="heading()"
      [visible]="true"
      [modal]="true"
      [draggable]="false"
      [resizable]="false"
      [closable]="false"
      [dismissableMask]="true"
      [closeOnEscape]="false"
      [style]="{ width: size() === 'wide' ? 'min(1000px, 94vw)' : 'min(520px, 92vw)' }"
      (visibleChange)="closed.emit()"
    >
      <ng-content />
      <ng-template #footer>
        <button pButton type="button" (click)="closed.emit()">Close</button>
      </ng-template>
    </p-dialog>
  `,
})
export class Dialog {
  readonly heading = input.required<string>();
  readonly size = input<'usual' | 'wide'>('usual');
  readonly closed = output();
}
