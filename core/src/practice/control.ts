/** What a control counts in: mm or inch, a radius or a diameter. */
export interface Counting {
  readonly unit: 'mm' | 'inch';
  readonly counts: 'radius' | 'diameter';
}

/** The truth of a control with one register, which no reading shows. */
export interface ControlTruth {
  /** µm that the part stands off along the slide when homed, + toward the operator. */
  readonly off: number;
  /** +1 where a jog of + takes the part toward the operator. */
  readonly way: 1 | -1;
  readonly kind: 'added' | 'reference';
  /** Of a reference: +1 where a larger value takes the part the way of a + jog. */
  readonly kappa: 1 | -1;
  readonly display: Counting;
  readonly register: Counting;
  /** The value that stands in the register, in its own unit. */
  readonly first: number;
  /** µm along the slide that it stands off besides, until it is homed. */
  readonly homingError?: number;
  /** How often it is homed, and switched off and on, until it takes a value up. */
  readonly homing?: { readonly times: number; readonly power: number };
}

/** µm of radius that one unit of a counting is. */
const micronsOf = ({ unit, counts }: Counting): number => (1000 * (unit === 'inch' ? 25.4 : 1)) / (counts === 'diameter' ? 2 : 1);

/**
 * A turning centre's control with one register, as a forward model: what the two readings on the line of the slide differ by,
 * for what is jogged, entered, homed and switched.
 */
export class PracticeControl {
  private off: number;
  private taken: number;
  private entered: number;
  private homings = 0;
  private switchings = 0;
  private isHomed = false;

  constructor(private readonly truth: ControlTruth) {
    this.off = truth.off;
    this.taken = this.entered = truth.first;
  }

  /** µm that the two readings differ by, half a turn apart, the slide at its stored zero. */
  get total(): number {
    return 2 * (this.off + (this.isHomed ? 0 : (this.truth.homingError ?? 0)));
  }

  /** µm that the two readings differ by after a jog of so much on the display. */
  jogged(by: number): number {
    return this.total + 2 * this.truth.way * by * micronsOf(this.truth.display);
  }

  /** What the display goes by until the two readings agree. */
  get wholeJog(): number {
    return (-this.truth.way * this.total) / 2 / micronsOf(this.truth.display);
  }

  /** Enter a value into the register: it counts once it is taken up. */
  enter(value: number): void {
    this.entered = value;
    this.homings = this.switchings = 0;
  }

  /** The part is moved along the slide by hand, µm, + toward the operator: no register knows of it. */
  knock(by: number): void {
    this.off += by;
  }

  /** Home the axes. */
  home(): void {
    this.isHomed = true;
    this.homings += 1;
    this.takeUp();
  }

  /** Switch off and on: it is not homed after that. */
  switchOver(): void {
    this.switchings += 1;
    this.isHomed = false;
    this.takeUp();
  }

  /** Enter a value and do all that the control needs to take it up. */
  put(value: number): void {
    this.enter(value);
    const { times = 1, power = 0 } = this.truth.homing ?? {};
    for (let i = 0; i < power; i += 1) this.switchOver();
    for (let i = 0; i < Math.max(1, times); i += 1) this.home();
  }

  private takeUp(): void {
    const { times = 1, power = 0 } = this.truth.homing ?? {};
    if (this.homings < times || this.switchings < power) return;
    const sign = this.truth.kind === 'reference' ? this.truth.kappa : 1;
    this.off += this.truth.way * sign * (this.entered - this.taken) * micronsOf(this.truth.register);
    this.taken = this.entered;
  }
}
