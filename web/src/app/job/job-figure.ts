import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { JobDrawing, LevelWay } from '@isometra/core';
import { isSeenFromFront, seenFrom, sideLabel, spokenFigure } from './figure-words';

type Of<Shows extends JobDrawing['shows']> = Extract<JobDrawing, { readonly shows: Shows }>;

/** Degrees clockwise from up, on a drawing seen from above: the operator is at the bottom. */
const TURN: Readonly<Record<LevelWay, number>> = { away: 0, right: 90, toward: 180, left: 270 };

/** Where the words of a screw stand, by the side it sits on. */
const BESIDE_SCREW: Readonly<Record<LevelWay, { readonly x: number; readonly y: number; readonly anchor: string }>> = {
  away: { x: 118, y: 26, anchor: 'start' },
  toward: { x: 118, y: 130, anchor: 'start' },
  left: { x: 4, y: 40, anchor: 'start' },
  right: { x: 196, y: 40, anchor: 'end' },
};
const RADIAN = Math.PI / 180;

/** A point on the circle of a sleeve seen from the tailstock's end: 0 is up, 90 toward the operator, who is on the left there. */
const onSleeve = (degrees: number, radius: number) => ({
  x: 100 - radius * Math.sin(degrees * RADIAN),
  y: 80 - radius * Math.cos(degrees * RADIAN),
});

