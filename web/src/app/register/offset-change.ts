import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { parseQuantity, readingValue, readNumber, type Instrument } from '@isometra/core';
import type { RegisterUse } from '@isometra/contract';
import {
  byRoundNow,
  displayCounts,
  enteredOn,
  homingFor,
  isLarge,
  readsOther,
  registerPlan,
  registerValue,
  stillOwed,
  takenFits,
  takenValue,
  type LeftAt,
  type Recheck,
  type Unsettled,
  withCounted,
  withoutLast,
} from '@isometra/work';
import { nowText } from '../data/clock';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { Again } from '../ui/again';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Choices, type Choice } from '../ui/choices';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { bothUnits } from '../ui/say';
import { figureOf, RegisterLock, type KnownRegister } from './register-lock';
import { owedWords, recheckWords } from './register-words';

/**
 * The change sheet of a register: the old value, locked before anything is changed; the sign by a jog; two new values with what
 * the next check reads if it was the wrong one; what was entered; and, once it was read again, what that says. The value is
 * shown, and never sent anywhere.
 */
@Component({
  selector: 'iso-offset-change',
  imports: [Again, Button, Choices, Field, Notice, RegisterLock, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './offset-change.html',
  styleUrls: ['../job/job-panel.css', './offset-change.css'],
})
export class OffsetChange {
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
  /** What was last entered into each register, by its name. */
  readonly left = input<Readonly<Record<string, LeftAt>>>({});
  /** When the round was read that the card is made from. */
  readonly readAt = input('');
  /** The change sheet as it was kept. */
  readonly kept = input<RegisterUse | undefined>(undefined);
  readonly recheck = input<Recheck | null>(null);
  readonly by = input('?');
  readonly changed = output<RegisterUse>();

  private readonly settings = inject(Settings);
  /** The change sheet by what its round reads now. */
  protected readonly use = computed(() => {
    const kept = this.kept();
    return kept && !this.unsettled()[kept.name] ? byRoundNow(kept, this.total()) : kept;
  });
  /** The round reads something else now than the recorded value was worked out from. */
  protected readonly corrected = computed(() => {
    const use = this.use();
    return use?.entered && use.entered.how !== 'back' && !this.before() && readsOther(use, this.total()) ? this.size(use.total) : '';
  });
  /** The control has not been homed since the value was recorded, and nothing was read: the record can still be a mistake. */
  protected readonly mayBeMistake = computed(() => {
    const use = this.use();
    return !!use?.entered && use.homings + use.power === 0 && !this.recheck();
  });
  protected readonly problem = signal('');
  /** What was done to this register before, and is not right yet. */
  protected readonly before = computed(() => this.unsettled()[this.use()?.name ?? ''] ?? null);
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

  private readonly pictures = inject(Pictures);
  protected readonly photoAddress = computed(() => {
    const name = this.use()?.old?.photo;
    return name ? this.pictures.address(name) : '';
  });
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
  protected readonly axisKappa = computed(() => this.kappa()[this.use()?.axis ?? ''] ?? null);
  protected readonly plan = computed(() => {
    const use = this.use();
    return use ? (registerPlan(use, this.axisKappa()) ?? null) : null;
  });
  protected readonly options = computed(() => {
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
  /** By whom, where anybody said. */
  protected readonly who = (by = '?'): string => (by === '?' ? '' : `, ${by}`);
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
  /** What stands in the register now: the old value, or what was entered last. */
  private readonly stands = computed(() => this.before()?.stands ?? this.use()?.old?.value ?? 0);
  /** The change sheet as if the whole jog had been its jog: half a turn apart the readings agree after it. */
  private readonly whole = computed((): RegisterUse | null => {
    const [use, by] = [this.use(), this.jogFigure(this.wholeJog())];
    return use && by ? { ...use, total: this.total(), jog: { by, before: this.total(), after: 0 } } : null;
  });
  private readonly takenShould = computed(() => {
    const whole = this.whole();
    return whole && takenValue(whole, this.axisKappa(), this.stands());
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
    const use = this.use();
    const read = use ? figureOf(text, name, use) : null;
    this.problem.set(read?.problem ?? '');
    return read?.value ?? null;
  }

  /** A movement on the display, in the register’s unit where its own was typed; bare as the display shows it. Null where it is none. */
  private jogFigure(text: string): number | null {
    const [bare, sized] = [readNumber(text.trim()), parseQuantity(text, 'length')];
    if (!text.trim() || !bare || !sized.ok) return null;
    return bare.unit === '' ? bare.value : sized.value / (this.use()?.unit === 'inch' ? 25.4 : 1);
  }

  /** Before anything was entered a change sheet of the pen harms nothing yet: it is read off the control once more. */
  protected mistyped(): void {
    const use = this.use();
    if (use && !use.entered) this.changed.emit({ ...use, old: null, jog: null });
  }

  /** The last value was recorded by mistake: nobody entered it into the control. */
  protected notEntered(): void {
    const use = this.use();
    if (use?.entered) this.changed.emit(withoutLast(use));
  }

  protected keepJog(): void {
    const [use, end, instrument] = [this.use(), this.end(), this.instrument()];
    if (!use) return;
    const by = this.jogFigure(this.jogBy());
    if (by === null) return this.problem.set('Jogged by: type how far the display moved. Example: 0.02');
    if (by === 0) return this.problem.set('Jogged by must not be 0. Example: 0.02');
    if (end === null) return this.problem.set('The stylus: say which end of the slide’s line it is on');
    const read = (text: string) => (text.trim() ? readingValue(text.trim(), 'indicator', instrument) : null);
    const [before, after] = [read(this.needleBefore()), read(this.needleAfter())];
    if (!before?.ok || !after?.ok)
      return this.problem.set('The needle: give it before and after the jog, in divisions. Example: 0 and 4.5');
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
  private sureOf(value: number, how: 'plus' | 'minus' | 'next' | 'taken', jog = this.use()?.jog ?? null): void {
    const use = this.use();
    if (use && isLarge(value, use) && !this.sure())
      return this.problem.set('That is a change of more than 0.5 mm. Check the unit and the sign, and tick that you have.');
    this.write(value, how, jog);
  }

  protected enter(how: 'plus' | 'minus'): void {
    const [use, plan] = [this.use(), this.plan()];
    if (use && plan) this.sureOf(Number(plan[how].toFixed(use.digits)), how);
  }

  /** The control took the position itself: what it shows now is compared with the old value and the jog. */
  protected took(): void {
    const [use, plan, whole, stands] = [this.use(), this.plan(), this.whole(), this.stands()];
    if (!whole)
      return this.problem.set('Jogged until they agree: give what the display went by until the readings agreed. Example: 0.0565');
    const value = use && plan ? this.number(this.taken(), 'What it shows now') : null;
    if (!use || !plan || value === null) return;
    // Whichever way the little jog told: the other way it cannot have been.
    const away = !this.before() && plan.chosen !== null && Math.sign(value - stands) !== Math.sign(plan[plan.chosen] - stands);
    const fits = !away && takenFits(whole, value, { kappa: this.axisKappa(), stands, doubt: this.doubt() });
    // The whole jog teaches what a little one would have, where none was kept.
    const jog = use.jog ?? (this.before() ? null : whole.jog);
    if (fits) return this.sureOf(value, 'taken', jog);
    if (!this.sure()) return this.problem.set(this.notTheJog(registerValue(value, use)));
    this.write(value, 'taken', jog);
  }

  private notTheJog(value: string): string {
    const from = this.before() ? 'what stood there' : 'the old value';
    const would = this.expected() ? `: that would be ${this.expected()}` : '';
    return `${value} is not ${from} and the jog${would}. Make sure of register, unit and factor before it stays, and tick that you have.`;
  }

  /** Back to the first old value: asked about first where a later round has called what stands there right. */
  protected readonly askedBack = signal(false);
  protected back(): void {
    const use = this.use();
    if (!use?.old) return;
    if (this.closed() && !this.askedBack()) return this.askedBack.set(true);
    this.askedBack.set(false);
    this.write(use.old.value, 'back');
  }
  /** The value was right: nothing is left to do on this card. */
  protected readonly closed = computed(
    () => this.recheck()?.meaning === 'right' && !this.recheck()?.why && this.use()?.entered?.how !== 'back',
  );
  /** After the way back: what had been entered before it, so that it can be put in again. */
  protected readonly again = computed(() => {
    const use = this.use();
    const before = use?.entered?.how === 'back' ? use.earlier?.findLast(({ how }) => how !== 'back') : undefined;
    return use && before ? { value: before.value, text: registerValue(before.value, use) } : null;
  });
  protected enterAgain(): void {
    const again = this.again();
    if (again) this.sureOf(again.value, 'next');
  }
  /** What this register wants of the control: only a reference is homed. */
  protected readonly wants = computed(() => {
    const use = this.use();
    return use ? homingFor(use, this.homing()) : { times: 0, power: 0 };
  });

  private write(value: number, how: NonNullable<RegisterUse['entered']>['how'], jog = this.use()?.jog ?? null): void {
    const use = this.use();
    if (!use) return;
    this.problem.set('');
    this.sure.set(false);
    this.changed.emit(enteredOn({ ...use, jog }, { value, how, at: nowText(), by: this.by() }));
  }

  protected count(which: 'homings' | 'power'): void {
    const use = this.use();
    if (use) this.changed.emit(withCounted(use, which));
  }
}
