import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type Finding, type Quantity, type Target, sentence, sizesIn } from '@isometra/core';
import { Settings } from '../data/settings';
import { bothUnits, isZero } from '../ui/say';

const SIZE = { width: 288, height: 206 } as const;
const INSET = 34;

/** What was taken out of the readings, as an arrow from where it seemed to be. */
interface Ghost {
  readonly name: string;
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

const NAMES: Readonly<Record<string, string>> = { sag: 'droop', push: 'push', twist: 'bed twist', diameter: 'diameters' };

/**
 * Two quantities as one place across the machine, seen from the tailstock: toward the operator is to the
 * right, up is up. The zone, the doubt, and what droop and push made of it.
 */
@Component({
  selector: 'iso-target-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as picture) {
      <svg [attr.viewBox]="'0 0 ' + size.width + ' ' + size.height" role="img" [attr.aria-label]="picture.told">
        <line class="true" x1="6" [attr.x2]="size.width - 6" [attr.y1]="picture.zero.y" [attr.y2]="picture.zero.y" />
        <line class="true" [attr.x1]="picture.zero.x" [attr.x2]="picture.zero.x" y1="16" [attr.y2]="size.height - 16" />
        <rect
          class="zone"
          [attr.x]="picture.zone.x"
          [attr.y]="picture.zone.y"
          [attr.width]="picture.zone.width"
          [attr.height]="picture.zone.height"
        />
        @for (ghost of picture.ghosts; track ghost.name) {
          <path class="ghost" [attr.d]="'M' + ghost.from.x + ' ' + ghost.from.y + 'L' + ghost.to.x + ' ' + ghost.to.y" />
          <circle class="seemed" r="4" [attr.cx]="ghost.from.x" [attr.cy]="ghost.from.y" />
          <text class="words" [attr.x]="ghost.from.x + 7" [attr.y]="ghost.from.y + 4">{{ ghost.name }}</text>
        }
        <ellipse class="doubt" [attr.cx]="picture.at.x" [attr.cy]="picture.at.y" [attr.rx]="picture.doubt.x" [attr.ry]="picture.doubt.y" />
        <circle class="at" [class.out]="picture.out" r="5.5" [attr.cx]="picture.at.x" [attr.cy]="picture.at.y" />
        <text class="words" x="6" y="13">{{ what() }}, seen from the tailstock</text>
        <text class="words" [attr.x]="size.width - 4" [attr.y]="picture.zero.y - 5" text-anchor="end">you</text>
        <text class="words" [attr.x]="picture.zero.x + 5" [attr.y]="size.height - 5">×{{ picture.factor }}</text>
      </svg>
    }
  `,
  styles: `
    :host {
      display: block;
      padding-top: 10px;
    }
    svg {
      display: block;
      width: 100%;
      border: 1px solid var(--line);
      background: var(--paper);
    }
    .true {
      stroke: var(--edge);
      stroke-dasharray: 6 4;
    }
    .zone {
      fill: var(--blue-wash);
      stroke: var(--blue);
      stroke-dasharray: 4 3;
    }
    .ghost {
      fill: none;
      stroke: var(--edge);
      stroke-width: 1.5;
      stroke-dasharray: 3 3;
    }
    .seemed {
      fill: var(--paper);
      stroke: var(--edge);
      stroke-width: 1.5;
    }
    .doubt {
      fill: none;
      stroke: var(--ink);
    }
    .at {
      fill: var(--blue);
    }
    .at.out {
      fill: var(--red);
    }
    .words {
      fill: var(--soft);
      font: 400 13px var(--words);
    }
  `,
})
export class TargetPicture {
  readonly target = input.required<Target>();
  readonly finding = input.required<Finding>();
  private readonly settings = inject(Settings);
  protected readonly what = computed(() => sentence(this.target().what, sizesIn(this.settings.shown())));
  protected readonly size = SIZE;

  /** Everything in µm at the place that is drawn, then in the drawing's units. */
  readonly drawn = computed(() => {
    const { h, v, at } = this.target();
    const quantities = this.finding().quantities;
    const [sideways, height] = [quantities[h] as Quantity | undefined, quantities[v] as Quantity | undefined];
    if (!sideways || !height) return null;
    const reach = at === undefined ? 1 : at / 1000;
    const seemed = this.seemed(sideways, height, reach);
    const zone = { h: bounds(sideways, reach), v: bounds(height, reach) };
    const place = { h: sideways.value * reach, v: height.value * reach };
    const doubt = { h: (sideways.expanded ?? 0) * reach, v: (height.expanded ?? 0) * reach };
    const hs = [0, ...zone.h, place.h - doubt.h, place.h + doubt.h, ...seemed.map((entry) => entry.h)];
    const vs = [0, ...zone.v, place.v - doubt.v, place.v + doubt.v, ...seemed.map((entry) => entry.v)];
    const [left, right, low, high] = [Math.min(...hs), Math.max(...hs), Math.min(...vs), Math.max(...vs)];
    const perUnit = Math.max((right - left) / (SIZE.width - 2 * INSET), (high - low) / (SIZE.height - 2 * INSET), 1e-9);
    const x = (um: number) => SIZE.width / 2 + (um - (left + right) / 2) / perUnit;
    const y = (um: number) => SIZE.height / 2 - (um - (low + high) / 2) / perUnit;
    return {
      zero: { x: x(0), y: y(0) },
      at: { x: x(place.h), y: y(place.v) },
      out: [sideways, height].some((quantity) => quantity.verdict === 'out'),
      doubt: { x: doubt.h / perUnit, y: doubt.v / perUnit },
      zone: { x: x(zone.h[0]), y: y(zone.v[1]), width: (zone.h[1] - zone.h[0]) / perUnit, height: (zone.v[1] - zone.v[0]) / perUnit },
      ghosts: seemed.map((entry): Ghost => ({
        name: entry.name,
        from: { x: x(entry.h), y: y(entry.v) },
        to: { x: x(place.h), y: y(place.v) },
      })),
      // One unit of the drawing is taken as a quarter of a millimetre on the screen.
      factor: Math.max(1, Math.round(250 / perUnit / 10) * 10),
      told: this.told(place),
    };
  });

  /** Where it would seem to be with each correction left out. */
  private seemed(sideways: Quantity, height: Quantity, reach: number): { name: string; h: number; v: number }[] {
    const names = [...new Set([...Object.keys(sideways.terms), ...Object.keys(height.terms)])];
    return names
      .map((name) => ({ name, dh: (sideways.terms[name] ?? 0) * reach, dv: (height.terms[name] ?? 0) * reach }))
      .filter(({ dh, dv }) => Math.hypot(dh, dv) > 0.3)
      .map(({ name, dh, dv }) => ({
        name: `without ${NAMES[name] ?? name} ${this.size3(Math.hypot(dh, dv))}`,
        h: sideways.value * reach - dh,
        v: height.value * reach - dv,
      }));
  }

  private size3(um: number): string {
    return bothUnits(um, 'deviation', this.settings.shown(), 1).large;
  }

  private told({ h, v }: { h: number; v: number }): string {
    const say = (um: number, plus: string, minus: string) => (isZero(this.size3(um)) ? '' : `${this.size3(um)} ${um > 0 ? plus : minus}`);
    const parts = [say(h, 'toward you', 'away from you'), say(v, 'up', 'down')].filter(Boolean);
    return `${this.what()}: ${parts.join(', ') || 'on the true line'}`;
  }
}

/** Both bounds of a zone at the place drawn; an open one is drawn as wide as the other is far. */
function bounds({ limit, value }: Quantity, reach: number): [number, number] {
  const [low, high] = limit ?? [0, 0];
  const open = Math.max(Math.abs(value), Math.abs(low ?? 0), Math.abs(high ?? 0), 1);
  return [(low ?? -open) * reach, (high ?? open) * reach];
}
