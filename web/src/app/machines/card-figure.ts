import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MACHINE_KINDS } from '@isometra/contract/machine-kinds';
import { MachineDrawing } from './machine-drawing';
import { isDrawn } from './machine-shapes';

/** The machine of a card beside its fields: the part that the field in hand is about is marked and named. */
@Component({
  selector: 'iso-card-figure',
  imports: [MachineDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <figure>
      <iso-machine-drawing [kind]="kind()" [field]="field()" />
      <figcaption>{{ caption() }}</figcaption>
    </figure>
  `,
  styles: `
    :host {
      position: sticky;
      top: 16px;
      align-self: start;
      max-width: 420px;
      min-width: 0;
      margin: 26px 24px 0 0;
    }
    figure {
      margin: 0;
    }
    figcaption {
      margin-top: 6px;
      text-align: center;
      font-weight: 600;
    }
    @media (width < 1000px) {
      :host {
        display: none;
      }
    }
  `,
})
export class CardFigure {
  readonly kind = input.required<string>();
  /** Key of the field in hand, or of the group that it belongs to; and what the card calls it. */
  readonly field = input<string | null>(null);
  readonly called = input('');
  /** What is marked; the kind of machine where nothing is. */
  protected readonly caption = computed(() => {
    const field = this.field();
    return field !== null && isDrawn(this.kind(), field) ? this.called() : MACHINE_KINDS.find(({ value }) => value === this.kind())?.label;
  });
}
