import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { readNumber } from '@isometra/core';
import type { RegisterUse } from '@isometra/contract';
import { registerValue, showsOther, type LeftAt, type RegisterBase, type Unsettled } from '@isometra/work';
import { nowText } from '../data/clock';
import { Pictures } from '../data/pictures';
import { Again } from '../ui/again';
import { Button } from '../ui/controls';
import { Choices, type Choice } from '../ui/choices';
import { Field } from '../ui/field';
import { File } from '../ui/file';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { smallPhoto } from '../ui/small-photo';

/** A register as the machine card tells it; what nobody has said is asked on the change sheet. */
export type KnownRegister = Pick<RegisterUse, 'name'> &
  Partial<Pick<RegisterUse, 'axis' | 'kind' | 'unit' | 'programming' | 'digits'> & Pick<RegisterBase, 'scope' | 'station'>>;

/** Control parameters: what is asked of them before the change sheet is filled in. */
const KINDS: readonly Choice<RegisterUse['kind']>[] = [
  { value: 'added', label: 'added by the control: tool, work, geometry' },
  { value: 'reference', label: 'a reference: home, grid shift' },
];
const UNITS: readonly Choice<RegisterUse['unit']>[] = [
  { value: 'mm', label: 'mm' },
  { value: 'inch', label: 'inch' },
];
const COUNTS: readonly Choice<RegisterUse['programming']>[] = [
  { value: 'radius', label: 'radius' },
  { value: 'diameter', label: 'diameter' },
];

/**
 * A value as it stands on a control: in the register's own unit, with no more digits than it holds; or what is wrong with it.
 *
 * @param name of the field, for the words of what is wrong.
 */
export function figureOf(
  text: string,
  name: string,
  { unit, digits }: Pick<RegisterUse, 'digits'> & { readonly unit: RegisterUse['unit'] | null },
): { readonly value: number | null; readonly problem: string } {
  const [typed, parsed] = [text.trim(), readNumber(text.trim())];
  if (typed && parsed && (parsed.unit === '' || parsed.unit === (unit === 'inch' ? 'in' : 'mm'))) {
    // With more digits it is another register, or another unit.
    if (Math.abs(parsed.value - Number(parsed.value.toFixed(digits))) < 1e-9) return { value: parsed.value, problem: '' };
    const problem = `${name}: "${typed}" has more than the ${digits} digits after the point that this register holds. Example: ${parsed.value.toFixed(digits)}`;
    return { value: null, problem };
  }
  const what = typed ? `"${typed}" is no value of this register` : 'is missing';
  return { value: null, problem: `${name}: ${what}. Example: ${unit === 'inch' ? '12.0281' : '305.525'}` };
}

