import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { sizesIn } from '@isometra/core';
import { entryWords, standing } from '@isometra/work';
import { Settings } from '../data/settings';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { timeWords } from '../data/when';

type Grade = Extract<DeskEntry, { readonly kind: 'pass' }>['content']['grade'];

/** A pass that was made before something that is written down, and was not written down itself. */
export interface Forgotten {
  /** The entry that came after it. */
  readonly id: string;
  readonly zone: string;
  readonly grade: Grade;
}

const GRADES: readonly Choice<Grade>[] = [
  { value: 'rough', label: 'roughing' },
  { value: 'fine', label: 'finishing' },
];

/** So many of the newest are listed: months are in the logbook. */
const LISTED = 60;

/** What was written down at a face, newest first: anything can be put right the next day by taking it back. */
@Component({
  selector: 'iso-written-down',
  imports: [Button, Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (entry of entries(); track entry.id) {
        <li>
          <span class="when">{{ entry.when }}, {{ entry.by }}</span>
          <span>{{ entry.text }}</span>
          <span class="ways">
            <button pButton type="button" class="plain" [attr.aria-label]="'Undo: ' + entry.text" (click)="takenBack.emit(entry.id)">
              undo
            </button>
            <button
              pButton
              type="button"
              class="plain"
              [attr.aria-label]="'A pass was forgotten before: ' + entry.text"
              [attr.aria-expanded]="before() === entry.id"
              (click)="before.set(before() === entry.id ? '' : entry.id)"
            >
              forgot a pass before it
            </button>
          </span>
          @if (before() === entry.id) {
            <p class="forgotten">
              <iso-choices label="Zone of the forgotten pass" [options]="zones()" [value]="zone()" (chosen)="zone.set($any($event))" />
              <iso-choices label="The forgotten pass was" [options]="grades" [value]="grade()" (chosen)="grade.set($any($event))" />
              <button pButton type="button" class="next" (click)="put(entry.id)">Put it in before</button>
            </p>
          }
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
      grid-template-columns: 150px minmax(0, 1fr) max-content;
      gap: 12px;
      align-items: baseline;
      padding: 4px 0;
      border-top: 1px solid var(--line);
    }
    .ways {
      display: flex;
      gap: 8px;
    }
    .forgotten {
      display: flex;
      flex-wrap: wrap;
      grid-column: 1 / -1;
      gap: 8px;
      align-items: center;
      margin: 0;
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
  readonly putBefore = output<Forgotten>();

  private readonly settings = inject(Settings);
  /** The entry before which a pass was forgotten. */
  protected readonly before = signal('');
  protected readonly zone = signal('');
  protected readonly grades = GRADES;
  protected readonly grade = signal<Grade>('rough');
  protected readonly zones = computed((): readonly Choice<string>[] =>
    this.surface()
      .zones.filter(({ use }) => use !== 'ignore')
      .map(({ id }) => ({ value: id, label: id })),
  );

  protected put(id: string): void {
    if (!this.zone()) return;
    this.putBefore.emit({ id, zone: this.zone(), grade: this.grade() });
    this.before.set('');
  }

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
