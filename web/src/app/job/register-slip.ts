import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { parseQuantity, readingValue, readNumber, type Instrument } from '@isometra/core';
import type { RegisterUse } from '@isometra/contract';
import {
  displayCounts,
  enteredOn,
  isLarge,
  registerPlan,
  registerValue,
  stillOwed,
  takenValue,
  type Recheck,
  type RegisterBase,
  type Unsettled,
} from '@isometra/work';
import { nowText } from '../data/clock';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Choices, type Choice } from '../ui/choices';
import { File } from '../ui/file';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { smallPhoto } from '../ui/small-photo';
import { bothUnits } from '../ui/say';
import { owedWords, recheckWords } from './register-words';

/** A register as the machine card tells it; what nobody has said is asked on the slip. */
export type KnownRegister = Pick<RegisterUse, 'name'> &
  Partial<Pick<RegisterUse, 'axis' | 'kind' | 'unit' | 'programming' | 'digits'> & Pick<RegisterBase, 'scope' | 'station'>>;

/** Control parameters: what is asked of them before the slip is filled in. */
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
 * The slip of a register: the old value, locked before anything is changed; the sign by a jog; two new values with what
 * the next check reads if it was the wrong one; what was entered; and, once it was read again, what that says. The value is
 * shown, and never sent anywhere.
 */
