import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { parseQuantity, planLeavesWords, planMove, MOVE_FORMAT, type Dimension, type QuantityInfo } from '@isometra/core';
import type { Made } from '@isometra/contract';
import { Settings } from '../data/settings';
import { Choices } from '../ui/choices';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { bothUnits, placedWords, sizeOf, slopeOver } from '../ui/say';

type Sine = NonNullable<Made['sine']>;
type Side = 'higher' | 'alike' | 'lower';

const TYPED = { mm: { deviation: 'um', length: 'mm' }, inch: { deviation: 'thou', length: 'in' } } as const;
const EXAMPLE = { mm: { deviation: '8 um', length: '75 mm' }, inch: { deviation: '0.3 thou', length: '3 in' } } as const;

/** How a sine plate is set for a column: its own error closed, the stack under which roll, the leaves, and what they leave over. */
@Component({
  selector: 'iso-sine-setting',
  imports: [Choices, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sine-setting.html',
  styleUrl: './job-panel.css',
})
export class SineSetting {
  /** The change that is wanted, µm/m, signed like the quantity; and what it is to read after it. */
  readonly amount = input.required<number>();
  readonly aim = input(0);
  readonly limit = input<readonly [number | null, number | null]>([null, null]);
  readonly info = input<QuantityInfo | undefined>(undefined);
  /** The side of the foot that has to come down: "the left side". */
  readonly lower = input('the side that has to come down');
  readonly raise = input('the other side');
  readonly plates = input<readonly { readonly name: string; readonly rolls: number }[]>([]);
  readonly stock = input<readonly unknown[]>([]);
  readonly set = input<Sine | undefined>(undefined);
  readonly changed = output<{ readonly sine: Sine; readonly plan: Readonly<Record<string, unknown>> }>();

  private readonly settings = inject(Settings);
  protected readonly problem = signal('');
  protected readonly example = computed(() => EXAMPLE[this.settings.system()]);
  private readonly mm = (length: number): string => bothUnits(length, 'length', { ...this.settings.shown(), fineness: 'coarse' }).large;
  private readonly um = (size: number): string => bothUnits(size, 'deviation', { ...this.settings.shown(), fineness: 'coarse' }).large;

  protected readonly sine = computed((): Sine | null => {
    const rolls = this.plates().at(0)?.rolls;
    return this.set() ?? (rolls === undefined ? null : { rolls, zero: null });
  });
  protected readonly plateChoices = computed(() => this.plates().map(({ name, rolls }) => ({ value: rolls, label: name })));

  // As typed.
  protected readonly rolls = linkedSignal(() => (this.sine() ? this.mm(this.sine()?.rolls ?? 0) : ''));
  protected readonly side = linkedSignal((): Side | null => {
    const zero = this.set()?.zero;
    return zero ? (zero.reads > 0 ? 'higher' : zero.reads < 0 ? 'lower' : 'alike') : null;
  });
  protected readonly reads = linkedSignal(() => (this.set()?.zero?.reads ? this.um(Math.abs(this.set()?.zero?.reads ?? 0)) : ''));
  protected readonly over = linkedSignal(() => (this.set()?.zero?.reads ? this.mm(this.set()?.zero?.over ?? 0) : ''));
  protected readonly sides = [
    { value: 'alike', label: 'the same at both ends' },
    { value: 'higher', label: 'higher there' },
    { value: 'lower', label: 'lower there' },
  ];

  /** The plan of this setting; null without a plate. */
  protected readonly plan = computed(() => {
    const sine = this.sine();
    return sine ? this.planOf(sine) : null;
  });
  /** What a stack of blocks leaves over, and where the value ends with it. @param residual in the quantity's unit; null where none is known. */
  private endsAt(residual: number | null, stack: number): { readonly over: string; readonly ends: string } {
    if (residual === null) return { over: '', ends: '' };
    const shown = this.settings.shown();
    const ends = this.aim() - Math.sign(this.amount()) * Math.sign(stack || 1) * residual;
    const [low, high] = this.limit();
    const inside = ends >= (low ?? -Infinity) && ends <= (high ?? Infinity);
    return {
      over: sizeOf(Math.abs(residual), this.info(), shown, 1).large,
      ends: `${placedWords(ends, this.info(), shown, 1)}, ${inside ? 'in' : 'still out'}`,
    };
  }
  protected readonly told = computed(() => {
    const [plan, sine] = [this.plan(), this.sine()];
    if (!plan || !sine) return null;
    const stack = Number(plan['stack']);
    const shown = this.settings.shown();
    return {
      stack: this.um(Math.abs(stack)),
      under: stack < 0 ? this.raise() : this.lower(),
      leaves: planLeavesWords(plan, { size: this.um }) ?? '',
      ...this.endsAt(typeof plan['residual'] === 'number' ? plan['residual'] : null, stack),
      own: sine.zero?.reads ? slopeOver((1000 * Math.abs(sine.zero.reads)) / sine.zero.over, 300, shown, 1) : '',
    };
  });

  private planOf({ rolls, zero }: Sine): Readonly<Record<string, unknown>> {
    const zeroSlope = zero ? (1000 * zero.reads) / zero.over : 0;
    const stock = this.stock().length ? { stock: this.stock() } : {};
    // The leaves may miss by as much as a dial of the column could tell: the fewest of those.
    return planMove({
      format: MOVE_FORMAT,
      move: 'sine-stack',
      slope: Math.abs(this.amount()),
      zeroSlope,
      rolls,
      tolerance: '1 um',
      ...stock,
    });
  }

  private read(text: string, dimension: Extract<Dimension, 'deviation' | 'length'>, name: string): number | null {
    const parsed = parseQuantity(text.trim(), dimension, TYPED[this.settings.system()][dimension]);
    if (text.trim() && parsed.ok && parsed.value > 0) return parsed.value;
    this.problem.set(`${name}: ${text.trim() ? `"${text.trim()}" is no size` : 'is missing'}. Example: ${this.example()[dimension]}`);
    return null;
  }

  private tell(sine: Sine): void {
    this.problem.set('');
    this.changed.emit({ sine, plan: this.planOf(sine) });
  }

  protected setRolls(): void {
    const rolls = this.read(this.rolls(), 'length', 'Between the rolls');
    if (rolls !== null) this.tell({ rolls, zero: this.sine()?.zero ?? null });
  }

  protected choosePlate(rolls: unknown): void {
    this.tell({ rolls: Number(rolls), zero: null });
  }

  protected setSide(side: unknown): void {
    this.side.set(side as Side);
    this.zero();
  }

  /** The zero check as it stands in its fields; nothing is kept before all of it is there. */
  protected zero(): void {
    const [side, sine] = [this.side(), this.sine()];
    if (!sine || side === null) return;
    if (side === 'alike') return this.tell({ ...sine, zero: { reads: 0, over: sine.rolls } });
    if (!this.reads().trim() || !this.over().trim()) return;
    const reads = this.read(this.reads(), 'deviation', 'The block reads');
    const over = reads === null ? null : this.read(this.over(), 'length', 'Over');
    if (reads !== null && over !== null) this.tell({ ...sine, zero: { reads: side === 'lower' ? -reads : reads, over } });
  }
}
