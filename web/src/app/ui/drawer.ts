import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Drawer as PrimeDrawer } from 'primeng/drawer';

/** Something drawn in from the left over the work, on a screen that has no room for it beside: closed by its button, Escape or a touch beside it. */
@Component({
  selector: 'iso-drawer',
  imports: [PrimeDrawer],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-drawer
      [header]="heading()"
      [visible]="true"
      position="left"
      [style]="{ width: 'min(340px, 88vw)' }"
      ariaCloseLabel="Close"
      (visibleChange)="$event || closed.emit()"
    >
      <ng-content />
    </p-drawer>
  `,
})
export class Drawer {
  readonly heading = input.required<string>();
  readonly closed = output();
}
