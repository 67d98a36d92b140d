import { ChangeDetectionStrategy, Component, computed, effect, input, linkedSignal, output, signal, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import { hasUnit, parseQuantity, readNumber, type ScrewRule, type UsualShift, type Way, spotOf } from '@isometra/core';
import { NOTHING_SEEN, type Made } from '@isometra/contract';
import { useKeys } from '../data/keys';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Dial } from '../ui/dial';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Tick } from '../ui/tick';
import { SIDE_WORDS, screwTarget, tightenedBy, type KitDial, type OwnDial, type ScrewTarget } from './screw-target';

type Stage = 'choose' | 'drive' | 'other' | 'which' | 'tighten' | 'stop';

const OTHER = 'other';

/** While a part is moved: where the needle is to stop, which screw now, and what was seen. Nothing else. */
@Component({
  selector: 'iso-at-screw',
  imports: [RouterLink, Dial, Button, Field, Notice, Choices, Pick, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './at-screw.html',
  styleUrl: './at-screw.css',
  host: { role: 'region', 'aria-label': 'At the screw' },
})
export class AtScrew {
  readonly what = input.required<string>();
  readonly verb = input.required<string>();
  readonly size = input.required<string>();
  readonly direction = input.required<string>();
  readonly part = input('part');
  /** Signed like the quantity, in its unit. */
  readonly amount = input.required<number>();
  readonly angle = input(false);
  readonly arrow = input<readonly [Way, Way] | null>(null);
  readonly own = input<OwnDial | null>(null);
  readonly dials = input<readonly KitDial[]>([]);
  readonly made = input<Made | undefined>(undefined);
  readonly usual = input<UsualShift | undefined>(undefined);
  /** Which of two opposed screws is driven; null where there are not two. */
  readonly rule = input<ScrewRule | null>(null);
  readonly drive = input<readonly string[]>([]);
  readonly bench = input.required<readonly unknown[]>();
  /** What has come in between: the card was changed somewhere else. */
  readonly between = input('');
  /** A movement in the reader's unit and words: "0.004 mm toward you". */
  readonly sayMove = input.required<(amount: number) => string>();

  readonly changed = output<{ readonly made: Made; readonly shift?: string }>();
  /** It is done; with what was allowed for on tightening, where nobody has kept that yet. */
  readonly done = output<Made | undefined>();
  readonly back = output<void>();

  protected readonly OTHER = OTHER;
  protected readonly COUNTS: readonly Choice<1 | -1>[] = [
    { value: 1, label: 'up' },
    { value: -1, label: 'down' },
  ];
  protected readonly caution = 'Isolate and lock out. Loosen to snug, never free.';
  protected readonly problem = signal('');
  protected readonly told = signal('');
  protected readonly reading = signal('');
  private readonly reads = viewChild<Field>('reads');

  protected readonly allowed = linkedSignal(() => {
    const made = this.made();
    return made ? made.preset !== 0 : (this.usual()?.steady ?? false);
  });
  private readonly state = computed(
    (): Made => this.made() ?? { ...NOTHING_SEEN, preset: this.allowed() ? (this.usual()?.shift ?? 0) : 0 },
  );
  private readonly move = computed(() => ({ amount: this.amount(), angle: this.angle(), arrow: this.arrow(), own: this.own() }));
  protected readonly target = computed(() => screwTarget(this.move(), this.state()));
  private readonly seesIt = computed(() => this.target() !== null);
  /** Where the hand is: what comes in from elsewhere does not take it away from there. */
  protected readonly stage = linkedSignal((): Stage => (this.seesIt() ? 'drive' : 'choose'));

  // The dial that is being chosen: nothing is taken for granted.
  protected readonly dialId = signal<string | null>(null);
  protected readonly division = signal('');
  protected readonly side = signal<Way | null>(null);
  protected readonly pressed = signal<1 | -1 | null>(null);
  protected readonly over = signal('');
  protected readonly dialChoices = computed((): Choice<string>[] => [
    ...this.dials().map(({ id, name }) => ({ value: id, label: name })),
    { value: OTHER, label: 'another one' },
  ]);
  protected readonly sides = computed((): Choice<Way>[] => (this.arrow() ?? []).map((way) => ({ value: way, label: SIDE_WORDS[way] })));
  protected readonly why = computed(() =>
    this.own() ? '' : 'The dial of this round does not see the move, or nobody has tried which way its needle counts.',
  );

  protected readonly where = computed(() => {
    const dial = this.made()?.dial;
    if (!dial) return `The dial of the round, ${spotOf(this.own()?.where ?? '').place},`;
    return `${dial.name} ${SIDE_WORDS[dial.side]},`;
  });
  /** What the needle that is typed now says: how far it moved by itself, and where it stands. */
  protected readonly seen = computed(() => {
    const [target, reads] = [this.target(), divisionsOf(this.reading())];
    return target && reads !== null ? this.tightenedWords(tightenedBy(target, reads)) : '';
  });
  /** What was kept of it. */
  protected readonly settled = computed(() => {
    const { tightened } = this.state();
    return tightened === null ? '' : this.tightenedWords(tightened);
  });

  constructor() {
    effect(() => this.reads()?.focus());
    useKeys([
      { shown: 'W', does: 'it went the other way', keys: ['w'], run: () => this.go('other') },
      { shown: 'T', does: 'it moved on tightening', keys: ['t'], run: () => (this.stage() === 'drive' ? this.tighten() : false) },
      { shown: 'Enter', does: 'done', keys: ['Enter'], run: (event) => this.enter(event) },
      { shown: 'Esc', does: 'back to the card', keys: ['Escape'], inFields: true, run: () => this.escape() },
    ]);
  }

  private go(stage: Stage): boolean {
    if (this.stage() !== 'drive') return false;
    this.stage.set(stage);
    return true;
  }

  private enter(event: Event): boolean {
    // Enter on a button is that button.
    if (this.stage() !== 'drive' || (event.target as Element | null)?.closest('button, a')) return false;
    this.finish();
    return true;
  }

  protected finish(): void {
    this.done.emit(!this.made() && this.state().preset !== 0 ? this.state() : undefined);
  }

  private escape(): void {
    if (this.stage() === 'other' || this.stage() === 'which' || this.stage() === 'tighten') this.stage.set('drive');
    else this.back.emit();
  }

  protected shown(divisions: number): string {
    return String(Math.abs(divisions));
  }

  protected sideOf(value: number): string {
    if (value === 0) return '';
    return value < 0 ? ' below zero' : ' above zero';
  }

  /** The way the needle goes. Where it does not begin at zero, the side of zero is said: a figure never stands alone with its sign. */
  protected wayOf({ now, target }: ScrewTarget): string {
    if (target === now) return ', where it is';
    const way = target > now ? 'counting up' : 'counting down';
    return now === 0 ? `, ${way} from zero` : `${this.sideOf(target)}, ${way} from ${Math.abs(now)}${this.sideOf(now)}`;
  }

  /** What it did on tightening, and what is still to go by the dial. */
  private tightenedWords(moved: number): string {
    const [target, left] = [this.target(), this.state().preset - moved];
    const small = target !== null && Math.abs(left * target.per) < target.step;
    const stands = small ? 'By the dial it is where it should be.' : `By the dial it still needs ${this.sayMove()(left)}.`;
    return `It moved ${this.sayMove()(moved)} on tightening. ${stands}`;
  }

  protected another(): void {
    this.stage.set('choose');
  }

  protected take(event: Event): void {
    event.preventDefault();
    const dial = this.chosenDial();
    if (typeof dial === 'string') return this.problem.set(dial);
    this.problem.set('');
    this.put({ dial });
    this.stage.set('drive');
  }

  /** The dial as chosen; or what is missing, in words. */
  private chosenDial(): NonNullable<Made['dial']> | string {
    const [id, side, pressed] = [this.dialId(), this.side(), this.pressed()];
    if (id === null) return 'Dial: choose the dial at the part';
    const known = this.dials().find((dial) => dial.id === id);
    const division = known ? known.graduation : sizeOf(this.division(), 'deviation');
    if (division === null) return `One division: "${this.division()}" is not a size with its unit. Example: 0.01 mm`;
    if (side === null) return `The stylus: say on which side of the ${this.part()} it stands`;
    const over = this.angle() ? sizeOf(this.over(), 'length') : null;
    if (this.angle() && over === null)
      return `From the pivot to the stylus: "${this.over()}" is not a length with its unit. Example: 250 mm`;
    if (pressed === null) return 'The needle: press the stylus in, and say whether it counts up or down';
    const kept = { kitId: known?.id ?? null, name: known?.name ?? 'The dial' };
    return { ...kept, graduation: division, readTo: known?.readTo ?? 0.5, side, pressed, over };
  }

  /** It went the other way, and the stylus has been pressed in: either the dial was described wrongly, or it is the screw. */
  protected pressedNow(pressed: 1 | -1): void {
    const dial = this.state().dial;
    const said = dial ? dial.pressed : this.own()?.pressed;
    if (said !== pressed) {
      if (!dial) return this.stage.set('stop');
      this.put({ dial: { ...dial, pressed } });
      this.told.set('The needle counts the other way. Its stopping point is corrected. The screw was not at fault.');
    } else if (this.rule()) {
      // The dial is right. Before the machine is believed to work the other way round: was the right screw driven?
      return this.stage.set('which');
    } else {
      this.told.set(
        `The dial is right: turn the other way.${this.angle() ? ' If it still goes wrong, the stylus is beyond the pivot: move it.' : ''}`,
      );
    }
    this.stage.set('drive');
  }

  /** The two screws, by the side of the part that each sits on, and the one that the card said to drive. */
  protected readonly screws = computed((): Choice<ScrewRule>[] => {
    const [plus, minus] = this.arrow() ?? ['toward', 'away'];
    const [ahead, behind] = this.amount() < 0 ? [minus, plus] : [plus, minus];
    return [
      { value: 'drive-far', label: `the screw ${SIDE_WORDS[behind]}` },
      { value: 'drive-near', label: `the screw ${SIDE_WORDS[ahead]}` },
    ];
  });

  /** Which screw was driven when it went the other way: only where it was the one that the card names is it the machine. */
  protected drove(screw: ScrewRule | null): void {
    const rule = this.rule() ?? 'drive-far';
    const named = this.screws().find(({ value }) => value === rule)?.label ?? 'the other screw';
    if (screw === null)
      this.told.set(
        'Nothing is remembered. Turn one screw a little, watch which way the part goes, then drive the one that brings the needle on.',
      );
    else if (screw !== rule)
      this.told.set(`That was the other one. Slack it and drive ${named}. Nothing is remembered: the machine is as it was said.`);
    else {
      this.put({ rule: rule === 'drive-near' ? 'drive-far' : 'drive-near' });
      this.told.set('Then the screws of this machine work the other way round. This is kept on the machine card and can be changed there.');
    }
    this.stage.set('drive');
  }

  protected tighten(): void {
    this.reading.set('');
    this.problem.set('');
    this.stage.set('tighten');
  }

  protected keepShift(event: Event): void {
    event.preventDefault();
    this.note(() => ({}));
  }

  /** It is slacked and driven again, to stop short or past by what it just did. */
  protected allowFor(): void {
    const noted = this.note((tightened) => ({ preset: tightened }));
    if (noted) this.told.set('Slack it again. The figure to stop at allows for what it does on tightening.');
  }

  /** Write down what the needle did on tightening, and what follows from it; false where that was no figure. */
  private note(follows: (tightened: number) => Partial<Made>): boolean {
    const [target, reads] = [this.target(), divisionsOf(this.reading())];
    if (!target || reads === null) {
      this.problem.set(`Tightened, the needle reads: "${this.reading()}" is not a number of divisions. Example: ${target?.target ?? 0}`);
      return false;
    }
    this.problem.set('');
    const tightened = tightenedBy(target, reads);
    this.put({ tightened, ...follows(tightened) }, `${Number((reads - target.target).toFixed(3))} div`);
    this.stage.set('drive');
    return true;
  }

  protected allow(on: boolean): void {
    this.allowed.set(on);
    this.put({ preset: on ? (this.usual()?.shift ?? 0) : 0 });
  }

  private put(part: Partial<Made>, shift?: string): void {
    this.changed.emit({ made: { ...this.state(), ...part }, ...(shift !== undefined && { shift }) });
  }
}

/** A figure of a needle as typed; null for none. A comma is a point, a minus may be the long one. */
function divisionsOf(text: string): number | null {
  const read = readNumber(text);
  return read && (read.unit === '' || read.unit === 'div') && Math.abs(read.value) < 10_000 ? read.value : null;
}

/** A size with its unit, as typed; null for anything else: a bare figure might be thou or mm. */
function sizeOf(text: string, dimension: 'deviation' | 'length'): number | null {
  const parsed = hasUnit(text) ? parseQuantity(text, dimension) : undefined;
  return parsed?.ok && parsed.value > 0 ? parsed.value : null;
}
