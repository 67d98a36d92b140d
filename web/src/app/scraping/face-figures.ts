import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Field } from '../ui/field';
import { Figure } from '../ui/figure';
import { exampleOf, FIGURES, measureOf, readOf, type FigureName } from './face-draft';

/** Figures of a face, side by side: each with its words and an example of what it may be. */
@Component({
  selector: 'iso-face-figures',
  imports: [Field, Figure],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (name of names(); track name) {
      @let measured = measureOf(name, text());
      @if (measured) {
        <iso-figure
          [label]="labels()[name] ?? FIGURES[name].label"
          [name]="labels()[name] ?? FIGURES[name].label"
          [of]="measured"
          [example]="exampleOf(name, text())"
          [read]="readOf(name)"
          [value]="text()[name] ?? ''"
          [size]="size()"
          (typed)="typed.emit({ name, value: $event })"
        />
      } @else {
        <iso-field
          [label]="labels()[name] ?? FIGURES[name].label"
          [name]="labels()[name] ?? FIGURES[name].label"
          [value]="text()[name] ?? ''"
          [size]="size()"
          [example]="FIGURES[name].example"
          (typed)="typed.emit({ name, value: $event })"
        />
      }
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class FaceFigures {
  readonly names = input.required<readonly FigureName[]>();
  readonly text = input.required<Readonly<Partial<Record<string, string>>>>();
  readonly size = input(8);
  /** Other words than the usual ones. */
  readonly labels = input<Readonly<Partial<Record<FigureName, string>>>>({});
  readonly typed = output<{ readonly name: FigureName; readonly value: string }>();
  protected readonly FIGURES = FIGURES;
  protected readonly measureOf = measureOf;
  protected readonly readOf = readOf;
  protected readonly exampleOf = exampleOf;
}
