import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LimitSheet } from '@isometra/core';
import { millGhosts, millPictureOf, TABLE_DEPTH, type KnownMill } from './mill';

/** A mill from the front, from the right and from above, bent by what is known of it; ghost lines are the limits. */
@Component({
  selector: 'iso-mill-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 960 470" role="img" aria-label="The mill from the front, the side and above, bent by what is known of it">
      <text class="words" x="30" y="24">from the front</text>
      <g transform="translate(180 0)">
        <line class="true" x1="0" x2="0" y1="36" y2="440" />
        <path class="bed" d="M-90 356H90V440H-90Z" />
        <g [attr.transform]="'rotate(' + picture().front.column + ' 0 330)'">
          <path class="bed" d="M-46 60H46V330H-46Z" />
        </g>
        @for (bound of ghosts().leanX; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.front.column + ' 0 330)'" d="M0 330V52" />
        }
        <g [attr.transform]="'rotate(' + picture().front.head + ' 0 150)'">
          <path class="iron" d="M-34 96H34V206H-34Z M-18 206H18V236H-18Z" />
          <path class="axis" d="M0 80V300" />
        </g>
        @for (bound of ghosts().tilt; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.front.head + ' 0 150)'" d="M0 236V318" />
        }
        <line class="true" x1="-150" x2="150" y1="330" y2="330" />
        <g [attr.transform]="'rotate(' + picture().front.table + ' 0 330)'">
          <path class="iron" d="M-130 330H130V352H-130Z" />
        </g>
        @for (bound of ghosts().tableX; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.front.table + ' 0 330)'" d="M130 330H150M-130 330H-150" />
        }
      </g>
      <text class="words" x="366" y="24">from the right</text>
      <g transform="translate(480 0)">
        <path class="bed" d="M-110 356H150V440H-110Z" />
        <line class="true" x1="100" x2="100" y1="36" y2="356" />
        <g [attr.transform]="'rotate(' + picture().side.column + ' 100 356)'">
          <path class="iron" d="M56 60H144V356H56Z" />
        </g>
        @for (bound of ghosts().leanY; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.side.column + ' 100 356)'" d="M100 356V52" />
        }
        <g [attr.transform]="'rotate(' + picture().side.head + ' 30 150)'">
          <path class="iron" d="M-34 96H34V206H-34Z M34 120H66V170H34Z M-18 206H18V236H-18Z" />
          <path class="axis" d="M0 80V300" />
        </g>
        @for (bound of ghosts().nod; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.side.head + ' 30 150)'" d="M0 236V318" />
        }
        <line class="true" x1="-120" x2="50" y1="330" y2="330" />
        <g [attr.transform]="'rotate(' + picture().side.table + ' -30 330)'">
          <path class="iron" d="M-90 330H40V352H-90Z" />
        </g>
        @for (bound of ghosts().tableY; track $index) {
          <path class="zone" [attr.transform]="'rotate(' + bound.side.table + ' -30 330)'" d="M-90 330H-112" />
        }
        <text class="words" x="-104" y="462">operator</text>
      </g>
      <text class="words" x="710" y="24">from above</text>
      <g transform="translate(828 0)">
        <path class="bed" d="M-46 60H46V118H-46Z" />
        <path class="true" fill="none" [attr.d]="outline(0)" />
        <path class="iron" fill-opacity="0.6" [attr.d]="outline(picture().shear)" />
        @for (bound of ghosts().squareness; track $index) {
          <path class="zone" [attr.d]="'M0 ' + near + 'L' + bound.shear + ' ' + far" />
        }
        <path class="axis" [attr.d]="'M0 ' + near + 'L' + picture().shear + ' ' + far" />
        <path class="axis" [attr.d]="'M-110 ' + near + 'H110'" />
        <text class="words" x="0" [attr.y]="near + 32" text-anchor="middle">operator</text>
      </g>
      <text class="words" x="950" y="462" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
  styleUrl: './picture.css',
})
export class MillPictureDrawing {
  readonly known = input.required<KnownMill>();
  readonly factor = input.required<number>();
  readonly judge = input<LimitSheet>();

  protected readonly near = 260;
  protected readonly far = this.near - TABLE_DEPTH;
  protected readonly picture = computed(() => millPictureOf(this.known(), this.factor()));
  /** Where things may stand by the survey's limits. */
  protected readonly ghosts = computed(() => millGhosts(this.judge(), this.factor()));

  /** The table from above, its column's end moved to the right by so much. */
  protected outline(shear: number): string {
    return `M-110 ${this.near}H110L${110 + shear} ${this.far}H${-110 + shear}Z`;
  }
}
