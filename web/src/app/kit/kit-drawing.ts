import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { KitItem, KitKind } from '@isometra/contract';

/** What a piece of kit looks like, in a box of 64 by 48. */
const DRAWN: Readonly<Record<string, string>> = {
  lever: 'M30 6a11 11 0 1 0 .1 0zM30 17l5-5M30 28v6M27 34h6v5h-6zM30 39l-12 5M44 14h12v6H44',
  plunger: 'M32 3a13 13 0 1 0 .1 0zM32 16l6-6M29 29h6v8h-6zM32 37v7M30 44h4',
  micrometer: 'M12 18v6a13 13 0 0 0 26 0v-6h-6v6a7 7 0 0 1-14 0v-6zM14 12h6v6h-6zM20 14h12v2H20zM32 12h14v6H32zM46 10h14v10H46z',
  level: 'M4 20h56v14H4zM20 24h24v6H20zM30 24v6M34 24v6M4 34v4h12v-4M48 34v4h12v-4',
  feeler: 'M10 18l44-12M10 22l46-4M10 26l46 4M10 30l44 12M6 16h8v16H6z',
  bar: 'M4 19h10l4-3h42v16H18l-4-3H4z',
  square: 'M14 4h8v28h34v8H14z',
  pins: 'M12 18a6 6 0 1 0 12 0a6 6 0 1 0-12 0M18 12h28M18 24h28M46 12a6 6 0 0 1 0 12',
  blocks: 'M6 22h22v18H6zM6 22l6-8h22v18l-6 8M28 22l6-8M36 26h22v14H36z',
  straightedge: 'M4 30c8-14 48-14 56 0v6H4z',
  holder: 'M8 10h14v14H8zM22 16h20v4H22zM42 8h12v20H42zM15 24v16M8 40h14',
  shims: 'M8 30l28 8 20-8-28-8zM8 24l28 8 20-8-28-8zM8 18l28 8 20-8-28-8z',
  plate: 'M6 32h52v6H6zM10 26a5 5 0 1 0 10 0a5 5 0 1 0-10 0M44 22a8 8 0 1 0 10 4M10 21l44-6',
};

/** Which drawing a kind of kit has; an instrument has that of its own kind. */
const OF: Readonly<Record<Exclude<KitKind, 'instrument'>, string>> = {
  holder: 'holder',
  'test-bar': 'bar',
  straightedge: 'straightedge',
  square: 'square',
  pins: 'pins',
  blocks: 'blocks',
  'sine-plate': 'plate',
  'shim-stock': 'shims',
};

/** A piece of kit, drawn by its kind. */
@Component({
  selector: 'iso-kit-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg viewBox="0 0 64 48" width="64" height="48" aria-hidden="true"><path [attr.d]="d()" /></svg>`,
  styles: `
    :host,
    svg {
      display: block;
    }
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.6;
      stroke-linejoin: round;
    }
  `,
})
export class KitDrawing {
  readonly item = input.required<KitItem>();
  protected readonly d = computed(() => {
    const { kind, data } = this.item();
    return DRAWN[kind === 'instrument' ? String(data['kind']) : OF[kind]];
  });
}
