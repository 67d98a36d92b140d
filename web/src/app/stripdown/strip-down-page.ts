import { ChangeDetectionStrategy, Component, ElementRef, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { map, of, switchMap } from 'rxjs';
import { partWriteSchema, type Part, type StoredStripDown } from '@isometra/contract';
import { assemblyOf, freeNumber, inOrder, nextStep, placeBetween } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { useKeys } from '../data/keys';
import { Outbox } from '../data/outbox';
import type { Refused } from '../data/outbox-store';
import { Settings } from '../data/settings';
import { StripDowns } from '../data/strip-downs';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { meantFor } from '../ui/meant-for';
import { Notice } from '../ui/notice';
import { Assembly } from './assembly';
import { lengthIn, progressWords } from './part-words';
import { PartForm } from './part-form';
import { PartRows } from './part-rows';

/** What is taken apart: its parts in the order in which they came off, and played backwards for assembly. */
@Component({
  selector: 'iso-strip-down-page',
  imports: [RouterLink, Assembly, Button, Choices, Notice, PartForm, PartRows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown.alt.arrowup)': 'shift($event, -1)', '(document:keydown.alt.arrowdown)': 'shift($event, 1)' },
  templateUrl: './strip-down-page.html',
  styleUrl: './strip-down-page.css',
})
export class StripDownPage {
  readonly stripDownId = input.required<string>();
  /** The part that is open, by its id. */
  readonly part = input<string>();
  /** `assembly`: played backwards. */
  readonly way = input<string>();

  protected readonly desk = inject(MachineStore);
  private readonly store = inject(StripDowns);
  private readonly router = inject(Router);
  private readonly outbox = inject(Outbox);
  private readonly hand = inject(AtHand);
  private readonly settings = inject(Settings);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly problem = signal('');
  protected readonly loaded = signal(false);
  protected readonly ways = [
    { value: 'off', label: 'Strip-down' },
    { value: 'assembly', label: 'Assembly' },
  ];

  protected readonly machineId = computed(() => this.desk.machine()?.id ?? '');
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.store.of(id) : of([])))), {
    initialValue: [] as readonly StoredStripDown[],
  });
  protected readonly stripDown = computed(() => this.all().find(({ id }) => id === this.stripDownId()));
  protected readonly together = computed(() => this.way() === 'assembly');
  protected readonly parts = computed(() => inOrder(this.stripDown()?.parts ?? []));
  protected readonly steps = computed(() => assemblyOf(this.stripDown()?.parts ?? [], lengthIn(this.settings.shown())));
  protected readonly next = computed(() => nextStep(this.steps())?.part.id ?? null);
  protected readonly rows = computed(() => (this.together() ? this.steps().map(({ part }) => part) : this.parts()));
  /** The part that is open: of the whole list, so that a removed one can be put back. */
  protected readonly open = computed(() => this.stripDown()?.parts.find(({ id }) => id === this.part()) ?? null);
  protected readonly removed = computed(() => (this.stripDown()?.parts ?? []).filter((part) => part.removed));
  protected readonly progress = computed(() => progressWords(this.parts()));

  /** Parts that the server did not take: none is lost, and each is given up only when that is said. */
  protected readonly refused = toSignal(
    this.outbox.refused$.pipe(
      map((all) =>
        all.flatMap((entry) => {
          const part = entry.what === 'part' ? partWriteSchema.safeParse(entry.body).data : undefined;
          const free = entry.faults.find(({ path }) => path === 'number')?.example;
          return part
            ? [{ entry, part, free, why: entry.faults.map(({ message }) => message).join('; '), stale: entry.current !== undefined }]
            : [];
        }),
      ),
    ),
    { initialValue: [] },
  );
  protected readonly notTaken = computed(() => this.refused().filter(({ part }) => part.stripDownId === this.stripDownId()));

  constructor() {
    effect(() => {
      const id = this.machineId();
      if (!id) return;
      untracked(() =>
        this.store.load(id).subscribe({
          error: (failure: ApiFailure) => this.problem.set(failure.message),
          complete: () => this.loaded.set(true),
        }),
      );
    });
    effect(() => this.hand.doing.set(this.stripDown()?.name ?? 'Strip-down'));
    effect(() => {
      const open = this.open();
      this.hand.spot.set(open ? `part ${open.number}, ${String(open.details['name'])}` : '');
    });
    useKeys([
      { shown: '↑ ↓', does: 'go from part to part', keys: ['ArrowUp', 'ArrowDown'], repeats: true, run: (event) => this.step(event) },
      { shown: 'A', does: 'add a part', keys: ['a'], run: () => this.go({ part: null, way: null }) },
      { shown: 'B', does: 'strip-down or assembly', keys: ['b'], run: () => this.turn(this.together() ? 'off' : 'assembly') },
    ]);
  }

  protected go(queryParams: { readonly part?: string | null; readonly way?: string | null }): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected turn(way: string): void {
    this.go({ part: null, way: way === 'assembly' ? way : null });
  }

  private step(event: KeyboardEvent): boolean | void {
    const rows = this.rows();
    if (rows.length === 0) return false;
    const now = rows.findIndex(({ id }) => id === (this.part() ?? (this.together() ? this.next() : null)));
    const to = event.key === 'ArrowDown' ? now + 1 : now < 0 ? rows.length - 1 : now - 1;
    // Below the last part that came off there is the next one.
    if (to >= rows.length && !this.together()) return this.go({ part: null });
    this.go({ part: rows[Math.min(Math.max(to, 0), rows.length - 1)].id });
  }

  /** A part that came off before another one, or after it: its place changes, its number stays. */
  protected shift(event: Event, by: -1 | 1): void {
    const part = this.open();
    if (this.together() || !part || part.removed || !meantFor(this.host.nativeElement, event)) return;
    event.preventDefault();
    const others = this.parts().filter(({ id }) => id !== part.id);
    const at = this.parts().findIndex(({ id }) => id === part.id) + by;
    if (at < 0 || at > others.length) return;
    const place = placeBetween(others[at - 1]?.place, others[at]?.place);
    this.store.change(this.machineId(), part, { place }, `Part ${part.number} moved`);
  }

  protected putBack(part: Part): void {
    const taken = this.parts().some(({ number }) => number === part.number);
    const { removed: _removed, ...standing } = part;
    const change = { ...standing, removed: false, number: taken ? freeNumber(this.parts()) : part.number };
    this.store.change(this.machineId(), part, change, `Part ${part.number} put back`);
  }

  /** A part that was not taken is sent again: with the number that is free, or over what stands there now. */
  protected retake({ entry, part, free }: { readonly entry: Refused; readonly part: Part; readonly free?: string }): void {
    const version = partVersion(entry.current) ?? part.version;
    void this.outbox.retake(entry, { ...part, version, ...(free && { number: Number(free) }) });
  }

  protected giveUp(entry: Refused): void {
    void this.outbox.drop(entry);
  }
}

/** The version that stands where somebody else changed the same part. */
function partVersion(current: unknown): number | undefined {
  const { version } = (current ?? {}) as { readonly version?: unknown };
  return typeof version === 'number' ? version : undefined;
}
