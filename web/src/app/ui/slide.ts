import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';

/** A place between two ends, moved by hand or with the arrow keys. */
@Component({
  selector: 'iso-slide',
  imports: [FormsModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-slider
      [min]="min()"
      [max]="max()"
      [step]="step()"
      [disabled]="disabled()"
      [ngModel]="value()"
      [ngModelOptions]="{ standalone: true }"
      (ngModelChange)="moved.emit($event)"
      [pt]="{ handle: { 'aria-label': label(), 'aria-valuetext': words() } }"
    />
  `,
  styles: `
    :host {
      display: block;
      min-width: 120px;
      padding: 14px 11px;
    }
  `,
})
export class Slide {
  readonly label = input.required<string>();
  /** What the place means, for those who cannot see it. */
  readonly words = input<string | undefined>(undefined);
  readonly value = input.required<number>();
  readonly min = input(0);
  readonly max = input.required<number>();
  readonly step = input(1);
  readonly disabled = input(false);
  readonly moved = output<number>();
}
