import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Way } from '@isometra/core';

/** State of a rung or a call: told by shape first, colour second. */
export type GlyphState = 'in' | 'out' | 'unsure' | 'stale' | 'none' | 'left';

const NAMES: Readonly<Record<GlyphState, string>> = {
  in: 'in',
  out: 'out',
  unsure: 'too close to call',
  stale: 'stale',
  none: 'not measured yet',
  left: 'left alone on purpose',
};

/** Way an arrow on the open diamond points: as a person sees it on the drawing. */
export type GlyphWay = Way | null;

const TURN: Readonly<Record<Way, number>> = { up: 0, away: 0, right: 90, down: 180, toward: 180, left: 270 };

/** One of the six glyphs. */
@Component({
  selector: 'iso-glyph',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.width]="size()" [attr.height]="size()" viewBox="0 0 24 24" role="img" [attr.aria-label]="name()">
      @switch (state()) {
        @case ('in') {
          <rect x="5" y="5" width="14" height="14" fill="var(--blue)" />
        }
        @case ('out') {
          <g fill="none" stroke="var(--red)" stroke-width="2.2">
            <path d="M12 2.5 21.5 12 12 21.5 2.5 12Z" />
            @if (way(); as way) {
              <path d="M12 17V7.5M8.4 11 12 7.4 15.6 11" [attr.transform]="'rotate(' + turn[way] + ' 12 12)'" />
            }
          </g>
        }
        @case ('unsure') {
          <circle cx="12" cy="12" r="8" fill="none" stroke="var(--ink)" stroke-width="2" />
          <path d="M12 4a8 8 0 0 0 0 16Z" fill="var(--ink)" />
        }
        @case ('stale') {
          <circle cx="12" cy="12" r="8" fill="none" stroke="var(--ink)" stroke-width="2" stroke-dasharray="3.4 2.9" />
        }
        @case ('left') {
          <rect x="5" y="5" width="14" height="14" fill="none" stroke="var(--ink)" stroke-width="2" />
          <path d="M5 12H19" stroke="var(--ink)" stroke-width="3" />
        }
        @default {
          <circle cx="12" cy="12" r="3" fill="var(--soft)" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-flex;
      flex: none;
    }
  `,
})
export class Glyph {
  readonly state = input.required<GlyphState>();
  readonly way = input<GlyphWay>(null);
  readonly size = input(22);
  protected readonly turn = TURN;
  protected readonly name = computed(() => NAMES[this.state()]);
}
