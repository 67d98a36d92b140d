import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const TICKS = 50;

/**
 * A drawn dial: what the needle should look like. Values in divisions; one turn of the face is
 * fifty divisions, drawn clockwise when the count rises.
 */
@Component({
  selector: 'iso-dial',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="-60 -60 120 120" role="img" [attr.aria-label]="name()">
      <circle r="56" fill="var(--paper)" stroke="var(--ink)" stroke-width="2" />
      @for (tick of ticks; track tick) {
        <line
          [attr.transform]="'rotate(' + (tick * 360) / count + ')'"
          x1="0"
          [attr.y1]="tick % 5 === 0 ? -43 : -48"
          x2="0"
          y2="-53"
          stroke="var(--ink)"
          [attr.stroke-width]="tick % 5 === 0 ? 1.6 : 0.8"
        />
      }
      @if (sweep(); as path) {
        <path [attr.d]="path" fill="none" stroke="var(--thin)" stroke-width="7" />
      }
      @if (target() !== null) {
        <line
          [attr.transform]="'rotate(' + angle(target()!) + ')'"
          y1="6"
          y2="-52"
          stroke="var(--ink)"
          stroke-width="2"
          stroke-dasharray="4 3"
        />
      }
      @if (value() !== null) {
        <line [attr.transform]="'rotate(' + angle(value()!) + ')'" y1="12" y2="-50" stroke="var(--blue)" stroke-width="3" />
      }
      <circle r="4" fill="var(--ink)" />
      @for (tick of figures; track tick) {
        <text [attr.x]="31.5 * sin(tick)" [attr.y]="-32.5 * cos(tick) + 4.5" text-anchor="middle" font-size="13">
          {{ tick > count / 2 ? tick - count : tick }}
        </text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      width: 132px;
    }
    svg {
      display: block;
      width: 100%;
      font-family: var(--figures);
    }
    /* No figure is hidden by a needle or a band. */
    text {
      paint-order: stroke;
      stroke: var(--paper);
      stroke-width: 4px;
      stroke-linejoin: round;
    }
  `,
})
export class Dial {
  /** Where the needle is; null for none. */
  readonly value = input<number | null>(null);
  /** Where it must go; null for none. */
  readonly target = input<number | null>(null);

  protected readonly count = TICKS;
  protected readonly ticks = Array.from({ length: TICKS }, (_, i) => i);
  protected readonly figures = this.ticks.filter((tick) => tick % 10 === 0);
  protected readonly name = computed(() => {
    const now = this.value();
    const target = this.target();
    const says = now === null ? 'Dial without a reading' : `Needle at ${now.toFixed(1)} divisions`;
    return target === null ? says : `${says}, to go to ${target.toFixed(1)}`;
  });

  /** The way from now to the target as a band, no more than one turn. */
  protected readonly sweep = computed(() => {
    const [from, to] = [this.value(), this.target()];
    if (from === null || to === null || from === to) return null;
    const span = Math.max(-TICKS * 0.98, Math.min(TICKS * 0.98, to - from));
    const at = (tick: number) => `${(26 * this.sin(tick)).toFixed(2)} ${(-26 * this.cos(tick)).toFixed(2)}`;
    return `M${at(from)} A26 26 0 ${Math.abs(span) > TICKS / 2 ? 1 : 0} ${span > 0 ? 1 : 0} ${at(from + span)}`;
  });

  protected angle(divisions: number): number {
    return (divisions * 360) / TICKS;
  }

  protected sin(tick: number): number {
    return Math.sin((tick * 2 * Math.PI) / TICKS);
  }

  protected cos(tick: number): number {
    return Math.cos((tick * 2 * Math.PI) / TICKS);
  }
}
