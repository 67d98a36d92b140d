import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { fieldAt, type CheckDefinition, sentence, sizesIn } from '@isometra/core';
import { drawMethod, SCENE_WIDTH, type MethodMark } from '@isometra/work/methods';
import { DIMENSION_LINES } from '../sketches/dimensions';
import { MethodDrawing } from '../sketches/method-drawing';
import { Settings } from '../data/settings';
import { bothUnits } from '../ui/say';
import type { PartsDraft } from './check-parts';

const NOTHING = { h: null, v: null, out: false };

/** What is set up, drawn before the first reading: the places, and what the lengths of the form are. */
@Component({
  selector: 'iso-set-up-picture',
  imports: [MethodDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet" inert>
      <iso-method-drawing [of]="drawn()" keepsDistance />
      <svg class="lines" [attr.viewBox]="frame()" aria-hidden="true">
        @for (line of lines(); track line.field) {
          <g [class.marked]="line.marked">
            <path [attr.d]="line.d" />
            <text [attr.x]="line.words[0]" [attr.y]="line.words[1]" [attr.text-anchor]="line.words[2]">
              <tspan class="name">{{ line.name }}</tspan>
              {{ line.figure }}
            </text>
          </g>
        }
      </svg>
    </div>
  `,
  styleUrl: '../sketches/marks.css',
  styles: `
    .sheet {
      position: relative;
    }
    .lines {
      position: absolute;
      inset: 0;
      width: 100%;
      overflow: visible;
      font-family: var(--words);
    }
    path {
      fill: none;
      stroke: var(--blue);
      stroke-width: 1.2;
    }
    text {
      fill: var(--blue);
      paint-order: stroke;
      stroke: var(--ground);
      stroke-width: 4px;
      stroke-linejoin: round;
    }
    /* There is room for the figures alone on a phone: their names stand over the fields. */
    @container (width < 492px) {
      .name {
        display: none;
      }
    }
    .marked path {
      stroke-width: 3;
    }
    .marked text {
      font-weight: 600;
    }
  `,
})
export class SetUpPicture {
  readonly check = input.required<CheckDefinition>();
  /** The parts with their units written out. */
  readonly draft = input.required<PartsDraft>();
  /** The field in hand, by its path. */
  readonly field = input('');

  private readonly settings = inject(Settings);

  private readonly setup = computed(() => {
    const { setup } = this.check();
    const typed = this.draft().setup;
    const whole = setup.safeParse(typed);
    if (whole.success) return { whole: true, values: whole.data as Readonly<Record<string, unknown>> };
    const known = Object.entries(setup.shape).flatMap(([key, schema]) => {
      const read = typed[key] === undefined ? undefined : schema.safeParse(typed[key]);
      return read?.success ? [[key, read.data] as const] : [];
    });
    return { whole: false, values: Object.fromEntries(known) as Readonly<Record<string, unknown>> };
  });

  private readonly marks = computed((): MethodMark[] => {
    const [check, { whole, values }] = [this.check(), this.setup()];
    if (!whole) return [];
    const plan = check.plan.safeParse(this.draft().plan);
    const places = check.slots(values, plan.success ? plan.data : check.plan.parse({}));
    const size = sizesIn(this.settings.shown());
    return places.map(({ keys, label }, index) => ({
      index,
      keys,
      label: sentence(label, size),
      state: 'todo',
      text: '',
      deviation: null,
    }));
  });

  protected readonly drawn = computed(() => ({
    setup: this.setup().values,
    marks: this.marks(),
    result: NOTHING,
    picture: this.check().picture,
  }));

  /** The viewBox of the drawing: the lines are laid over it in its own units. */
  protected readonly frame = computed(() => `0 0 ${SCENE_WIDTH} ${drawMethod(this.drawn()).height}`);

  protected readonly lines = computed(() => {
    const { drawing } = this.check().picture;
    return (DIMENSION_LINES[drawing] ?? []).flatMap(({ field, from, to, words }) => {
      const info = fieldAt(this.check().setup, field.split('.'));
      if (!info) return [];
      return [{ field, words, name: info.label, figure: this.figureOf(field), marked: field === this.field(), d: withArrows(from, to) }];
    });
  });

  /** "300 mm"; nothing as long as it is not filled in. */
  private figureOf(field: string): string {
    const within = (part: unknown, key: string) => (part as Readonly<Record<string, unknown>> | undefined)?.[key];
    const value = field.split('.').reduce(within, this.setup().values);
    return typeof value === 'number' ? bothUnits(value, 'length', { ...this.settings.shown(), fineness: 'coarse' }).large : '';
  }
}

/** A line with a stroke and an arrow at each end. */
function withArrows([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]): string {
  const level = y1 === y2;
  const stroke = (x: number, y: number) => (level ? `M${x} ${y - 7}V${y + 7}` : `M${x - 7} ${y}H${x + 7}`);
  const arrow = (x: number, y: number, inward: 1 | -1) =>
    level
      ? `M${x + 7 * inward} ${y - 4}L${x} ${y}L${x + 7 * inward} ${y + 4}`
      : `M${x - 4} ${y + 7 * inward}L${x} ${y}L${x + 4} ${y + 7 * inward}`;
  const line = `M${x1} ${y1}L${x2} ${y2}${stroke(x1, y1)}${stroke(x2, y2)}`;
  // Too short for arrows inside: the strokes alone.
  return Math.abs(x2 - x1) + Math.abs(y2 - y1) < 30 ? line : `${line}${arrow(x1, y1, 1)}${arrow(x2, y2, -1)}`;
}
