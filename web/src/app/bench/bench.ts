import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  type OnDestroy,
  type Type,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { readingValue } from '@isometra/core';
import type { ApiFailure } from '../data/api';
import { WayChart } from '../charts/way-chart';
import { Keys } from '../data/keys';
import { Rounds } from '../data/rounds';
import { AtHand } from '../shell/at-hand';
import { sketchOf, type SketchInputs, type SketchMark } from '../sketches/sketch';
import { Desk } from '../tailstock/desk';
import { AsSetUp } from './as-set-up';
import { BenchStore } from './bench-store';
import { benchKeys } from './bench-keys';
import { CallColumn } from './call-column';
import { ReadingPanel } from './reading-panel';
import { ReadingTable } from './reading-table';

/** The bench: where to put the indicator now, what it says, and the call. */
@Component({
  selector: 'iso-bench',
  imports: [NgComponentOutlet, RouterLink, AsSetUp, CallColumn, ReadingPanel, ReadingTable, WayChart],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.html',
  styleUrl: './bench.css',
})
export class Bench implements OnDestroy {
  readonly checkId = input.required<string>();
  readonly roundId = input.required<string>();

  protected readonly store = inject(BenchStore);
  protected readonly desk = inject(Desk);
  private readonly rounds = inject(Rounds);
  private readonly router = inject(Router);
  private readonly hand = inject(AtHand);
  private readonly injector = inject(Injector);
  private readonly panel = viewChild(ReadingPanel);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly table = signal(false);
  /** The set-up is shown in place of the readings, to be put right. */
  protected readonly asSetUp = signal(false);
  protected readonly problem = signal('');
  protected readonly sketch = signal<Type<unknown> | null>(null);
  private readonly releaseKeys: () => void;

  constructor() {
    toObservable(this.roundId)
      .pipe(
        switchMap((id) => this.rounds.one(id)),
        takeUntilDestroyed(),
      )
      .subscribe({ next: (round) => round && this.store.open(round), error: (failure: ApiFailure) => this.problem.set(failure.message) });
    this.rounds.refused.pipe(takeUntilDestroyed()).subscribe(({ message }) => this.problem.set(message));
    effect(() => {
      const id = this.checkId();
      untracked(() => this.sketch.set(null));
      void sketchOf(id).then((type) => this.sketch.set(type));
    });
    effect(() => {
      const [check, round] = [this.store.check(), this.store.round()];
      this.hand.doing.set(check && round ? `${check.title}, round ${round.number}` : '');
      this.hand.instrument.set(round?.instrumentName ?? '');
    });
    // The ladder follows every reading.
    effect(() => {
      const [round, { finding }] = [this.store.round(), this.store.solved()];
      if (round) untracked(() => this.desk.show({ ...round, finding }));
    });
    this.desk.inHand.set(true);
    this.releaseKeys = inject(Keys).use(
      benchKeys({
        step: (by) => this.store.step(by),
        repeat: () => this.store.repeatLast(),
        table: () => this.table.update((shown) => !shown),
        another: () => this.store.anotherSetUp(),
        asSetUp: () => this.asSetUp.update((shown) => !shown),
        move: () => this.toMove(),
        next: () => void this.router.navigate(['/machines', this.desk.machine()?.id, 'rounds', this.checkId()]),
        focus: () => this.panel()?.focus(),
      }),
    );
  }

  ngOnDestroy(): void {
    this.releaseKeys();
    this.desk.inHand.set(false);
    this.desk.refresh();
  }

  /** The size whose limit the profile is drawn in. */
  protected readonly straightness = computed(() => {
    const [check, quantities] = [this.store.check(), this.store.solved().finding?.quantities ?? {}];
    return Object.entries(quantities).find(([name, { limit }]) => limit && check?.quantities[name].magnitude)?.[1];
  });

  protected readonly sketchInputs = computed((): Record<keyof SketchInputs, unknown> => {
    const quantities = this.store.solved().finding?.quantities ?? {};
    return {
      setup: this.store.setup(),
      marks: this.marks(),
      result: {
        offsetHorizontal: quantities['offsetHorizontal']?.value ?? null,
        offsetVertical: quantities['offsetVertical']?.value ?? null,
        out: Object.values(quantities).some((quantity) => quantity.verdict === 'out'),
      },
      pick: (index: number) => this.store.choose(index),
    };
  });

  private readonly marks = computed((): SketchMark[] => {
    const current = this.store.current();
    const kind = this.store.valueKind();
    return this.store
      .slots()
      .filter((slot) => !slot.closing)
      .map((slot) => {
        const last = slot.readings.at(-1);
        const parsed = last && readingValue(last.value, kind, this.store.instrument());
        const next = current !== undefined && JSON.stringify(slot.keys) === JSON.stringify(current.keys);
        return {
          index: slot.index,
          keys: slot.keys,
          label: slot.label,
          state: next ? 'next' : slot.done ? 'read' : 'todo',
          text: last ? String(last.value) : '',
          deviation: parsed?.ok ? parsed.value : null,
        };
      });
  });

  /** Take the reading; how long the call takes to be on the screen is measured. */
  protected take(): void {
    performance.mark('isometra:take');
    if (!this.store.take()) return this.panel()?.focus();
    afterNextRender(
      {
        read: () => {
          performance.measure('isometra:call', 'isometra:take');
          this.panel()?.focus();
        },
      },
      { injector: this.injector },
    );
    return undefined;
  }

  private toMove(): boolean {
    const [first] = this.store.solved().finding?.moves ?? [];
    if (!first) return false;
    void this.router.navigate(['/machines', this.desk.machine()?.id, 'move', this.roundId(), first.quantity]);
    return true;
  }

  /** Left to the column: on a narrow screen it lies below. */
  protected showCall(): void {
    this.host.nativeElement.querySelector('iso-call-column')?.scrollIntoView({ block: 'start' });
  }
}
