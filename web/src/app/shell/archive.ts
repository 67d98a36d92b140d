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
      <button pButton type="button" [attr.aria-label]="'Take ' + name() + ' out of the archive'" (click)="away.emit(false)">
        Take it out again
      </button>
    } @else {
      <button pButton type="button" class="plain" [attr.aria-label]="'Put ' + name() + ' in the archive'" (click)="away.emit(true)">
        put in the archive
      </button>
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
