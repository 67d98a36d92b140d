import { ChangeDetectionStrategy, Component, type ElementRef, computed, inject, input, output, viewChild } from '@angular/core';
import type { Support } from '@isometra/core';
import type { Casting } from '@isometra/contract';
import { Settings } from '../data/settings';
import { bothUnits, isZero } from '../ui/say';

/** A face on the footprint: where it is drawn and what is to be done to it. */
interface Face {
  readonly support: Support;
  readonly x: number;
  readonly y: number;
  /** Height of its bar in the drawing, units; 0 when it is left. */
  readonly bar: number;
  readonly scraped: boolean;
  readonly words: string;
  /** Which way it faces in plan, for a flank; null when it lies flat. */
  readonly turn: number | null;
}

const WIDTH = 640;
const HEIGHT = 330;
const MARGIN = 70;
const STEP = 5;
const MOST_BAR = 46;

/** Index of the axes drawn to the right and down: a lathe's z and h, a mill's x and −y (the operator is below in both). */
const PLAN = { lathe: { right: 0, down: 2, sign: 1 }, mill: { right: 0, down: 1, sign: -1 } } as const;

/** The faces that a casting sits on, from above; they can be dragged, and show what is to be done to each. */
@Component({
  selector: 'iso-footprint',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg #drawing [attr.viewBox]="'0 0 ' + width + ' ' + height" role="group" aria-label="Footprint from above">
      <rect class="casting" [attr.x]="body().x" [attr.y]="body().y" [attr.width]="body().width" [attr.height]="body().height" />
      <text class="words" [attr.x]="width / 2" [attr.y]="height - 8" text-anchor="middle">operator</text>
      <text class="words" x="8" y="18">
        {{ casting().name }}, from above{{ casting().frame === 'lathe' ? '; tailstock to the right' : '' }}
      </text>
      @for (point of watched(); track point.id) {
        <g class="watch" [attr.transform]="'translate(' + point.x + ' ' + point.y + ')'">
          <path d="M-7 0H7M0 -7V7" />
          <text x="10" y="-6">{{ point.id }}</text>
        </g>
      }
      @for (face of faces(); track face.support.id) {
        <g
          class="face"
          [class.on]="face.support.id === selected()"
          [attr.transform]="'translate(' + face.x + ' ' + face.y + ')'"
          tabindex="0"
          role="button"
          [attr.aria-label]="face.support.id + ': ' + face.words"
          (pointerdown)="grab($event, face)"
          (pointermove)="drag($event)"
          (pointerup)="drop()"
          (pointercancel)="drop()"
          (focus)="picked.emit(face.support.id)"
          (keydown)="key($event, face)"
        >
          <rect class="pad" x="-11" y="-8" width="22" height="16" />
          @if (face.turn !== null) {
            <path class="flank" d="M0 0V-16M-4 -11 0 -16 4 -11" [attr.transform]="'rotate(' + face.turn + ')'" />
          }
          @if (face.bar) {
            <rect
              [class]="face.scraped ? 'cut' : 'shim'"
              x="14"
              width="9"
              [attr.y]="face.scraped ? 0 : -face.bar"
              [attr.height]="face.bar"
            />
          }
          @if (face.words) {
            <text class="amount" [attr.x]="face.bar ? 27 : 15" y="5">{{ face.words }}</text>
          }
        </g>
      }
    </svg>
  `,
  styleUrl: './footprint.css',
})
export class Footprint {
  readonly casting = input.required<Casting>();
  /** µm per face: + shim, − scrape. */
  readonly amounts = input<Readonly<Record<string, number>>>({});
  readonly selected = input<string | null>(null);
  readonly picked = output<string>();
  readonly moved = output<{ readonly id: string; readonly at: [number, number, number] }>();
  private readonly settings = inject(Settings);
  private readonly drawing = viewChild.required<ElementRef<SVGSVGElement>>('drawing');
  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  private grabbed: { readonly id: string; readonly dx: number; readonly dy: number } | null = null;

  /** From mm in the plan to the drawing. */
  private readonly scale = computed(() => {
    const { frame, supports, watch } = this.casting();
    const { right, down, sign } = PLAN[frame];
    const points = [...supports, ...watch].map(({ at }) => [at[right], sign * at[down]]);
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    const spread = Math.max(Math.max(...xs) - left, 1) / (WIDTH - 2.6 * MARGIN);
    const perUnit = Math.max(spread, Math.max(Math.max(...ys) - top, 1) / (HEIGHT - 2 * MARGIN));
    // What is left of the drawing is shared to both sides.
    const spare = WIDTH - 2.6 * MARGIN - (Math.max(...xs) - left) / perUnit;
    return { left, top, perUnit, right, down, sign, indent: MARGIN + Math.max(0, spare / 2) };
  });

  private place(at: readonly number[]): { x: number; y: number } {
    const { left, top, perUnit, right, down, sign, indent } = this.scale();
    return { x: indent + (at[right] - left) / perUnit, y: MARGIN + (sign * at[down] - top) / perUnit };
  }

  protected readonly faces = computed((): Face[] => {
    const amounts = this.amounts();
    const largest = Math.max(1e-9, ...Object.values(amounts).map(Math.abs));
    const shown = this.settings.shown();
    const { right, down, sign } = PLAN[this.casting().frame];
    return this.casting().supports.map((support) => {
      const amount = amounts[support.id] ?? 0;
      const size = bothUnits(amount, 'deviation', shown, 1).large;
      const left = isZero(size);
      const [nx, ny] = [support.normal[right], sign * support.normal[down]];
      const flat = Math.hypot(nx, ny) < 0.1;
      return {
        support,
        ...this.place(support.at),
        bar: left ? 0 : Math.max(3, (MOST_BAR * Math.abs(amount)) / largest),
        scraped: amount < 0,
        words: support.id in amounts ? (left ? 'leave' : `${amount < 0 ? 'scrape' : 'shim'} ${size}`) : '',
        turn: flat ? null : (Math.atan2(nx, -ny) * 180) / Math.PI,
      };
    });
  });
  protected readonly watched = computed(() => this.casting().watch.map(({ id, at }) => ({ id, ...this.place(at) })));
  protected readonly body = computed(() => {
    const [xs, ys] = [this.faces().map((face) => face.x), this.faces().map((face) => face.y)];
    const [x, y] = [Math.min(...xs) - 24, Math.min(...ys) - 22];
    return { x, y, width: Math.max(...xs) + 24 - x, height: Math.max(...ys) + 22 - y };
  });

  /** Where the pointer is, in the drawing's units. */
  private pointer(event: PointerEvent): { x: number; y: number } {
    const box = this.drawing().nativeElement.getBoundingClientRect();
    return { x: ((event.clientX - box.left) * WIDTH) / box.width, y: ((event.clientY - box.top) * HEIGHT) / box.height };
  }

  protected grab(event: PointerEvent, face: Face): void {
    const { x, y } = this.pointer(event);
    this.grabbed = { id: face.support.id, dx: face.x - x, dy: face.y - y };
    (event.currentTarget as Element).setPointerCapture?.(event.pointerId);
    this.picked.emit(face.support.id);
  }

  protected drag(event: PointerEvent): void {
    const grabbed = this.grabbed;
    const support = this.casting().supports.find((entry) => entry.id === grabbed?.id);
    if (!grabbed || !support) return;
    const { x, y } = this.pointer(event);
    const { left, top, perUnit, right, down, sign, indent } = this.scale();
    const at: [number, number, number] = [...support.at];
    // To the millimetre: nobody measures a footprint finer.
    at[right] = Math.round(left + (x + grabbed.dx - indent) * perUnit);
    at[down] = sign * Math.round(top + (y + grabbed.dy - MARGIN) * perUnit);
    this.moved.emit({ id: support.id, at });
  }

  protected drop(): void {
    this.grabbed = null;
  }

  protected key(event: KeyboardEvent, { support }: Face): void {
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const way = ways[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const { right, down, sign } = this.scale();
    const at: [number, number, number] = [...support.at];
    at[right] += way[0];
    at[down] += sign * way[1];
    this.moved.emit({ id: support.id, at });
  }
}