/** Where the hand goes: which screw, which end, which side. What the hand works on is blue. */
@Component({
  selector: 'iso-job-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <figure>
      <svg viewBox="0 0 200 164" role="img" [attr.aria-label]="spoken()">
        @switch (drawing().shows) {
          @case ('screws') {
            <g [attr.transform]="'rotate(' + turn() + ' 100 82)'">
              <rect class="iron" x="58" y="56" width="84" height="52" />
              <path class="go" d="M100 100V68M91 78l9-11 9 11" />
              <path class="screw" [class.hand]="driveAhead()" d="M94 52V28h12v24zM88 28h24v-8H88z" />
              @if (screws().pair) {
                <path class="screw" [class.hand]="!driveAhead()" d="M94 112v24h12v-24zM88 136h24v8H88z" />
              }
              @if (screws().third) {
                <circle class="screw" cx="128" cy="82" r="6" />
              }
            </g>
            @for (label of labels(); track label.text) {
              <text [class.strong]="label.strong" [attr.x]="label.x" [attr.y]="label.y" [attr.text-anchor]="label.anchor">
                {{ label.text }}
              </text>
              <text [attr.x]="label.x" [attr.y]="label.y + 15" [attr.text-anchor]="label.anchor">{{ label.side }}</text>
            }
          }
          @case ('guide') {
            <path class="rail" d="M94 14h12v136H94z" />
            <path class="rail" [attr.d]="guide().side === 'left' ? 'M52 14h10v136H52z' : 'M138 14h10v136h-10z'" />
            <path class="iron" d="M74 30h52v34H74zM74 100h52v34H74z" />
            <path
              class="hand"
              [attr.d]="'M' + (guide().side === 'left' ? 63 : 127) + ' ' + (guide().end === 'rear' ? 30 : 100) + 'h10v34h-10z'"
            />
            <text x="100" y="51" text-anchor="middle">rear</text>
            <text x="100" y="121" text-anchor="middle">front</text>
            <text
              class="strong"
              [attr.x]="guide().side === 'left' ? 46 : 154"
              [attr.y]="guide().end === 'rear' ? 51 : 121"
              [attr.text-anchor]="guide().side === 'left' ? 'end' : 'start'"
            >
              shim
            </text>
          }
          @case ('pulled') {
            <path class="iron" d="M14 56h172v20H14z" />
            @for (end of pulledEnds(); track end.x) {
              @if (end.way) {
                <path
                  class="go"
                  [attr.transform]="'translate(' + end.x + ' 66) rotate(' + (end.way > 0 ? 180 : 0) + ')'"
                  d="M0 -16v-24M-8 -30l8-11 8 11"
                />
              }
              <circle class="screw" [attr.cx]="end.x" cy="106" r="15" />
              <path class="thin" [attr.d]="'M' + end.x + ' 91V77'" />
              <text [class.strong]="end.way" [attr.x]="end.x" y="146" text-anchor="middle">{{ end.name }}</text>
            }
          }
          @case ('ends') {
            <path class="rail" d="M10 118h180v14H10z" />
            <path class="iron" d="M40 70h120v36H40zM84 46h32v24H84z" />
            @if (ends().front) {
              <path class="hand" d="M44 107h34v10H44z" />
            }
            @if (ends().rear) {
              <path class="hand" d="M122 107h34v10h-34z" />
            }
            <text class="strong" x="61" y="96" text-anchor="middle">{{ ends().front ? 'front' : '' }}</text>
            <text class="strong" x="139" y="96" text-anchor="middle">{{ ends().rear ? 'rear' : '' }}</text>
            <text x="12" y="152" text-anchor="start">headstock</text>
            <text x="190" y="152" text-anchor="end">tail end</text>
          }
          @case ('joint') {
            <path class="rail" d="M20 124h160v14H20z" />
            <g [attr.transform]="raisedLeft() ? '' : 'matrix(-1 0 0 1 200 0)'">
              @if (joint().metal) {
                <path class="iron" d="M50 36h100v74L50 122z" />
                <path class="hand" d="M50 123L150 111v12z" />
                <path class="go" d="M160 54v30M152 74l8 10 8-10" />
              } @else {
                <path class="iron" d="M50 30h100v92L50 104z" />
                <path class="hand" d="M50 105l40 7v11H50z" />
                <path class="go" d="M40 84V54M32 64l8-10 8 10" />
              }
            </g>
            <text class="strong" [attr.x]="raisedLeft() ? 16 : 184" y="156" [attr.text-anchor]="raisedLeft() ? 'start' : 'end'">
              {{ joint().metal ? 'nothing off' : 'shim' }}
            </text>
            @if (joint().metal) {
              <text class="strong" [attr.x]="raisedLeft() ? 184 : 16" y="156" [attr.text-anchor]="raisedLeft() ? 'end' : 'start'">
                most off
              </text>
            }
            <text x="16" y="20" text-anchor="start">{{ jointSides()[0] }}</text>
            <text x="184" y="20" text-anchor="end">{{ jointSides()[1] }}</text>
          }
          @case ('head') {
            <path class="rail" d="M64 148h72v10H64z" />
            <path class="iron" d="M72 50h56v64H72zM90 114h20v22H90z" />
            <circle class="screw" cx="100" cy="82" r="9" />
            <path class="go" [attr.transform]="headLeft() ? 'matrix(-1 0 0 1 200 0)' : ''" d="M72 34Q100 18 130 32M118 38l14-5-6-13" />
            <text x="2" y="150" text-anchor="start">{{ headSides()[0] }}</text>
            <text x="198" y="150" text-anchor="end">{{ headSides()[1] }}</text>
          }
          @case ('sleeve') {
            <circle class="iron" cx="100" cy="80" r="46" />
            <circle class="rail" cx="100" cy="80" r="35" />
            <path class="thin" [attr.d]="'M100 80L' + point(sleeve().from)" />
            <path class="hand line" [attr.d]="'M100 80L' + point(sleeve().to)" />
            <path class="go" [attr.d]="arc()" />
            <text x="6" y="20" text-anchor="start">your side</text>
            <text x="194" y="20" text-anchor="end">rear</text>
            <text x="6" y="156" text-anchor="start">now {{ sleeve().from.toFixed(1) }}°</text>
            <text class="strong" x="194" y="156" text-anchor="end">to {{ sleeve().to.toFixed(1) }}°</text>
          }
          @case ('gib') {
            @if (gib().screws.length) {
              <path class="iron" d="M14 40h172v40H14z" />
              <path class="hand" d="M14 84h172v14H14z" />
              @for (screw of gibScrews(); track screw.order) {
                <path class="screw" [attr.d]="'M' + (screw.x - 5) + ' 100h10v24h-10z'" />
                <text class="strong" [attr.x]="screw.x" y="144" text-anchor="middle">{{ screw.order }}</text>
              }
              <text x="14" y="28" text-anchor="start">tighten in this order</text>
            } @else {
              <path class="iron" d="M30 36h140v22L30 70z" />
              <path class="hand" d="M30 74l140-12v38H30z" />
              <path class="iron" d="M30 104h140v20H30z" />
              <path class="screw" d="M174 68h16v24h-16zM10 80h16v14H10z" />
              <path class="white" d="M150 84h-36M126 75l-12 9 12 9" />
              <text x="10" y="148" text-anchor="start">small end</text>
              <text class="strong" x="190" y="148" text-anchor="end">large end</text>
            }
          }
        }
      </svg>
      <figcaption>{{ seen() }}</figcaption>
    </figure>
  `,
  styles: `
    :host {
      display: block;
      width: 200px;
    }
    figure {
      margin: 0;
    }
    svg {
      display: block;
      width: 100%;
      font-family: var(--words);
      font-size: 13.6px;
    }
    text {
      fill: var(--soft);
    }
    .strong {
      fill: var(--blue);
      font-weight: 600;
    }
    .iron {
      fill: var(--iron);
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .rail {
      fill: none;
      stroke: var(--edge);
      stroke-width: 1.4;
    }
    .thin {
      stroke: var(--ink);
      stroke-width: 2;
      stroke-dasharray: 5 4;
    }
    .screw {
      fill: var(--panel);
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .hand {
      fill: var(--blue);
      stroke: var(--blue);
      stroke-width: 1.4;
    }
    .line {
      stroke-width: 4;
    }
    .go {
      fill: none;
      stroke: var(--blue);
      stroke-width: 2.6;
    }
    .white {
      fill: none;
      stroke: var(--panel);
      stroke-width: 2.6;
    }
    .iron ~ .go {
      stroke: var(--ink);
    }
    figcaption {
      font-size: 0.875rem;
      color: var(--soft);
    }
  `,
})
export class JobFigure {
  readonly drawing = input.required<JobDrawing>();

  private of<Shows extends JobDrawing['shows']>(shows: Shows): Of<Shows> {
    const drawing = this.drawing();
    if (drawing.shows !== shows) throw new TypeError(`${drawing.shows} is not ${shows}`);
    return drawing as Of<Shows>;
  }
  protected readonly screws = computed(() => this.of('screws'));
  protected readonly guide = computed(() => this.of('guide'));
  /** What is not moved has no arrow: its needle stays. */
  protected readonly pulledEnds = computed(() => {
    const { near, far } = this.of('pulled');
    const way = (um: number): number => (Math.abs(um) < 0.5 ? 0 : Math.sign(um));
    return [
      { name: way(near) ? 'near end' : 'stays', x: 40, way: way(near) },
      { name: way(far) ? 'far end' : 'stays', x: 160, way: way(far) },
    ];
  });
  protected readonly ends = computed(() => this.of('ends'));
  protected readonly joint = computed(() => this.of('joint'));
  protected readonly head = computed(() => this.of('head'));
  protected readonly sleeve = computed(() => this.of('sleeve'));
  protected readonly gib = computed(() => this.of('gib'));

  protected readonly spoken = computed(() => spokenFigure(this.drawing()));
  protected readonly seen = computed(() => seenFrom(this.drawing()));

  // Screws: drawn with the part going up the paper, then turned the way it goes.
  protected readonly turn = computed(() => TURN[this.screws().way]);
  /** Whether the screw on the side that the part goes to is the one in hand: a single one always is. */
  protected readonly driveAhead = computed(() => {
    const { way, pair } = this.screws();
    return pair === null || pair.drive === way;
  });
  protected readonly labels = computed(() => {
    const { way, pair } = this.screws();
    if (pair === null) return [{ ...BESIDE_SCREW[way], text: 'turn', side: '', strong: true }];
    return [
      { ...BESIDE_SCREW[pair.drive], text: 'drive', side: sideLabel(pair.drive), strong: true },
      { ...BESIDE_SCREW[pair.slack], text: 'slack', side: sideLabel(pair.slack), strong: false },
    ];
  });

  // A joint: what comes up on the left of the paper.
  protected readonly raisedLeft = computed(() => /left|front|operator|your/.test(this.joint().raise));
  protected readonly jointSides = computed(() => (isSeenFromFront(this.joint()) ? ['left', 'right'] : ['front', 'rear']));

  protected readonly headLeft = computed(() => this.head().way === 'left' || this.head().way === 'toward');
  protected readonly headSides = computed(() => (isSeenFromFront(this.head()) ? ['left', 'right'] : ['your side', 'rear']));

  protected point(degrees: number): string {
    const { x, y } = onSleeve(degrees, 46);
    return `${x.toFixed(1)} ${y.toFixed(1)}`;
  }
  /** The arc from one angle to the other, with its head: short of the line it ends at. */
  protected readonly arc = computed(() => {
    const { from, to } = this.sleeve();
    const turned = ((((to - from) % 360) + 540) % 360) - 180;
    if (Math.abs(turned) < 1) return '';
    const [a, b] = [onSleeve(from, 54), onSleeve(to, 54)];
    const against = turned > 0 ? 0 : 1;
    const back = to - Math.sign(turned) * Math.min(10, Math.abs(turned) / 2);
    const [one, other] = [onSleeve(back, 49), onSleeve(back, 59)];
    const at = ({ x, y }: { x: number; y: number }) => `${x.toFixed(1)} ${y.toFixed(1)}`;
    return `M${at(a)}A54 54 0 ${Math.abs(turned) > 180 ? 1 : 0} ${against} ${at(b)}M${at(one)}L${at(b)}L${at(other)}`;
  });

  protected readonly gibScrews = computed(() => {
    const { screws } = this.gib();
    return screws.map((place, i) => ({ order: i + 1, x: 14 + (172 * (place + 0.5)) / screws.length }));
  });
}
