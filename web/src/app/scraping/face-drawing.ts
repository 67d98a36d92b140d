import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Surface } from '@isometra/contract';
import { middleOf, type DeskZone } from '@isometra/work';
import { faceSize, onItsSide, placeOn, toneOf } from './face-place';
import { ZoneStroke, type Stroke } from './zone-stroke';

/** Room that a face is drawn in, px of the drawing. */
const ROOM = { wide: { width: 840, height: 400 }, narrow: { width: 372, height: 300 } } as const;
const NARROW = '(max-width: 820px)';
/** The least that a pad is tall or wide, px: a thumb with oil on it. */
const PAD = 64;
/** A narrow way is drawn so tall at least, px. */
const TALL = 190;

interface Pad {
  readonly id: string;
  readonly points: string;
  readonly x: number;
  readonly y: number;
  readonly left: string;
  readonly tone: number;
  readonly use: Surface['zones'][number]['use'];
  readonly now: boolean;
  readonly name: string;
}

/** A tenth of a millimetre is as fine as a hand draws. */
const round = (mm: number): number => Math.round(10 * mm) / 10;

/** A face as it lies on the bench, its zones as large pads: a touch is one pass. */
@Component({
  selector: 'iso-face-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #sheet
      [class.drawing]="drawing()"
      (pointerdown)="begin($event)"
      (pointermove)="draw($event)"
      (pointerup)="end()"
      (pointercancel)="stroke.drop()"
      [style.min-width.px]="narrowWidth()"
      [attr.viewBox]="'0 0 ' + box().width + ' ' + box().height"
      role="group"
      [attr.aria-label]="'The face: ' + surface().name"
    >
      <defs>
        <pattern
          id="strokes"
          width="14"
          height="14"
          patternUnits="userSpaceOnUse"
          [attr.patternTransform]="'rotate(' + -shownAngle() + ')'"
        >
          <rect width="14" height="14" fill="var(--yellow)" />
          <line x1="0" y1="7" x2="14" y2="7" stroke="var(--ink)" stroke-width="1.6" stroke-opacity="0.42" />
        </pattern>
      </defs>
      @for (pad of pads(); track pad.id) {
        <g
          class="pad"
          [class.now]="pad.now"
          [class.ignored]="pad.use === 'ignore'"
          tabindex="0"
          role="button"
          [attr.aria-label]="pad.name"
          (click)="touch(pad.id)"
          (keydown.enter)="worked.emit(pad.id)"
        >
          <polygon [attr.points]="pad.points" [attr.fill]="pad.now ? 'url(#strokes)' : 'var(--paper)'" />
          @if (!pad.now && pad.tone > 0) {
            <polygon class="tone" [attr.points]="pad.points" [attr.fill-opacity]="pad.tone" />
          }
          @if (pad.now) {
            <circle [attr.cx]="pad.x" [attr.cy]="pad.y - 8" r="29" fill="var(--yellow)" />
          }
          <text class="left" [class.light]="pad.tone > 0.7 && !pad.now" [attr.x]="pad.x" [attr.y]="pad.y + 4">{{ pad.left }}</text>
          <text class="id" [class.light]="pad.tone > 0.7 && !pad.now" [attr.x]="pad.x" [attr.y]="pad.y + 27">
            {{ pad.use === 'relieve' ? pad.id + ', low' : pad.id }}
          </text>
        </g>
      }
      @if (stroke.shown(); as points) {
        <polygon class="stroke" [attr.points]="points" />
      }
      @for (end of ends(); track end.name) {
        <text class="end" [attr.x]="end.x" [attr.y]="end.y" [style.text-anchor]="end.anchor">{{ end.name }}</text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      overflow-x: auto;
    }
    svg {
      display: block;
      width: 100%;
      max-height: 46vh;
    }
    polygon {
      stroke: var(--ink);
      stroke-width: 1.4;
      vector-effect: non-scaling-stroke;
    }
    .drawing {
      touch-action: none;
    }
    .drawing .pad {
      cursor: crosshair;
    }
    .stroke {
      fill: none;
      stroke: var(--blue);
      stroke-width: 3;
      pointer-events: none;
    }
    .tone {
      fill: var(--blue);
    }
    .pad {
      cursor: pointer;
      outline: none;
    }
    .pad:focus-visible polygon {
      stroke: var(--blue);
      stroke-width: 4;
    }
    .ignored polygon {
      stroke-dasharray: 5 4;
    }
    text {
      text-anchor: middle;
      fill: var(--ink);
      pointer-events: none;
    }
    .left {
      font: 600 40px/1 var(--figures);
    }
    .id {
      font: 600 15px/1 var(--narrow);
    }
    .light {
      fill: var(--paper);
    }
    .end {
      font: 500 15px/1 var(--narrow);
    }
  `,
})
export class FaceDrawing {
  readonly surface = input.required<Surface>();
  readonly zones = input.required<readonly DeskZone[]>();
  /** The zone to work now. */
  readonly next = input<string | null>(null);
  /** Whether zones may be drawn on it: a stroke round a part of it is one. */
  readonly drawing = input(false);
  readonly worked = output<string>();
  readonly outlined = output<Stroke>();
  /** How wide the face is drawn along its length, px; null where it lies on its side. */
  readonly drawnWidth = output<number | null>();
  private readonly sheet = viewChild.required<ElementRef<SVGSVGElement>>('sheet');
  protected readonly stroke = new ZoneStroke();

  private readonly narrow = signal(matchMedia(NARROW).matches);
  private readonly room = computed(() => ROOM[this.narrow() ? 'narrow' : 'wide']);

  constructor() {
    const media = matchMedia(NARROW);
    const heard = () => this.narrow.set(media.matches);
    media.addEventListener('change', heard);
    const sized = new ResizeObserver(() => this.drawnWidth.emit(this.measured()));
    afterNextRender(() => sized.observe(this.sheet().nativeElement));
    inject(DestroyRef).onDestroy(() => {
      media.removeEventListener('change', heard);
      sized.disconnect();
    });
  }

  private measured(): number | null {
    const { clientWidth, clientHeight } = this.sheet().nativeElement;
    const { width, height } = this.box();
    return this.side() ? null : Math.min(clientWidth, (clientHeight * width) / height);
  }

  private readonly side = computed(() => onItsSide(this.surface()));
  /** px of the drawing to one mm. */
  private readonly scale = computed(() => {
    const { width, height, zones } = this.surface();
    const [w, h] = this.side() ? [height, width] : [width, height];
    const room = this.room();
    const least =
      PAD /
      Math.max(1, Math.min(...zones.map(({ outline }) => Math.max(...outline.map(({ x }) => x)) - Math.min(...outline.map(({ x }) => x)))));
    // On a phone a pad is never less than a thumb: the face is then wider than the screen, and moved under the finger.
    const fits = Math.max(Math.min(room.width / w, room.height / h), this.side() ? 0 : Math.min(least, 4 * (room.width / w)));
    // Pads are large before the face is in proportion: a narrow way is drawn wider than it is.
    const sizes = zones.map(({ outline }) => Math.max(...outline.map(({ y }) => y)) - Math.min(...outline.map(({ y }) => y)));
    const across = Math.max(fits, Math.min(Math.max(PAD / Math.max(1, Math.min(...sizes)), TALL / height), room.height / height));
    return { along: fits, across: this.side() ? fits : across };
  });
  protected readonly box = computed(() => {
    const { width, height } = faceSize(this.surface(), this.scale());
    return { width: width + 2, height: height + 24 };
  });

  protected readonly narrowWidth = computed(() => (this.narrow() && this.box().width > ROOM.narrow.width ? this.box().width : null));

  /** A place of the face on the drawing: turned, and mirrored where it is. */
  private readonly place = computed(() => {
    const at = placeOn(this.surface(), this.scale());
    return (x: number, y: number): readonly [number, number] => {
      const [px, py] = at(x, y);
      return [px + 1, py + 1];
    };
  });
  /** The place on the face of a place on the drawing. */
  private readonly faceAt = computed(() => {
    const place = this.place();
    // The drawing is one turn and one scale in each direction: three places tell it.
    const [ox, oy] = place(0, 0);
    const [ax, ay] = [place(1, 0)[0] - ox, place(1, 0)[1] - oy];
    const [bx, by] = [place(0, 1)[0] - ox, place(0, 1)[1] - oy];
    const det = ax * by - bx * ay;
    return ({ x, y }: Stroke[number]): Stroke[number] => ({
      x: ((x - ox) * by - (y - oy) * bx) / det,
      y: ((y - oy) * ax - (x - ox) * ay) / det,
    });
  });

  private onSheet({ clientX, clientY }: PointerEvent): Stroke[number] {
    const matrix = this.sheet().nativeElement.getScreenCTM()?.inverse();
    const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
    return { x, y };
  }
  protected begin(event: PointerEvent): void {
    this.stroke.begin(this.drawing() && event.isPrimary ? this.onSheet(event) : null);
  }
  protected draw(event: PointerEvent): void {
    if (event.isPrimary) this.stroke.draw(this.onSheet(event));
  }
  /** A stroke that went round something is a zone; a shorter one was a touch. */
  protected end(): void {
    const corners = this.stroke.end();
    if (corners) this.outlined.emit(corners.map(this.faceAt()).map(({ x, y }) => ({ x: round(x), y: round(y) })));
  }
  protected touch(id: string): void {
    if (this.stroke.touched) this.worked.emit(id);
  }

  /** Where the ends of the face lie on the drawing. */
  protected readonly ends = computed(() => {
    const { turned, mirrored } = this.surface();
    const { width, height } = this.box();
    const first = { x: 4, y: this.side() ? 15 : height - 4, anchor: 'start' };
    const last = this.side() ? { x: 4, y: height - 4, anchor: 'start' } : { x: width - 4, y: height - 4, anchor: 'end' };
    const flipped = turned >= 180 !== mirrored;
    return [
      { name: 'end A', ...(flipped ? last : first) },
      { name: 'end B', ...(flipped ? first : last) },
    ];
  });
  /** Strokes as they are seen: a mirrored face mirrors them. */
  protected readonly shownAngle = computed(() => {
    const angle = this.zones().find(({ zone }) => zone.id === this.next())?.angle ?? 45;
    return (this.surface().mirrored ? 180 - angle : angle) + this.surface().turned;
  });

  protected readonly pads = computed(() => {
    const [place, tone] = [this.place(), toneOf(this.zones())];
    return this.zones().map((entry): Pad => {
      const { zone, left, done } = entry;
      const [x, y] = place(...this.inside(zone));
      const words = left === null ? `${done} passes made` : `${left} ${left === 1 ? 'pass' : 'passes'} left`;
      return {
        id: zone.id,
        points: zone.outline.map((point) => place(point.x, point.y).join(',')).join(' '),
        ...{ x, y },
        left: zone.use === 'ignore' ? '' : left === null ? (done ? `·${done}` : '') : String(left),
        tone: tone(entry),
        use: zone.use,
        now: zone.id === this.next(),
        name: `Zone ${zone.id}, ${zone.use === 'bear' ? words : zone.use === 'relieve' ? 'kept low' : 'left out'}`,
      };
    });
  });

  /** Where a zone's figures stand: its middle; of one that another lies on, the band above that. */
  private inside(zone: DeskZone['zone']): [number, number] {
    const middle = middleOf(zone);
    const ys = zone.outline.map(({ y }) => y);
    // Later zones lie on earlier ones, whatever they are numbered.
    const later = this.zones().slice(this.zones().findIndex((other) => other.zone.id === zone.id) + 1);
    const covered = later.some((other) => Math.hypot(middleOf(other.zone).x - middle.x, middleOf(other.zone).y - middle.y) < 1);
    const [inner] = later;
    if (!covered || !inner) return [middle.x, middle.y];
    return [middle.x, (Math.min(...ys) + Math.min(...inner.zone.outline.map(({ y }) => y))) / 2];
  }
}
