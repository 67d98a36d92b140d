import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { featuresOf } from '@isometra/contract/machine-kinds';
import type { KnownMill } from '@isometra/work';
import { millPictureOf, TABLE_DEPTH, type MillPicture } from './mill';

/** Pictures of a mill at both bounds of each limit. */
export type MillGhosts = Readonly<Partial<Record<keyof KnownMill, readonly MillPicture[]>>>;

const NONE: MillGhosts = {};

/** A piece that turns: its outline and its ghost, what it turns about, by how much, and by how much at its bounds. */
const piece = (d: string, ghost: string, about: string, turn: number, ghosts: readonly number[]) => ({ d, ghost, about, turn, ghosts });

/** What carries the table: a base with ways, a knee on the column, or a base with rails and trucks. */
type Carried = 'base' | 'knee' | 'rails';
const FRONT_BASE: Readonly<Record<Carried, string>> = {
  base: 'M-90 356H90V440H-90Z',
  knee: 'M-100 424H100V440H-100Z',
  rails: 'M-110 374H110V440H-110Z',
};
const FRONT_CARRIES: Readonly<Record<Carried, readonly string[]>> = {
  base: [],
  // Saddle, knee and its screw.
  knee: ['M-78 353H78V366H-78Z', 'M-58 366H58V404H-58Z', 'M-8 404H8V424H-8Z'],
  // Two rails with a truck each under the table.
  rails: ['M-92 366H-56V374H-92Z M56 366H92V374H56Z', 'M-88 353H-60V366H-88Z M60 353H88V366H60Z'],
};
const SIDE_BASE: Readonly<Record<Carried, string>> = {
  base: 'M-110 356H150V440H-110Z',
  knee: 'M-60 424H150V440H-60Z M56 356H144V424H56Z',
  rails: 'M-110 374H150V440H-110Z',
};
const SIDE_CARRIES: Readonly<Record<Carried, readonly string[]>> = {
  base: [],
  knee: ['M-74 353H30V366H-74Z', 'M-60 366H56V404H-60Z', 'M-32 404H-18V424H-32Z'],
  rails: ['M-100 366H50V374H-100Z', 'M-82 353H-56V366H-82Z M8 353H34V366H8Z'],
};

const HEAD = 'M-34 96H34V206H-34Z M-18 206H18V236H-18Z';

