import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { type Picture, sentence, sizesIn } from '@isometra/core';
import { DrawingOut } from '../drawings/drawing-out';
import { Settings } from '../data/settings';
import { DragPlaces, placeFor, type Placed } from './drag-places';
import { faultWords, keyOf } from '@isometra/work';
import { readingSchema } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { timeWords } from '../data/when';
import { WayChart } from '../charts/way-chart';
import { useKeys } from '../data/keys';
import type { Refused } from '../data/outbox-store';
import { AtHand } from '../shell/at-hand';
import { resultOf, thinned, type MethodInputs, type MethodMark } from '@isometra/work/methods';
import { ClearLabels } from '../sketches/clear-labels';
import { MethodDrawing } from '../sketches/method-drawing';
import { MachineStore } from '../machine/machine-store';
import { AsSetUp } from './as-set-up';
import { BenchStore } from './bench-store';
import { benchKeys } from './bench-keys';
import { CallColumn } from './call-column';
import { CallLine } from './call-line';
import { PutDateRight } from './redate';
import { ReadingPanel } from './reading-panel';
import { Struck } from './struck';
import { ReadingTable } from './reading-table';
import { afterFrame } from '../ui/after-frame';
import { Button } from '../ui/controls';
import { giveJson } from '../ui/give-file';
import { Notice } from '../ui/notice';

const sameMark = (one: MethodMark, other: MethodMark): boolean =>
  one.index === other.index &&
  one.label === other.label &&
  one.state === other.state &&
  one.text === other.text &&
  one.deviation === other.deviation &&
  keyOf(one.keys) === keyOf(other.keys);

/** The bench: where to put the indicator now, what it says, and the call. */
@Component({
  selector: 'iso-bench',
  imports: [
    DrawingOut,
    ClearLabels,
    DragPlaces,
    MethodDrawing,
    RouterLink,
    AsSetUp,
    CallColumn,
    CallLine,
    PutDateRight,
    Struck,
    ReadingPanel,
    ReadingTable,
    WayChart,
    Button,
    Notice,
  ],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.html',
  styleUrl: './bench.css',
})
export class Bench implements OnDestroy {
  readonly checkId = input.required<string>();
  readonly roundId = input.required<string>();

  protected readonly store = inject(BenchStore);
  protected readonly machineStore = inject(MachineStore);
  protected readonly settings = inject(Settings);
  private readonly router = inject(Router);
  private readonly hand = inject(AtHand);
  private readonly app = inject(ApplicationRef);
  private readonly panel = viewChild(ReadingPanel);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly table = signal(false);
  /** The set-up is shown in place of the readings, to be put right. */
  protected readonly asSetUp = signal(false);
  protected readonly problem = signal('');
  protected readonly faultWords = faultWords;
  protected readonly time = timeWords;

  constructor() {
    effect((onCleanup) => {
      const id = this.roundId();
      const parts = untracked(() => {
        this.problem.set('');
        const opening = this.store.open(id).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
        return [opening, this.store.follow(id)];
      });
      onCleanup(() => parts.forEach((part) => part.unsubscribe()));
    });
    effect(() => {
      const [check, round] = [this.store.check(), this.store.round()];
      this.hand.doing.set(check && round ? `${check.title}, round ${this.machineStore.number(round)}` : '');
      this.hand.instrument.set(round?.instrumentName ?? '');
    });
    effect((onCleanup) => {
      const place = this.store.current();
      this.hand.spot.set(place ? sentence(place.label, sizesIn(this.settings.shown())) : '');
      onCleanup(() => this.hand.spot.set(''));
    });
    // The ladder follows every reading, once the call is on the screen.
    effect((onCleanup) => {
      const [round, solved, sheet] = [this.store.round(), this.store.solved(), this.store.sheet()];
      onCleanup(afterFrame(() => round && this.machineStore.show(round, solved, sheet)));
    });
    this.machineStore.inHand.set(true);
    useKeys(
      benchKeys({
        step: (by) => this.store.step(by),
        repeat: () => this.store.repeatLast(),
        table: () => this.table.update((shown) => !shown),
        another: () => this.store.anotherSetUp(),
        asSetUp: () => this.asSetUp.update((shown) => !shown),
        move: () => this.toMove(),
        next: () => void this.router.navigate(['/machines', this.machineStore.machine()?.id, 'rounds', this.checkId()]),
        focus: () => this.panel()?.focus(),
      }),
    );
  }

  ngOnDestroy(): void {
    this.machineStore.inHand.set(false);
  }

  protected readonly profile = this.store.afterCall(() => this.store.profile());
  /** The size whose limit the profile is drawn in. */
  protected readonly straightness = this.store.afterCall(() => {
    const [check, quantities] = [this.store.check(), this.store.solved().finding?.quantities ?? {}];
    return Object.entries(quantities).find(([name, { limit }]) => limit && check?.quantities[name].magnitude)?.[1];
  });

