import { Directive, output } from '@angular/core';

/** Escape within a panel that asks something: as its button that leaves things as they are. A list that is open has it first. */
@Directive({
  selector: '[isoEscape]',
  host: { '(keydown.escape)': 'pressed($event)' },
})
export class Escape {
  readonly isoEscape = output();

  protected pressed(event: Event): void {
    if (event.defaultPrevented) return;
    event.preventDefault();
    event.stopPropagation();
    this.isoEscape.emit();
  }
}