/** A mill from the front, from the right and from above, bent by what is known of it; ghost lines are the limits. */
@Component({
  selector: 'iso-mill-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 960 470" role="img" aria-label="The mill from the front, the side and above, bent by what is known of it">
      @for (view of upright(); track view.title) {
        <text class="words" [attr.x]="view.x - 114" y="24">{{ view.title }}</text>
        <g [attr.transform]="'translate(' + view.x + ' 0)'">
          <path class="bed" [attr.d]="view.base" />
          @for (part of view.carries; track $index) {
            <path class="bed" [attr.d]="part" />
          }
          <path class="true" [attr.d]="view.trueLines" />
          <path
            [class]="view.behind ? 'bed' : 'iron'"
            [attr.d]="view.column.d"
            [attr.transform]="'rotate(' + view.column.turn + view.column.about + ')'"
          />
          @for (turn of view.column.ghosts; track $index) {
            <path class="zone" [attr.d]="view.column.ghost" [attr.transform]="'rotate(' + turn + view.column.about + ')'" />
          }
          <g [attr.transform]="'rotate(' + view.head.turn + view.head.about + ')'">
            <path class="iron head" [attr.d]="view.head.d" />
            <path class="axis" d="M0 80V300" />
          </g>
          @for (turn of view.head.ghosts; track $index) {
            <path class="zone" [attr.d]="view.head.ghost" [attr.transform]="'rotate(' + turn + view.head.about + ')'" />
          }
          <path class="iron" [attr.d]="view.table.d" [attr.transform]="'rotate(' + view.table.turn + view.table.about + ')'" />
          @for (turn of view.table.ghosts; track $index) {
            <path class="zone" [attr.d]="view.table.ghost" [attr.transform]="'rotate(' + turn + view.table.about + ')'" />
          }
          @if (!view.behind) {
            <text class="words" x="-104" y="462">operator</text>
          }
        </g>
      }
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
        @if (known().slot !== undefined) {
          <path class="axis" d="M-96 222H96" [attr.transform]="'rotate(' + picture().plan.slot + ' 0 222)'" />
          @for (bound of ghosts().slot; track $index) {
            <path class="zone" d="M-104 222H104" [attr.transform]="'rotate(' + bound.plan.slot + ' 0 222)'" />
          }
        }
        @if (known().vice !== undefined) {
          <path class="iron" d="M-56 168H56V186H-56Z" [attr.transform]="'rotate(' + picture().plan.vice + ' 0 186)'" />
          @for (bound of ghosts().vice; track $index) {
            <path class="zone" d="M-70 186H70" [attr.transform]="'rotate(' + bound.plan.vice + ' 0 186)'" />
          }
        }
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
  /** Where things may stand by the survey's limits. */
  readonly ghosts = input(NONE, { transform: (ghosts: MillGhosts | undefined) => ghosts ?? NONE });

  /** What kind of mill it is. */
  readonly kind = input('');

  protected readonly carried = computed((): Carried => {
    const has = featuresOf(this.kind());
    return has.includes('knee') ? 'knee' : has.includes('trucks') ? 'rails' : 'base';
  });
  protected readonly near = 260;
  protected readonly far = this.near - TABLE_DEPTH;
  protected readonly picture = computed(() => millPictureOf(this.known(), this.factor()));

  /** Both upright views: what stands where, what it turns about, and by how much. */
  protected readonly upright = computed(() => {
    const [{ front, side }, ghosts] = [this.picture(), this.ghosts()];
    return [
      {
        title: 'from the front',
        x: 180,
        behind: true,
        base: FRONT_BASE[this.carried()],
        carries: FRONT_CARRIES[this.carried()],
        trueLines: 'M0 36V440M-150 330H150',
        column: piece(
          'M-46 60H46V330H-46Z',
          'M0 330V52',
          ' 0 330',
          front.column,
          (ghosts.leanX ?? []).map((bound) => bound.front.column),
        ),
        head: piece(
          HEAD,
          'M0 236V318',
          ' 0 150',
          front.head,
          (ghosts.tilt ?? []).map((bound) => bound.front.head),
        ),
        table: piece(
          'M-130 330H130V352H-130Z',
          'M130 330H150M-130 330H-150',
          ' 0 330',
          front.table,
          (ghosts.tableX ?? []).map((bound) => bound.front.table),
        ),
      },
      {
        title: 'from the right',
        x: 480,
        behind: false,
        base: SIDE_BASE[this.carried()],
        carries: SIDE_CARRIES[this.carried()],
        trueLines: 'M100 36V356M-120 330H50',
        column: piece(
          'M56 60H144V356H56Z',
          'M100 356V52',
          ' 100 356',
          side.column,
          (ghosts.leanY ?? []).map((bound) => bound.side.column),
        ),
        head: piece(
          `${HEAD} M34 120H66V170H34Z`,
          'M0 236V318',
          ' 30 150',
          side.head,
          (ghosts.nod ?? []).map((bound) => bound.side.head),
        ),
        table: piece(
          'M-90 330H40V352H-90Z',
          'M-90 330H-112',
          ' -30 330',
          side.table,
          (ghosts.tableY ?? []).map((bound) => bound.side.table),
        ),
      },
    ];
  });

  /** The table from above, its column's end moved to the right by so much. */
  protected outline(shear: number): string {
    return `M-110 ${this.near}H110L${110 + shear} ${this.far}H${-110 + shear}Z`;
  }
}