  /** The drawing follows the call by a frame: of very many places it costs more than the call itself. */
  protected readonly sketchInputs = this.store.afterCall((): MethodInputs => {
    const quantities = this.store.solved().finding?.quantities ?? {};
    const picture: Picture = this.store.check()?.picture ?? { drawing: 'places' };
    return {
      setup: this.store.setup(),
      marks: this.marks(),
      picture,
      result: resultOf(picture, quantities),
    };
  });

  /** The round as a sheet file, as it stands here: readings that are still on their way to the shop belong to it. */
  protected saveSheet(): void {
    const sheet = this.store.sheet();
    if (sheet) giveJson(`${this.checkId()}.json`, sheet);
  }

  /** A part of the set-up is clicked on the drawing. */
  protected readonly set = (part: Readonly<Record<string, unknown>>): void => {
    const round = this.store.round();
    if (!round) return;
    this.store
      .change(round, { setup: { ...round.setup, ...part } })
      .subscribe({ error: (failure: ApiFailure) => this.store.fault.set(failure.message) });
  };
  protected readonly pick = (index: number): void => this.store.choose(index);

  /** The places as marks. One that is as it was stays the same object: of hundreds only the changed ones are drawn again. */
  private readonly marks = linkedSignal<readonly MethodMark[], readonly MethodMark[]>({
    source: () => this.freshMarks(),
    computation: (fresh, before) => {
      const byIndex = new Map((before?.value ?? []).map((mark) => [mark.index, mark]));
      return fresh.map((mark) => {
        const old = byIndex.get(mark.index);
        return old && sameMark(old, mark) ? old : mark;
      });
    },
  });

  /** Places that are drawn: of very many only as many as can be told apart. */
  private readonly places = computed(() => this.store.slots().filter((slot) => !slot.closing));
  private readonly drawn = computed(() => {
    const current = this.store.current();
    return thinned(this.places(), current ? this.places().findIndex(({ index }) => index === current.index) : -1);
  });
  protected readonly left = this.store.afterCall(() => this.places().length - this.drawn().length);

  private freshMarks(): MethodMark[] {
    const current = this.store.current();
    const nextKey = current && keyOf(current.keys);
    const size = sizesIn(this.settings.shown());
    return this.drawn().map(({ index, keys, label, done, readings }) => {
      const last = readings.at(-1);
      return {
        index,
        keys,
        label: sentence(label, size),
        state: keyOf(keys) === nextKey ? 'next' : done ? 'read' : 'todo',
        text: last ? this.store.toldBy(last) : '',
        deviation: last ? this.store.deviationOf(last) : null,
      };
    });
  }

  /** Take the reading; how long the call takes to be painted on the screen is measured. */
  protected take(): void {
    const taken = performance.mark('isometra:take').startTime;
    this.store.takeAndCall(
      // At once, not when the scheduler next comes round: the hand looks up as soon as the key is down.
      () => this.app.tick(),
      () => performance.measure('isometra:call', { start: taken }),
    );
    this.panel()?.focus();
  }

  /** What was refused, and why. */
  protected refusedText({ body, faults }: Refused): string {
    const value = readingSchema.safeParse(body).data?.value ?? '';
    return `The reading ${value} was not taken: ${faults.map(({ message }) => message).join('; ')}.`;
  }

  /** A mark was dragged along its part: the place is where it was let go, to the millimetre or the sixteenth. */
  protected drop({ index, from, x, y }: { index: number; from: DOMRect; x: number; y: number }): void {
    const slots = this.store.slots();
    const slot = slots[index];
    const middle = (box: DOMRect) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });
    const row = [...this.host.nativeElement.querySelectorAll<SVGGElement>('.sketch [data-mark]')].flatMap((mark): Placed[] => {
      const other = slots[Number(mark.dataset['mark'])];
      const like = other && slot && other.movable === slot.movable && other.keys['plane'] === slot.keys['plane'];
      return like && typeof other.keys['at'] === 'number'
        ? [{ index: other.index, ...middle(mark.getBoundingClientRect()), at: other.keys['at'] }]
        : [];
    });
    const start = middle(from);
    const at = placeFor(row, { x: start.x + x, y: start.y + y });
    if (!slot?.movable || at === undefined) return;
    const step = this.settings.system() === 'mm' ? 1 : 25.4 / 16;
    this.store.placeAt(slot, Number((Math.round(at / step) * step).toFixed(3)));
  }

  private toMove(): boolean {
    const first = this.store.firstMove();
    if (!first) return false;
    void this.router.navigate(['/machines', this.machineStore.machine()?.id, 'move', this.roundId(), first.quantity]);
    return true;
  }

  /** Left to the column: on a narrow screen it lies below. */
  protected showCall(): void {
    this.host.nativeElement.querySelector('iso-call-column')?.scrollIntoView({ block: 'start' });
  }
}
