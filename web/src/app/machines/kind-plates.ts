import { ChangeDetectionStrategy, Component, output } from '@angular/core';
import { MACHINE_KINDS } from '@isometra/contract';
import { Button } from '../ui/controls';
import { MachineDrawing } from './machine-drawing';

/** What kind of machine it is, chosen by its drawing. */
@Component({
  selector: 'iso-kind-plates',
  imports: [Button, MachineDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'Kind of machine' },
  template: `
    @for (kind of kinds; track kind.value) {
      <button pButton type="button" class="kind" (click)="chosen.emit(kind.value)">
        <iso-machine-drawing [kind]="kind.value" />
        <span>{{ kind.label }}</span>
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
      gap: 12px;
    }
    .kind {
      display: flex;
      flex-direction: column;
      justify-content: flex-start;
      gap: 6px;
      height: 100%;
      padding: 10px 14px 12px;
      white-space: normal;
      text-align: center;
    }
    .kind span {
      align-self: center;
    }
  `,
})
export class KindPlates {
  readonly chosen = output<string>();
  protected readonly kinds = MACHINE_KINDS;
}
