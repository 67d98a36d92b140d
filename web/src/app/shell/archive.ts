import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Archived } from '@isometra/contract';
import { dateWords } from '../data/when';
import { Button } from '../ui/controls';

/** Into the archive and out of it again: what is there is kept with all that was done with it, and offered nowhere. */
@Component({
  selector: 'iso-archive',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (archived(); as since) {
      <span role="status">In the archive since {{ dateWords(since.at) }}, {{ since.by }}.</span>
      <button pButton type="button" [attr.aria-label]="'Restore ' + name()" (click)="away.emit(false)">Restore</button>
    } @else {
      <button pButton type="button" class="plain" [attr.aria-label]="'Archive ' + name()" (click)="away.emit(true)">archive</button>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: center;
    }
  `,
})
export class Archive {
  readonly name = input.required<string>();
  readonly archived = input<Archived>();
  /** True: into it. */
  readonly away = output<boolean>();
  protected readonly dateWords = dateWords;
}
