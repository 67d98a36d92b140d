import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { dialDivisions, nodLanding, nodTarget, nodTravel, nodWays, readingValue, type Instrument, type Sides } from '@isometra/core';
import type { Made } from '@isometra/contract';
import { pivotFrom } from '@isometra/work';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Grid } from '../ui/grid';
import { Notice } from '../ui/notice';
import { bothUnits } from '../ui/say';
import { canFollow, pinOf } from './nod-dial';
import { doubtOfDial, roundsWords, WAY_NAMES } from './nod-words';
import { rounded } from './screw-target';

type Strokes = NonNullable<Made['nod']>;
const TALL = 44;

/**
 * The nod of a head that turns on a pin behind its spindle: three ways to bring it down, the figure at which one move is
 * enough, and where the pin lies, learned from strokes in which nothing is tightened and the table is left alone.
 */
@Component({
  selector: 'iso-nod-strokes',
  imports: [Button, Field, Grid, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './nod-strokes.html',
  styleUrl: './job-panel.css',
})
export class NodStrokes {
  /** What both sides read in the round, µm. */
  readonly before = input.required<Sides>();
  /** mm. */
  readonly radius = input.required<number>();
  readonly instrument = input.required<Instrument>();
  /** µm/m. */
  readonly limit = input.required<number>();
  readonly aim = input(0);
  /** mm behind the spindle, from the set-up; and what strokes on this machine have taught. */
  readonly told = input<number | null>(null);
  readonly learned = input<{ readonly pivot: number; readonly doubt: number } | null>(null);
  readonly nod = input<Strokes | undefined>(undefined);
  readonly changed = output<Strokes>();

  private readonly settings = inject(Settings);
  private readonly operator = signal('');
  private readonly column = signal('');
  /** What is typed of the two sides, in the order of the table. */
  protected readonly fields = [
    { name: 'Your side now reads', text: this.operator },
    { name: 'Column side now reads', text: this.column },
  ];
  protected readonly problem = signal('');

  protected readonly strokes = computed(
    (): Strokes => this.nod() ?? { radius: this.radius(), doubt: doubtOfDial(this.instrument()), sides: [this.before()] },
  );
  /** What was read, and the line that is written next. */
  protected readonly lines = computed(() => [...this.strokes().sides.map((read) => ({ read })), { read: null }]);
  protected readonly now = computed(() => this.strokes().sides.at(-1) ?? this.before());
  /** What these strokes say of the pin. */
  protected readonly found = computed(() => pivotFrom(this.strokes()));
  /** Where the pin lies, by the surest word there is: these strokes, those before, the card. */
  protected readonly pivot = computed((): { readonly pivot: number; readonly doubt: number; readonly from: string } | null => {
    return pinOf({ pivot: this.told(), learned: this.learned() }, this.strokes());
  });
  private readonly facts = computed(() => {
    const pivot = this.pivot()?.pivot;
    return pivot === undefined ? null : { radius: this.radius(), pivot, now: this.now(), limit: this.limit(), aim: this.aim() };
  });
  /** µm by which the sides may differ. */
  private readonly within = computed(() => (2 * this.radius() * this.limit()) / 1000);
  protected readonly ways = computed(() => {
    const facts = this.facts();
    if (!facts) return [];
    const ways = nodWays(facts);
    const largest = Math.max(...ways.flatMap(({ left }) => left.map(Math.abs)), 1e-9);
    return ways.map((way) => ({
      way: way.way,
      name: WAY_NAMES[way.way],
      rounds: roundsWords(way),
      bars: way.left.map((left, i) => {
        const height = (Math.abs(left) / largest) * TALL;
        return { x: i * 16, height: Math.max(1, height), y: TALL - Math.max(1, height) };
      }),
      limit: TALL - (this.within() / largest) * TALL,
    }));
  });
  protected readonly TALL = TALL;
  private readonly div = (um: number): number => rounded(dialDivisions(um, this.instrument()), this.instrument().readTo);
  protected readonly shown = (um: number): string => `${this.div(um)} div`;
  protected readonly size = (mm: number): string => bothUnits(mm, 'length', { ...this.settings.shown(), fineness: 'coarse' }).large;

  /** The figure at which each side stops, and whether the dial can go there. */
  protected readonly target = computed(() => {
    const facts = this.facts();
    if (!facts) return null;
    const [stop, travel] = [nodTarget(facts), nodTravel(facts)];
    const can = canFollow(this.instrument(), travel);
    return { operator: this.shown(stop.operator), column: this.shown(stop.column), can };
  });
  /** Within what it lands after the one move, µm and µm/m: the doubt of the pin and of the reading. */
  protected readonly landing = computed(() => {
    const [pivot, facts] = [this.pivot(), this.facts()];
    if (!pivot || !facts) return null;
    const difference = facts.now.operator - facts.now.column;
    const lands = nodLanding(difference, pivot, this.radius(), this.strokes().doubt);
    return {
      size: bothUnits(lands, 'deviation', { ...this.settings.shown(), fineness: 'fine' }, lands).large,
      enough: lands <= this.within(),
    };
  });
  protected readonly square = computed(() => {
    const { operator, column } = this.now();
    return Math.abs(operator - column - (2 * this.radius() * this.aim()) / 1000) <= this.within();
  });

  private read(text: string): number | null {
    const parsed = readingValue(text.trim(), 'indicator', this.instrument());
    return parsed.ok && text.trim() ? parsed.value : null;
  }

  protected add(): void {
    const [operator, column] = [this.read(this.operator()), this.read(this.column())];
    if (operator === null || column === null) {
      const which = operator === null ? ['operator’s', this.operator()] : ['column', this.column()];
      this.problem.set(`The ${which[0]} side now reads: "${which[1]}" is no reading of this dial. Example: -13.5 div`);
      return;
    }
    this.problem.set('');
    const strokes = this.strokes();
    this.changed.emit({ ...strokes, sides: [...strokes.sides, { operator, column }] });
    this.operator.set('');
    this.column.set('');
  }

  protected takeBack(): void {
    const strokes = this.strokes();
    if (strokes.sides.length > 1) this.changed.emit({ ...strokes, sides: strokes.sides.slice(0, -1) });
  }
}
