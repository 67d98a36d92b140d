import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { sizesIn } from '@isometra/core';
import { entryWords, standing } from '@isometra/work';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { timeWords } from '../data/when';

/** So many of the newest are listed: months are in the logbook. */
const LISTED = 60;

/** What was written down at a face, newest first: anything can be put right the next day by taking it back. */
@Component({
  selector: 'iso-written-down',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (entry of entries(); track entry.id) {
        <li>
          <span class="when">{{ entry.when }}, {{ entry.by }}</span>
          <span>{{ entry.text }}</span>
          <button pButton type="button" class="plain" [attr.aria-label]="'Undo: ' + entry.text" (click)="takenBack.emit(entry.id)">
            undo
          </button>
        </li>
      } @empty {
        <li>Nothing has been written down yet.</li>
      }
    </ol>
  `,
  styles: `
    ol {
      display: grid;
      gap: 2px;
      max-height: 56vh;
      margin: 0;
      padding: 0;
      overflow: auto;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 150px 1fr max-content;
      gap: 12px;
      align-items: baseline;
      padding: 4px 0;
      border-top: 1px solid var(--line);
    }
    .when {
      color: var(--soft);
      font-size: 0.875rem;
    }
  `,
})
export class WrittenDown {
  readonly surface = input.required<Surface & { readonly entries: readonly DeskEntry[] }>();
  /** The id of the entry. */
  readonly takenBack = output<string>();

  private readonly settings = inject(Settings);

  protected readonly entries = computed(() =>
    standing(this.surface().entries)
      .slice(-LISTED)
      .reverse()
      .map((entry) => ({
        id: entry.id,
        by: entry.by,
        when: timeWords(entry.at),
        text: entryWords(entry, this.surface().aim?.unit ?? '', sizesIn(this.settings.shown())),
      })),
  );
}