@Component({
  selector: 'iso-register-slip',
  imports: [Button, Choices, Field, File, Notice, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './register-slip.html',
  styleUrls: ['./job-panel.css', './register-slip.css'],
})
export class RegisterSlip {
  /** What the two readings on the register's own line differ by, µm, + toward the operator; and how surely. */
  readonly total = input.required<number>();
  readonly doubt = input(0);
  /** Whether the round was read with the axes homed: any other feeds no register. */
  readonly homed = input(false);
  /** + where a needle that counts up says that the centre goes toward the operator. */
  readonly toward = input<1 | -1>(-1);
  readonly instrument = input<Instrument | undefined>(undefined);
  readonly registers = input<readonly KnownRegister[]>([]);
  /** The register that was changed for this before. */
  readonly usual = input<string | null>(null);
  readonly homing = input<{ readonly times: number; readonly power: number }>({ times: 1, power: 0 });
  /** κ by axis, where it has been learned. */
  readonly kappa = input<Readonly<Record<string, 1 | -1>>>({});
  /** Registers that were changed before and are not right yet: their way goes on from the first old value. */
  readonly unsettled = input<Readonly<Record<string, Unsettled>>>({});
  readonly use = input<RegisterUse | undefined>(undefined);
  readonly recheck = input<Recheck | null>(null);
  readonly by = input('?');
  readonly changed = output<RegisterUse>();

  private readonly settings = inject(Settings);
  protected readonly problem = signal('');
  protected readonly KINDS = KINDS;
  protected readonly UNITS = UNITS;
  protected readonly COUNTS = COUNTS;

  // Which register it is: of the card, or described here.
  // Where there are several, nobody guesses: the one that was used for this before, or none until it is said.
  protected readonly picked = linkedSignal<string | null>(() => {
    const [known, usual] = [this.registers(), this.usual()];
    const name = this.use()?.name ?? usual ?? (known.length === 1 ? known[0].name : null);
    if (name === null) return known.length ? null : '';
    return known.some((entry) => entry.name === name) ? name : '';
  });
  protected readonly name = linkedSignal(() => this.use()?.name ?? this.picked() ?? '');
  protected readonly known = computed(() => this.registers().find(({ name }) => name === this.name()));
  protected readonly names = computed(() => [
    ...this.registers().map(({ name }) => ({ value: name, label: name })),
    { value: '', label: 'another one' },
  ]);
  protected choose(name: unknown): void {
    this.picked.set(String(name));
  }

  protected readonly axis = linkedSignal(() => this.use()?.axis ?? this.known()?.axis ?? '');
  protected readonly kind = linkedSignal(() => this.use()?.kind ?? this.known()?.kind ?? null);
  protected readonly unit = linkedSignal(() => this.use()?.unit ?? this.known()?.unit ?? null);
  protected readonly counts = linkedSignal(() => this.use()?.programming ?? this.known()?.programming ?? null);
  protected readonly digits = linkedSignal(() => String(this.use()?.digits ?? this.known()?.digits ?? ''));

  /** What was done to this register before, and is not right yet. */
  protected readonly before = computed(() => this.unsettled()[this.use()?.name ?? this.name().trim()] ?? null);
  /** The value that the last re-check asks for. */
  protected readonly next = computed(() => {
    const [use, next] = [this.use(), this.before()?.recheck?.next];
    return use && next !== undefined && next !== null ? { value: next, text: registerValue(next, use) } : null;
  });

  /** Why the last re-check asks for no value, where it does not. */
  protected readonly stuck = computed(() => {
    const [use, recheck] = [this.use(), this.before()?.recheck];
    return use && !use.entered && recheck && recheck.next === null ? recheckWords(recheck, use, this.homing()).text : '';
  });

  protected readonly old = linkedSignal(() => {
    return String(this.before()?.old.value ?? '');
  });
  protected readonly where = signal('');
  /** A photograph of the screen of the control, by its name. */
  protected readonly photo = signal<string | undefined>(undefined);
  private readonly pictures = inject(Pictures);
  protected readonly photoAddress = computed(() => {
    const name = this.use()?.old?.photo ?? this.photo();
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
  protected readonly jogBy = signal('');
  protected readonly needleBefore = signal('');
  protected readonly needleAfter = signal('');
  protected readonly end = signal<'operator' | 'rear' | null>(null);
  protected readonly ENDS: readonly Choice<'operator' | 'rear'>[] = [
    { value: 'operator', label: 'on your end of the slide' },
    { value: 'rear', label: 'on its rear end' },
  ];
  protected readonly wholeJog = signal('');
  protected readonly taken = signal('');
  protected readonly sure = signal(false);

  protected readonly size = (um: number): string =>
    bothUnits(Math.abs(um), 'deviation', { ...this.settings.shown(), fineness: 'fine' }).large;
  protected readonly line = computed(() => this.size(this.total()));
  protected readonly axisKappa = computed(() => this.kappa()[this.use()?.axis ?? this.axis()] ?? null);
  protected readonly plan = computed(() => {
    const use = this.use();
    return use ? (registerPlan(use, this.axisKappa()) ?? null) : null;
  });
  protected readonly slips = computed(() => {
    const [use, plan] = [this.use(), this.plan()];
    if (!use || !plan || this.before()) return [];
    return (['plus', 'minus'] as const).map((how) => ({
      how,
      sign: how === 'plus' ? '+' : '−',
      value: registerValue(plan[how], use),
      chosen: plan.chosen === how,
      wrong: this.size(plan.ifWrong),
    }));
  });
  protected readonly oldWords = computed(() => {
    const use = this.use();
    return use?.old ? registerValue(use.old.value, use) : '';
  });
  protected readonly enteredWords = computed(() => {
    const use = this.use();
    return use?.entered ? registerValue(use.entered.value, use) : '';
  });
  /** What the display counts, by the jog. */
  protected readonly display = computed(() => {
    const use = this.use();
    if (!use?.jog) return '';
    const counts = displayCounts(use);
    if (!counts)
      return 'The jog and the needle do not go together: neither as a radius nor as a diameter. Jog again before anything is entered.';
    const inUnit = ({ unit }: Pick<RegisterUse, 'unit'>) => (unit === 'inch' ? 'in inch' : 'in mm');
    return `The display counts a ${counts.counts}, ${inUnit(counts)}. The register counts a ${use.programming}, ${inUnit(use)}: each has its own.`;
  });
  /** The slip as if the whole jog had been its jog: half a turn apart the readings agree after it. */
  private readonly whole = computed((): RegisterUse | null => {
    const [use, by] = [this.use(), this.jogFigure(this.wholeJog())];
    return use && by ? { ...use, jog: { by, before: use.total, after: 0 } } : null;
  });
  private readonly takenShould = computed(() => {
    const whole = this.whole();
    return whole && takenValue(whole, this.axisKappa());
  });
  protected readonly expected = computed(() => {
    const [use, value] = [this.use(), this.takenShould()];
    return use && value !== null ? registerValue(value, use) : '';
  });
  protected readonly asks = computed(() => (this.plan()?.asks ?? []).includes('large-change'));
  protected readonly said = computed(() => {
    const [use, recheck] = [this.use(), this.recheck()];
    return use && recheck ? recheckWords(recheck, use, this.homing()) : null;
  });
  protected readonly owing = computed(() => {
    const use = this.use();
    const words = use?.entered ? owedWords(stillOwed(use, this.homing())) : '';
    return words && `Not taken up yet: ${words}.`;
  });

  private number(text: string, name: string): number | null {
    const parsed = readNumber(text.trim());
    const digits = Number(this.use()?.digits ?? this.digits());
    if (text.trim() && parsed && (parsed.unit === '' || parsed.unit === (this.unit() === 'inch' ? 'in' : 'mm'))) {
      // It is typed as it stands on the control: with more digits it is another register, or another unit.
      if (Math.abs(parsed.value - Number(parsed.value.toFixed(digits))) < 1e-9) return parsed.value;
      this.problem.set(
        `${name}: "${text.trim()}" has more than the ${digits} digits after the point that this register holds. Try: ${parsed.value.toFixed(digits)}`,
      );
      return null;
    }
    this.problem.set(
      `${name}: ${text.trim() ? `"${text.trim()}" is no value of this register` : 'is missing'}. Try: ${this.unit() === 'inch' ? '12.0281' : '305.525'}`,
    );
    return null;
  }

  /** A movement on the display, in the register’s unit where its own was typed; bare as the display shows it. Null where it is none. */
  private jogFigure(text: string): number | null {
    const [bare, sized] = [readNumber(text.trim()), parseQuantity(text, 'length')];
    if (!text.trim() || !bare || !sized.ok) return null;
    return bare.unit === '' ? bare.value : sized.value / (this.use()?.unit === 'inch' ? 25.4 : 1);
  }

  /** Lock the old value: from here on it is not changed, whatever is entered. */
  protected lock(): void {
    const [kind, unit, programming, name] = [this.kind(), this.unit(), this.counts(), this.name().trim()];
    const digits = Number(this.digits());
    if (this.picked() === null) return this.problem.set('Register: say which one it is');
    if (!name) return this.problem.set('Register: is missing. Try: work shift X');
    if (kind === null) return this.problem.set('Register: say whether the control adds it, or whether it is a reference');
    if (unit === null) return this.problem.set('Register: say whether it is in mm or in inch');
    if (programming === null) return this.problem.set('Register: say whether it counts a radius or a diameter');
    if (!Number.isInteger(digits) || digits < 1 || digits > 6)
      return this.problem.set('Digits: must be a whole number from 1 to 6. Try: 3');
    const value = this.number(this.old(), 'Old value');
    if (value === null) return;
    this.problem.set('');
    this.changed.emit({
      ...{ name, axis: this.axis().trim() || name, kind, unit, programming, digits, total: this.before()?.total ?? this.total() },
      old: this.before()?.old ?? {
        value,
        where: this.where().trim(),
        at: nowText(),
        by: this.by(),
        ...(this.photo() && { photo: this.photo() }),
      },
      ...{ jog: null, homings: 0, power: 0, entered: null },
    });
  }

  protected keepJog(): void {
    const [use, end, instrument] = [this.use(), this.end(), this.instrument()];
    if (!use) return;
    const by = this.jogFigure(this.jogBy());
    if (by === null) return this.problem.set('Jogged by: give what the display went by. Try: 0.02');
    if (by === 0) return this.problem.set('Jogged by: 0 tells nothing. Try: 0.02');
    if (end === null) return this.problem.set('The stylus: say on which end of the slide’s line it stands');
    const read = (text: string) => (text.trim() ? readingValue(text.trim(), 'indicator', instrument) : null);
    const [before, after] = [read(this.needleBefore()), read(this.needleAfter())];
    if (!before?.ok || !after?.ok) return this.problem.set('The needle: give it before and after the jog, in divisions. Try: 0 and 4.5');
    if (before.value === after.value) return this.problem.set('The needle did not move: is it pegged? Nudge it both ways, and jog again');
    this.problem.set('');
    // One end sees half of what the two differ by; at the rear end the needle goes the other way.
    const went = 2 * this.toward() * (end === 'rear' ? -1 : 1) * (after.value - before.value);
    this.changed.emit({ ...use, jog: { by, before: use.total, after: use.total + went } });
  }

  protected enterNext(): void {
    const [use, next] = [this.use(), this.next()];
    if (use && next) this.sureOf(Number(next.value.toFixed(use.digits)), 'next');
  }

  /** Write a value down that was entered; one that is far from the first old value only where somebody is sure of it. */
  private sureOf(value: number, how: 'plus' | 'minus' | 'next' | 'taken'): void {
    const use = this.use();
    if (use && isLarge(value, use) && !this.sure())
      return this.problem.set('That is a change of more than 0.5 mm: make sure of the unit and the sign, and tick that you have.');
    this.write(value, how);
  }

  protected enter(how: 'plus' | 'minus'): void {
    const [use, plan] = [this.use(), this.plan()];
    if (use && plan) this.sureOf(Number(plan[how].toFixed(use.digits)), how);
  }

  /** The control took the position itself: what it shows now is compared with the old value and the jog. */
  protected took(): void {
    const [use, plan] = [this.use(), this.plan()];
    if (!this.whole())
      return this.problem.set('Jogged until they agree: give what the display went by until the readings agreed. Try: 0.0565');
    const value = use && plan ? this.number(this.taken(), 'What it shows now') : null;
    if (!use || !plan || value === null) return;
    const [wanted, step] = [this.takenShould(), 10 ** -use.digits];
    const halves = Math.abs(Math.abs(value - (use.old?.value ?? 0)) - Math.abs(plan.change));
    const room = Math.max(2 * step, ((use.programming === 'diameter' ? 2 : 1) * this.doubt()) / 1000 / (use.unit === 'inch' ? 25.4 : 1));
    const odd = wanted === null ? halves > room : Math.abs(value - wanted) > room;
    if (!odd) return this.sureOf(value, 'taken');
    if (!this.sure())
      return this.problem.set(
        `${registerValue(value, use)} is not the old value and the jog${this.expected() ? `: that would be ${this.expected()}` : ''}. Make sure of register, unit and factor before it stays, and tick that you have.`,
      );
    this.write(value, 'taken');
  }

  /** Back to the first old value. */
  protected back(): void {
    const use = this.use();
    if (use?.old) this.write(use.old.value, 'back');
  }

  private write(value: number, how: NonNullable<RegisterUse['entered']>['how']): void {
    const use = this.use();
    if (!use) return;
    this.problem.set('');
    this.sure.set(false);
    this.changed.emit(enteredOn(use, { value, how, at: nowText(), by: this.by() }));
  }

  protected count(which: 'homings' | 'power'): void {
    const use = this.use();
    if (use) this.changed.emit({ ...use, [which]: Math.min(20, use[which] + 1) });
  }
}
