import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { ApiFailure } from '../data/api';
import { StripDowns } from '../data/strip-downs';
import { Notice } from '../ui/notice';
import { NeedsList } from './needs-list';

/** What the parts of all machines need: one list of what must be cleaned, mended, made or ordered. */
@Component({
  selector: 'iso-needed-page',
  imports: [NeedsList, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Parts needed</h1>
    <iso-notice [text]="problem()" />
    @if (rows(); as known) {
      <iso-needs-list [rows]="known" />
      @if (known.length === 0) {
        <p>Nothing has to be cleaned, mended, made or ordered. Parts come into this list from the strip-down of a machine.</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      padding: 26px 32px 40px;
    }
  `,
})
export class NeededPage {
  private readonly store = inject(StripDowns);
  protected readonly problem = signal('');
  private readonly needed = toSignal(this.store.needed(), { initialValue: null });
  protected readonly rows = computed(
    () =>
      this.needed()?.map(({ machineId, machine, stripDown, part }) => ({ machineId, belongs: `${machine}, ${stripDown}`, part })) ?? null,
  );

  constructor() {
    this.store.loadNeeded().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }
}
