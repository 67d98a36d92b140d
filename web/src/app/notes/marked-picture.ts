import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { MarkedPicture as Picture } from '@isometra/contract';
import { Pictures } from '../data/pictures';
import { drawn, WIDE } from './stroke';

/** A photograph with what was drawn over it. The photograph itself stays as it was taken. */
@Component({
  selector: 'iso-marked-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <img [src]="address()" [alt]="words()" draggable="false" (load)="shape($any($event.target))" />
    @if (tall()) {
      <svg [attr.viewBox]="'0 0 ' + wide + ' ' + tall()" aria-hidden="true">
        @for (mark of marks(); track $index) {
          @if (mark.fill) {
            <path class="halo" [attr.d]="mark.fill" />
            <path class="line" [attr.d]="mark.fill" />
          }
          @if (mark.stroke) {
            <path class="halo arrow" [attr.d]="mark.stroke" />
            <path class="arrow" [attr.d]="mark.stroke" />
          }
          @if (mark.text) {
            <text class="halo" [attr.x]="mark.x" [attr.y]="mark.y">{{ mark.text }}</text>
            <text [attr.x]="mark.x" [attr.y]="mark.y">{{ mark.text }}</text>
          }
        }
      </svg>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      line-height: 0;
    }
    img {
      display: block;
      width: 100%;
      height: auto;
    }
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    .line {
      fill: var(--red);
    }
    .arrow {
      fill: none;
      stroke: var(--red);
      stroke-width: 9;
      stroke-linecap: round;
    }
    .halo {
      fill: var(--paper);
      stroke: var(--paper);
      stroke-width: 7;
      stroke-linejoin: round;
    }
    .halo.arrow {
      fill: none;
      stroke: var(--paper);
      stroke-width: 16;
    }
    text {
      fill: var(--red);
      font: 600 44px var(--narrow);
    }
    text.halo {
      stroke-width: 12;
    }
  `,
})
export class MarkedPicture {
  private readonly pictures = inject(Pictures);
  readonly picture = input.required<Picture>();
  protected readonly wide = WIDE;
  protected readonly tall = signal(0);
  protected readonly address = computed(() => this.pictures.address(this.picture().hash));
  protected readonly marks = computed(() => this.picture().marks.map((mark) => drawn(mark, this.tall())));
  /** What is written on it, for who cannot see it. */
  protected readonly words = computed(() => {
    const said = this.picture().marks.flatMap((mark) => (mark.kind === 'words' ? [mark.text] : []));
    return said.length ? `Photograph, marked: ${said.join(', ')}` : 'Photograph';
  });

  protected shape({ naturalWidth, naturalHeight }: HTMLImageElement): void {
    this.tall.set(naturalWidth ? Math.round((WIDE * naturalHeight) / naturalWidth) : 0);
  }
}
