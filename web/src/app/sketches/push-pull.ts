import { ChangeDetectionStrategy, Component, type ElementRef, computed, inject, signal, viewChild } from '@angular/core';
import { Settings } from '../data/settings';
import { bothUnits } from '../ui/say';
import { Mark } from './mark';
import { alongLine, drawnOff, figure } from './model';
import { SketchBase } from './sketch-base';

/** Arrows of the hand: pushing comes from the left, pulling goes back to it. */
const ARROWS = { push: 'M-70 -7H-24V-16L0 0L-24 16V7H-70Z', pull: 'M0 -7H-46V-16L-70 0L-46 16V7H0Z' } as const;

/** A slide on its guide, pushed and pulled by hand against an indicator; a row for locks off and one for locks on. */
@Component({
  selector: 'iso-push-pull',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./marks.css', './push-pull.css'],
  template: `
    <svg #drawing [attr.viewBox]="'0 0 720 ' + height()" role="group" aria-label="Slide on its guide, pushed and pulled">
      @for (row of rows(); track row.name; let i = $index) {
        <g [attr.transform]="'translate(0 ' + i * 142 + ')'">
          <text class="words" x="8" y="18">{{ row.name }}</text>
          <path class="iron" d="M230 108H590V134H230Z M280 108 292 90H528L540 108Z" fill-opacity="0.6" />
          <path class="iron" d="M262 34H558V108H546L534 86H286L274 108H262Z" />
          <path class="thin" d="M640 20V134M640 62H606" />
          <path class="iron" d="M606 55H570V69H606Z M570 62H560" />
          @for (place of row.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(246 ' + place.y + ')'">
              <path class="seat" [attr.d]="place.arrow" />
              <text x="-84" y="5" text-anchor="end">{{ place.words }}</text>
              @if (place.off !== undefined) {
                <path class="seen" [attr.d]="'M' + (312 + place.off) + ' -10V10'" />
              }
            </g>
          }
        </g>
      }
      @if (base(); as stands) {
        <g [attr.transform]="'translate(360 ' + (rows().length * 142 + 50) + ')'">
          <text class="words" x="-352" y="-22">guide and stylus, from above</text>
          <text class="words" [attr.x]="stands.x / 2" y="40" text-anchor="middle">{{ stands.words }}</text>
          <path class="iron" [attr.d]="'M' + -stands.half + ' -9H' + stands.half + 'V9H' + -stands.half + 'Z'" fill-opacity="0.6" />
          <path class="axis" d="M0 -16V16" />
          <path class="thin" [attr.d]="'M0 22H' + stands.x + 'M0 17V27M' + stands.x + ' 17V27'" />
          <g
            class="base"
            role="slider"
            tabindex="0"
            aria-label="Middle of the guide to the stylus"
            aria-valuemin="0"
            [attr.aria-valuemax]="stands.most"
            [attr.aria-valuenow]="stands.distance"
            [attr.aria-valuetext]="stands.words"
            [attr.transform]="'translate(' + stands.x + ' 0)'"
            (pointerdown)="hold($event)"
            (pointermove)="carry($event)"
            (pointerup)="letGo()"
            (pointercancel)="held.set(null)"
            (keydown.arrowright)="nudge($event, 5)"
            (keydown.arrowleft)="nudge($event, -5)"
          >
            <path class="seat" d="M0 -9 7 -24H-7Z" />
            <path class="seat" d="M-16 -40H16V-24H-16Z" />
          </g>
        </g>
      }
      @if (felt().length) {
        <g [attr.transform]="'translate(0 ' + (rows().length * 142 + (base() ? 92 : 0)) + ')'">
          <text class="words" x="8" y="18">drag, along the travel</text>
          <path class="iron" d="M120 40H660V50H120Z" fill-opacity="0.5" />
          @for (place of felt(); track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' 45)'">
              <circle class="seat" [attr.r]="place.tightest ? 13 : 8" />
              <text y="38" text-anchor="middle">{{ place.mark.text }}{{ place.tightest ? ' tightest' : '' }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class PushPull extends SketchBase {
  private readonly settings = inject(Settings);
  private readonly drawing = viewChild.required<ElementRef<SVGSVGElement>>('drawing');
  /** mm from the middle of the guide, while the base is dragged. */
  protected readonly held = signal<number | null>(null);

  /** Where the stylus stands, on slides whose play is brought to their guide: drawn to scale, dragged or moved by arrow keys. */
  protected readonly base = computed(() => {
    const { guideLength, distance } = this.setup() as { readonly guideLength?: number; readonly distance?: number };
    if (guideLength === undefined || distance === undefined) return null;
    const most = Math.max(guideLength, 2 * distance);
    const scale = 300 / most;
    const now = this.held() ?? distance;
    const words = bothUnits(now, 'length', { ...this.settings.shown(), fineness: 'coarse' }).large;
    return { half: (guideLength / 2) * scale, x: now * scale, distance: now, most, scale, words };
  });
  protected readonly height = computed(() => this.rows().length * 142 + (this.base() ? 92 : 0) + (this.felt().length ? 92 : 8));

  protected hold(event: PointerEvent): void {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.held.set(this.base()?.distance ?? null);
  }

  protected carry(event: PointerEvent): void {
    const [base, matrix] = [this.base(), this.drawing().nativeElement.getScreenCTM()];
    if (this.held() === null || !base || !matrix) return;
    const x = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse()).x - 360;
    this.held.set(Math.min(base.most, Math.max(0, Math.round(x / base.scale))));
  }

  protected letGo(): void {
    const held = this.held();
    this.held.set(null);
    if (held !== null) this.put(held);
  }

  protected nudge(event: Event, by: number): void {
    event.preventDefault();
    event.stopPropagation();
    this.put(Math.max(0, (this.base()?.distance ?? 0) + by));
  }

  private put(distance: number): void {
    if (distance !== this.setup()['distance']) this.set()({ distance: `${distance} mm` });
  }

  /** Where the drag is felt; the tightest place rules. */
  protected readonly felt = computed(() => {
    const marks = this.marks().filter(({ keys }) => keys['stroke'] === undefined);
    const x = alongLine(marks, 150, 630);
    const most = Math.max(...marks.map(({ text }) => Number(text || NaN)).filter((drag) => !Number.isNaN(drag)), -1);
    return marks.map((mark, i) => ({ mark, x: x[i], tightest: most > 0 && mark.text !== '' && Number(mark.text) === most }));
  });

  protected readonly rows = computed(() => {
    const marks = this.marks().filter(({ keys }) => keys['stroke'] !== undefined);
    const off = drawnOff(marks, 18, undefined, true);
    const rowOf = (mark: (typeof marks)[number]) => (mark.keys['locks'] ? `locks ${String(mark.keys['locks'])}` : '');
    return [...new Set(marks.map(rowOf))].map((name) => ({
      name,
      places: marks
        .filter((mark) => rowOf(mark) === name)
        .map((mark) => {
          const stroke = mark.keys['stroke'] === 'pull' ? 'pull' : 'push';
          return {
            mark,
            y: stroke === 'push' ? 50 : 90,
            arrow: ARROWS[stroke],
            off: off.get(mark),
            words: [stroke, figure(mark.text)].filter(Boolean).join(' '),
          };
        }),
    }));
  });
}
