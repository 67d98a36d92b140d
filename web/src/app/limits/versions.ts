import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { lineName, type LimitSheet } from '@isometra/core';
import type { StoredLimitSheet } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Limits } from '../data/limits';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';
import { dateWords } from '../data/when';

/** Every version of a sheet, newest first, with what each changed; an old one can be brought back as a new one. */
@Component({
  selector: 'iso-versions',
  imports: [Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>No version is ever changed: surveys were judged by them.</p>
    <iso-notice [text]="problem()" />
    <ol>
      @for (entry of told(); track entry.version) {
        <li>
          <b>Version {{ entry.version }}</b>
          <span class="soft">{{ entry.when }}, {{ entry.by }}</span>
          <span>{{ entry.changed }}</span>
          @if (!entry.newest) {
            <button
              pButton
              type="button"
              class="plain"
              [attr.aria-label]="'Restore version ' + entry.version"
              (click)="back.emit(entry.content)"
            >
              restore
            </button>
          }
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    ol {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 7em 12em 1fr auto;
      gap: 14px;
      align-items: center;
      min-height: 40px;
      border-top: 1px solid var(--line);
    }
  `,
})
export class Versions {
  readonly sheetId = input.required<string>();
  /** The newest version that is known: when it grows the list is read again. */
  readonly newest = input.required<number>();
  readonly back = output<LimitSheet>();
  private readonly store = inject(Limits);
  private readonly versions = signal<readonly StoredLimitSheet[]>([]);
  protected readonly problem = signal('');

  constructor() {
    effect(() => {
      const [id] = [this.sheetId(), this.newest()];
      untracked(() =>
        this.store.versions(id).subscribe({
          next: (versions) => this.versions.set(versions),
          error: (failure: ApiFailure) => this.problem.set(failure.message),
        }),
      );
    });
  }

  protected readonly told = computed(() =>
    this.versions().map(({ version, by, at, content }, i, all) => ({
      version,
      by,
      content,
      newest: i === 0,
      when: dateWords(at),
      changed: i === all.length - 1 ? `${content.lines.length} lines` : changes(all[i + 1].content, content),
    })),
  );
}

/** What one version changed of the one before it. */
function changes(before: LimitSheet, after: LimitSheet): string {
  const known = new Map(before.lines.map((line) => [lineName(line), JSON.stringify(line)]));
  const names = new Set(after.lines.map(lineName));
  const added = after.lines.filter((line) => !known.has(lineName(line))).length;
  const changed = after.lines.filter((line) => known.has(lineName(line)) && known.get(lineName(line)) !== JSON.stringify(line)).length;
  const gone = before.lines.filter((line) => !names.has(lineName(line))).length;
  const parts = [
    before.name === after.name ? '' : `called “${after.name}”`,
    changed ? `${changed} changed` : '',
    added ? `${added} added` : '',
    gone ? `${gone} taken out` : '',
  ].filter(Boolean);
  return parts.join(', ') || 'nothing changed';
}
