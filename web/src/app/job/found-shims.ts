import { ChangeDetectionStrategy, Component, computed, effect, inject, input, untracked } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import type { ShimJoint, StoredStripDown } from '@isometra/contract';
import { foundShims, shimWords } from '@isometra/work';
import { Settings } from '../data/settings';
import { StripDowns } from '../data/strip-downs';
import { dateWords } from '../data/when';
import { lengthIn } from '../stripdown/part-words';

/** Shims that were found in the joint of a move when it was taken apart: what lies there already, or did. Nothing where none is known. */
@Component({
  selector: 'iso-found-shims',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (found().length) {
      <section aria-label="Shims found there">
        <p><b>Found in this joint when it was taken apart.</b> Shims that moves laid in or took out since are not counted here.</p>
        <ul>
          @for (one of found(); track $index) {
            <li>
              {{ one.words }}
              <a class="soft" [routerLink]="['/machines', machineId(), 'parts', one.stripDownId]" [queryParams]="{ part: one.partId }">{{
                one.where
              }}</a>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      padding: 10px 16px;
      border-left: 4px solid var(--blue);
      background: var(--panel);
    }
    p,
    ul {
      margin: 0;
    }
    ul {
      padding-left: 18px;
    }
  `,
})
export class FoundShims {
  readonly machineId = input.required<string>();
  readonly joint = input.required<ShimJoint>();
  private readonly store = inject(StripDowns);
  private readonly settings = inject(Settings);
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => this.store.of(id))), {
    initialValue: [] as readonly StoredStripDown[],
  });
  protected readonly found = computed(() =>
    foundShims(this.all(), this.joint()).map(({ shim, part, stripDown }) => ({
      words: `${shimWords(shim, lengthIn(this.settings.shown()))}${shim.at === undefined ? ', corner not known' : ''}`,
      ...{ partId: part.id, stripDownId: stripDown.id },
      where: `part ${part.number}, ${String(part.details['name'])}, ${dateWords(stripDown.begunAt)}`,
    })),
  );

  constructor() {
    effect(() => {
      const id = this.machineId();
      // Without the server nothing is known of it; the card stands all the same.
      untracked(() => this.store.load(id).subscribe({ error: () => undefined }));
    });
  }
}
