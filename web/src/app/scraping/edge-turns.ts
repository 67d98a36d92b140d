import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import type { Surface } from '@isometra/contract';
import { endAAtRight, takesBites, type Turned } from '@isometra/work';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { bothUnits } from '../ui/say';
import { Slide } from '../ui/slide';

export interface Turns {
  readonly from: number;
  readonly length: number;
  readonly a: number;
  readonly b: number;
}

/** As wide the whole drawing is, px. */
const WIDE = 813;

/** The straightedge under its face at its true length, with the two places where it turned: moved by hand or arrow keys. */
@Component({
  selector: 'iso-edge-turns',
  imports: [Button, Slide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [style.width]="drawnWidth() ? drawnWidth() + 'px' : null"
      [attr.viewBox]="'0 0 1000 44'"
      preserveAspectRatio="none"
      role="img"
      [attr.aria-label]="'Straightedge, ' + size(surface().reference.length)"
    >
      <rect
        y="14"
        [attr.width]="998 * shownPart()"
        [attr.x]="1 + 998 * (flipped() ? 1 - shownPart() - from() / surface().width : from() / surface().width)"
        height="16"
        fill="var(--iron)"
        stroke="var(--ink)"
        vector-effect="non-scaling-stroke"
      />
      @for (pivot of pivots(); track pivot.name) {
        <path [attr.d]="'M' + pivot.at + ' 44 l' + -mark() + ' -14 h' + 2 * mark() + ' z'" fill="var(--blue)" />
      }
    </svg>
    <div class="sliders">
      <span class="label">pushed at A: {{ size(a()) }}</span>
      <iso-slide
        label="Pushed at end A it turns at"
        [words]="size(a())"
        [value]="along(a())"
        [max]="length()"
        [step]="step()"
        (moved)="a.set(along($event))"
      />
      <span class="label">pushed at B: {{ size(b()) }}</span>
      <iso-slide
        label="Pushed at end B it turns at"
        [words]="size(b())"
        [value]="along(b())"
        [max]="length()"
        [step]="step()"
        (moved)="b.set(along($event))"
      />
      <span class="tries">
        <button pButton type="button" (click)="keep()">Record pivot</button>
        @if (tried()) {
          <button pButton type="button" class="plain" (click)="again()">once more: there</button>
        }
      </span>
      @if (short()) {
        <span class="label">its end A lies at {{ size(from()) }}</span>
        <iso-slide
          label="The end A of the straightedge lies at"
          [words]="size(from())"
          [value]="along(from(), surface().width - length())"
          [max]="surface().width - length()"
          [step]="step()"
          (moved)="from.set(along($event, surface().width - length()))"
        />
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      max-width: 100%;
      height: 34px;
      margin: 0 auto;
    }
    .sliders {
      display: grid;
      grid-template-columns: max-content minmax(90px, 1fr) max-content minmax(90px, 1fr) max-content;
      gap: 4px 10px;
      align-items: center;
    }
    .label {
      min-width: 150px;
    }
    @media (max-width: 700px) {
      .sliders {
        grid-template-columns: max-content 1fr;
      }
      .tries {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class EdgeTurns {
  readonly surface = input.required<Surface>();
  readonly turned = input<Turned | null>(null);
  /** It was pushed once already, and nothing has been done since: a second try may be added. */
  readonly tried = input(false);
  /** How wide the face is drawn over it, px: the straightedge lies true to it. */
  readonly drawnWidth = input<number | null>(null);
  readonly kept = output<Turns>();
  readonly keptAgain = output<Pick<Turns, 'a' | 'b'>>();
  private readonly settings = inject(Settings);

  /** What it lies on: the face, or its own length where that is shorter. */
  protected readonly length = computed(() => Math.min(this.surface().width, this.surface().reference.length));
  protected readonly shownPart = computed(() => Math.min(1, this.surface().reference.length / this.surface().width));
  /** Shorter than the face: it takes bites, each from where its end A lies. */
  protected readonly short = computed(() => takesBites(this.surface()));
  protected readonly from = signal(0);
  protected readonly step = computed(() => (this.length() > 300 ? 5 : 1));
  /** As it turned last; at first as an even bearing would. */
  protected readonly a = linkedSignal(() => Math.round(this.turned()?.a ?? this.length() / Math.SQRT2));
  protected readonly b = linkedSignal(() => Math.round(this.turned()?.b ?? this.length() * (1 - 1 / Math.SQRT2)));
  /** As the face lies its end A is at the right: marks and slides run the other way with it. */
  protected readonly flipped = computed(() => endAAtRight(this.surface()));
  protected readonly along = (mm: number, whole = this.length()): number => (this.flipped() ? whole - mm : mm);
  protected readonly size = (mm: number): string => bothUnits(mm, 'length', this.settings.shown()).large;
  /** A mark is as wide on a narrow face as on a wide one. */
  protected readonly mark = computed(() => 9 * Math.min(5, WIDE / (this.drawnWidth() ?? WIDE)));
  protected readonly pivots = computed(() =>
    [
      { name: 'A', at: this.a() },
      { name: 'B', at: this.b() },
    ].map(({ name, at }) => ({ name, at: 1 + (998 * this.along(this.from() + at, this.surface().width)) / this.surface().width })),
  );

  again(): void {
    if (this.tried()) this.keptAgain.emit({ a: this.a(), b: this.b() });
  }

  keep(): void {
    this.kept.emit({ from: this.from(), length: this.length(), a: this.a(), b: this.b() });
  }
}