/** Which register it is, and the old value off the control: locked before anything is changed, and never changed again. */
@Component({
  selector: 'iso-register-lock',
  imports: [Again, Button, Choices, Field, File, Notice, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './register-lock.html',
  styleUrls: ['../job/job-panel.css', './offset-change.css', './register-lock.css'],
})
export class RegisterLock {
  /** What the two readings on the register's own line differ by, µm. */
  readonly total = input.required<number>();
  readonly registers = input<readonly KnownRegister[]>([]);
  /** The register that was changed for this before. */
  readonly usual = input<string | null>(null);
  /** Registers that were changed before and are not right yet. */
  readonly unsettled = input<Readonly<Record<string, Unsettled>>>({});
  /** What was last entered into each register, by its name. */
  readonly left = input<Readonly<Record<string, LeftAt>>>({});
  /** When the round was read that the card is made from. */
  readonly readAt = input('');
  /** A change sheet whose old value was mistyped: what was said of its register stays. */
  readonly from = input<RegisterUse | undefined>(undefined);
  readonly by = input('?');
  readonly locked = output<RegisterUse>();

  protected readonly problem = signal('');
  protected readonly KINDS = KINDS;
  protected readonly UNITS = UNITS;
  protected readonly COUNTS = COUNTS;

  // Which register it is: of the card, or described here.
  // Where there are several, nobody guesses: the one that was used for this before, or none until it is said.
  protected readonly picked = linkedSignal<string | null>(() => {
    const [known, usual] = [this.registers(), this.usual()];
    const name = this.from()?.name ?? usual ?? (known.length === 1 ? known[0].name : null);
    if (name === null) return known.length ? null : '';
    return known.some((entry) => entry.name === name) ? name : '';
  });
  protected readonly name = linkedSignal(() => this.picked() || (this.picked() === '' ? (this.from()?.name ?? '') : ''));
  /** What was said of the same register before. */
  private readonly said = computed(() => (this.from()?.name === this.name() ? this.from() : this.known()));
  protected readonly known = computed(() => this.registers().find(({ name }) => name === this.name()));
  protected readonly names = computed(() => [
    ...this.registers().map(({ name }) => ({ value: name, label: name })),
    { value: '', label: 'another one' },
  ]);
  protected choose(name: unknown): void {
    this.picked.set(String(name));
  }

  protected readonly axis = linkedSignal(() => this.said()?.axis ?? '');
  protected readonly kind = linkedSignal(() => this.said()?.kind ?? null);
  protected readonly unit = linkedSignal(() => this.said()?.unit ?? null);
  protected readonly counts = linkedSignal(() => this.said()?.programming ?? null);
  protected readonly digits = linkedSignal(() => String(this.said()?.digits ?? ''));

  /** What was done to this register before, and is not right yet. */
  protected readonly before = computed(() => this.unsettled()[this.name().trim()] ?? null);

  /** What was last entered into this one. */
  private readonly leftHere = computed(() => this.left()[this.name().trim()]);
  /** The first old value of a register that is not right yet: it stays, whatever the control shows now. */
  protected readonly firstOld = computed(() => {
    const [old, left] = [this.before()?.old, this.leftHere()];
    return old && left ? registerValue(old.value, left) : '';
  });
  /** Changed after this round was read: what it read is not of what stands there now. */
  protected readonly changedSince = computed(() => this.readAt() !== '' && (this.leftHere()?.at ?? '') > this.readAt());
  /** What the figure off the control is called: of a register that was changed before it is no old value any more. */
  protected readonly figureName = computed(() => (this.before() ? 'What it shows now' : 'Old value'));
  /** Read off the control each time, never filled in: another register is typed over with what was not looked at. */
  protected readonly old = linkedSignal({ source: this.name, computation: () => '' });
  protected readonly sure = linkedSignal({ source: this.name, computation: () => false });
  protected readonly asksIfSure = signal(false);

  /** Why a value off the control cannot be what it stands at, or is not taken before somebody has made sure; empty where it is. */
  private otherwise(value: number, unit: RegisterUse['unit'], digits: number): string {
    const left = this.leftHere();
    if (!left || !showsOther(value, unit, left)) return '';
    const words = `${this.figureName()}: it was left at ${registerValue(left.value, left)}${left.by === '?' ? '' : ` by ${left.by}`}, and is said to show ${registerValue(value, { unit, digits })}`;
    if (this.before())
      return `${words}. The last round no longer applies. Check that this is the right register; if somebody has changed it since, set it back from the log of registers first.`;
    if (this.sure()) return '';
    this.asksIfSure.set(true);
    return `${words}. Look whether it is the right register, and tick that it is.`;
  }
  protected readonly where = signal('');
  /** A photograph of the screen of the control, by its name. */
  protected readonly photo = signal<string | undefined>(undefined);
  private readonly pictures = inject(Pictures);
  protected readonly photoAddress = computed(() => {
    const name = this.photo();
    return name ? this.pictures.address(name) : '';
  });
  protected async keepPhoto(file: Blob): Promise<void> {
    this.problem.set('');
    try {
      this.photo.set(await this.pictures.keep(await smallPhoto(file)));
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  private read(): number | null {
    const { value, problem } = figureOf(this.old(), this.figureName(), { unit: this.unit(), digits: Number(this.digits()) });
    this.problem.set(problem);
    return value;
  }

  /** What of the register was not said, in a sentence; empty where all was. */
  private unsaid(): string {
    const digits = Number(this.digits());
    if (this.picked() === null) return 'Register: say which one it is';
    if (!this.name().trim()) return 'Register: is missing. Example: work shift X';
    if (this.kind() === null) return 'Register: say whether the control adds it, or whether it is a reference';
    if (this.unit() === null) return 'Register: say whether it is in mm or in inch';
    if (this.counts() === null) return 'Register: say whether it counts a radius or a diameter';
    return Number.isInteger(digits) && digits >= 1 && digits <= 6 ? '' : 'Digits: must be a whole number from 1 to 6. Example: 3';
  }

  private readNow(value: number): NonNullable<RegisterUse['old']> {
    const photo = this.photo();
    return { value, where: this.where().trim(), at: nowText(), by: this.by(), ...(photo && { photo }) };
  }

  /** Lock the old value: from here on it is not changed, whatever is entered. */
  protected lock(): void {
    const [kind, unit, programming, name] = [this.kind(), this.unit(), this.counts(), this.name().trim()];
    const digits = Number(this.digits());
    const unsaid = this.unsaid();
    // All of them are said by now; that they are is told to the compiler too.
    if (unsaid || kind === null || unit === null || programming === null) return this.problem.set(unsaid);
    if (this.changedSince()) return;
    const value = this.read();
    if (value === null) return;
    const otherwise = this.otherwise(value, unit, digits);
    if (otherwise) return this.problem.set(otherwise);
    this.problem.set('');
    this.locked.emit({
      ...{ name, axis: this.axis().trim() || name, kind, unit, programming, digits, total: this.before()?.total ?? this.total() },
      old: this.before()?.old ?? this.readNow(value),
      ...{ jog: null, homings: 0, power: 0, entered: null },
    });
  }
}
