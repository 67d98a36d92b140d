import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { CheckDefinition, Finding, Quantity, QuantityInfo } from '@isometra/core';

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
export type GlyphWay = 'up' | 'down' | 'toward' | 'away' | 'left' | 'right' | null;

const TURN: Readonly<Record<NonNullable<GlyphWay>, number>> = { up: 0, away: 0, right: 90, down: 180, toward: 180, left: 270 };

/** One of the six glyphs. */
@Component({
  selector: 'iso-glyph',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.width]="size()" [attr.height]="size()" viewBox="0 0 24 24" role="img" [attr.aria-label]="name()">
      @switch (state()) {
        @case ('in') {
          <rect x="5" y="5" width="14" height="14" fill="#1B4C8C" />
        }
        @case ('out') {
          <g fill="none" stroke="#C23B16" stroke-width="2.2">
            <path d="M12 2.5 21.5 12 12 21.5 2.5 12Z" />
            @if (way(); as way) {
              <path d="M12 17V7.5M8.4 11 12 7.4 15.6 11" [attr.transform]="'rotate(' + turn[way] + ' 12 12)'" />
            }
          </g>
        }
        @case ('unsure') {
          <circle cx="12" cy="12" r="8" fill="none" stroke="#1E252B" stroke-width="2" />
          <path d="M12 4a8 8 0 0 0 0 16Z" fill="#1E252B" />
        }
        @case ('stale') {
          <circle cx="12" cy="12" r="8" fill="none" stroke="#1E252B" stroke-width="2" stroke-dasharray="3.4 2.9" />
        }
        @case ('left') {
          <rect x="5" y="5" width="14" height="14" fill="none" stroke="#1E252B" stroke-width="2" />
          <path d="M5 12H19" stroke="#1E252B" stroke-width="3" />
        }
        @default {
          <circle cx="12" cy="12" r="3" fill="#4A555B" />
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

/** The way an arrow points for direction words of the core. */
export function wayOf(direction: string | null): GlyphWay {
  if (direction === null) return null;
  if (/toward the operator/.test(direction)) return 'toward';
  if (/away from the operator/.test(direction)) return 'away';
  if (/\bleaning (?:right|left)\b/.test(direction)) return direction.endsWith('right') ? 'right' : 'left';
  if (/\b(?:high|up|rising)\b/.test(direction)) return 'up';
  return /\b(?:low|down|falling)\b/.test(direction) ? 'down' : null;
}

/** The way an arrow points for a value that is out: to the side of its zone on which it lies, which need not be that of its sign. */
export function wayOut({ value, limit }: Pick<Quantity, 'value' | 'limit'>, info: QuantityInfo): GlyphWay {
  const [low, high] = limit ?? [null, null];
  if (low !== null && value < low) return wayOf(info.words?.minus ?? null);
  return wayOf((high !== null && value > high ? info.words?.plus : undefined) ?? null);
}

/** The way the arrow of a whole round points: that of its first value that is out. */
export function wayOfFinding(finding: Finding | null | undefined, check: CheckDefinition | undefined): GlyphWay {
  const out = Object.entries(finding?.quantities ?? {}).find(([, { verdict }]) => verdict === 'out');
  return out && check ? wayOut(out[1], check.quantities[out[0]]) : null;
}
