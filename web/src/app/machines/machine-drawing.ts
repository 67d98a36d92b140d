import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { shapesOf } from './machine-shapes';

/** A machine of a kind, drawn; the part that a field of its card is about is marked. */
@Component({
  selector: 'iso-machine-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 240 150" aria-hidden="true">
      @for (shape of shapes(); track $index) {
        <path [attr.d]="shape.d" [class.thin]="shape.thin" [class.marked]="shape.marked" />
      }
    </svg>
  `,
  styles: `
    :host,
    svg {
      display: block;
      width: 100%;
    }
    path {
      fill: var(--paper);
      stroke: var(--ink);
      stroke-width: 1.6;
      stroke-linejoin: round;
    }
    .thin {
      fill: none;
      stroke-width: 1;
    }
    .marked {
      stroke: var(--blue);
      stroke-width: 3;
    }
    .thin.marked {
      stroke-width: 2;
    }
  `,
})
export class MachineDrawing {
  readonly kind = input.required<string>();
  /** Key of the field in hand, or of the group that it belongs to. */
  readonly field = input<string | null>(null);
  protected readonly shapes = computed(() => {
    const field = this.field();
    const all = shapesOf(this.kind()).map((shape) => ({ ...shape, marked: field !== null && (shape.fields?.includes(field) ?? false) }));
    // What is marked is drawn last: no neighbour covers it.
    return [...all.filter(({ marked, inHand }) => !marked && !inHand), ...all.filter(({ marked }) => marked)];
  });
}
