import { ChangeDetectionStrategy, Component, type OnDestroy, computed, effect, inject, signal, untracked, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import { exampleFor, parseQuantity, sizesIn } from '@isometra/core';
import type { DeskEntry } from '@isometra/contract';
import { entryWords, eveningsOf, standing, stateWords } from '@isometra/work';
import { DrawingOut } from '../drawings/drawing-out';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { useKeys, type KeyHint } from '../data/keys';
import { timeWords } from '../data/when';
import { type NewEntry } from '../data/surfaces';
import { AtHand } from '../shell/at-hand';
import { Choices, type Choice } from '../ui/choices';
import { PrintHead } from '../shell/print-head';
import { Button } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { Figure } from '../ui/figure';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { EdgeTurns, type Turns } from './edge-turns';
import { DeskShown } from './desk-shown';
import { FaceDrawing } from './face-drawing';
import { PlanPanel, type Planned } from './plan-panel';
import { PrintPanel } from './print-panel';
import { ShimPanel } from './shim-panel';
import { WrittenDown, type Forgotten } from './written-down';

type Panel = 'print' | 'plan' | 'measure' | 'state' | 'blade' | 'shims' | 'written' | null;
type State = Extract<DeskEntry, { kind: 'state' }>['content']['state'];
type Clamped = 'lower' | 'upper' | 'both';
type Grade = Extract<DeskEntry, { kind: 'pass' }>['content']['grade'];
type PassKind = Extract<DeskEntry, { kind: 'pass' }>['content']['kind'];

const KINDS: readonly Choice<PassKind>[] = [
  { value: 'whole', label: 'whole zone' },
  { value: 'blue-only', label: 'blue only' },
  { value: 'relief', label: 'relief' },
  { value: 'break-up', label: 'break up' },
];
const GRADES: readonly Choice<Grade | null>[] = [
  { value: null, label: 'as said' },
  { value: 'rough', label: 'roughing' },
  { value: 'fine', label: 'finishing' },
];
const CLAMPED: readonly Choice<Clamped>[] = [
  { value: 'lower', label: 'lower half' },
  { value: 'upper', label: 'upper half' },
  { value: 'both', label: 'both' },
];
const STATES: readonly Choice<State>[] = (['rough', 'contact', 'measure', 'accept'] as const).map((value) => ({
  value,
  label: stateWords(value),
}));
const DIGIT_KEYS = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9'];
/** The second digit of a zone above nine follows this soon, ms. */
const DIGITS = 700;

/** The scraping desk: one screen for dirty hands. A touch on a zone, its digit, or the pedal is one pass; nothing is typed to log a cycle. */
@Component({
  selector: 'iso-scraping-desk',
  host: { '(click)': 'letGo($event)' },
  imports: [
    DrawingOut,
    PrintHead,
    RouterLink,
    Button,
    Choices,
    Dialog,
    Field,
    Figure,
    Notice,
    Tick,
    EdgeTurns,
    FaceDrawing,
    PlanPanel,
    PrintPanel,
    ShimPanel,
    WrittenDown,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './scraping-desk.html',
  styleUrl: './scraping-desk.css',
})
export class ScrapingDesk extends DeskShown implements OnDestroy {
  private readonly hand = inject(AtHand);
  private readonly edge = viewChild(EdgeTurns);

  protected readonly problem = signal('');
  protected readonly faceWidth = signal<number | null>(null);
  protected readonly panel = signal<Panel>(null);
  protected readonly kinds = KINDS;
  protected readonly passKind = signal<PassKind>('whole');
  protected readonly grades = GRADES;
  /** Roughing or finishing, where it is not as the desk says. */
  protected readonly grade = signal<Grade | null>(null);
  protected readonly clampedChoices = CLAMPED;
  protected readonly clamped = signal<Clamped>('lower');
  protected readonly states = STATES;
  protected readonly nextState = signal<State>('accept');
  protected readonly blade = signal('');
  protected readonly strokeText = signal('');
  protected readonly widthText = signal('');
  protected readonly dye = signal(false);
  protected readonly value = signal('');
  protected readonly doubt = signal('');
  protected readonly why = signal('');
  protected readonly loaded = signal(false);

  private typedDigits = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    super();
    effect(() => {
      const machineId = this.machineId();
      untracked(() => this.load(machineId));
    });
    effect(() => {
      const machine = this.machine();
      if (machine) this.hand.machine.set({ id: machine.id, number: machine.card.number, nickname: machine.card.nickname ?? '' });
      this.hand.doing.set(this.surface()?.name ?? 'Scraping');
    });
    const key = (shown: string, does: string, keys: readonly string[], run: () => unknown): KeyHint => ({
      shown,
      does,
      keys,
      run: () => (this.panel() ? false : void run()),
    });
    useKeys([
      key('Space', 'a pass on the yellow zone', [' '], () => this.passNext()),
      {
        ...key('1 … 9', 'a pass on that zone', DIGIT_KEYS, () => undefined),
        run: ({ key: digit }) => (this.panel() ? false : this.digit(digit)),
      },
      key('⌫', 'undo the last thing', ['Backspace', 'Delete'], () => this.undoLast()),
      key('B', 'blue it', ['b'], () => this.blue()),
      key('P', 'read the print', ['p'], () => this.panel.set('print')),
      key('H', 'record the pivot', ['h'], () => this.edge()?.keep()),
      key('A', 'record the pivot again', ['a'], () => this.edge()?.again()),
      key('L', 'plan depths', ['l'], () => this.panel.set('plan')),
      key('M', 'measure', ['m'], () => this.openMeasure()),
      key('D', 'done for tonight', ['d'], () => this.done()),
      {
        shown: 'Esc',
        does: 'close',
        keys: ['Escape'],
        inFields: true,
        quiet: true,
        run: () => (this.panel() ? this.panel.set(null) : false),
      },
    ]);
  }

  /** A finger presses once and lets go: the pedal after it is a pass again, not the button that was touched. */
  protected letGo(event: MouseEvent): void {
    const pressed = event.detail > 0 && event.target instanceof Element ? event.target.closest('button') : null;
    if (pressed && !pressed.closest('[role="dialog"]')) pressed.blur();
  }

  ngOnDestroy(): void {
    clearTimeout(this.timer);
    this.hand.machine.set(null);
    this.hand.doing.set('');
  }

  private load(machineId: string): void {
    this.problem.set('');
    this.store
      .load(machineId)
      .subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message), complete: () => this.loaded.set(true) });
    this.machines.loadOne(machineId).subscribe({ error: () => undefined });
    this.heads.refresh(machineId);
    this.kitStore.load().subscribe({ error: () => undefined });
  }

  /** Digits are zones: at once where no other zone begins with them, else when no second one follows. */
  private digit(digit: string): void {
    clearTimeout(this.timer);
    this.typedDigits += digit;
    const ids = this.surface()?.zones.map(({ id }) => id) ?? [];
    const run = () => {
      const id = this.typedDigits;
      this.typedDigits = '';
      if (ids.includes(id)) this.pass(id);
      else this.problem.set(`There is no zone ${id} on this face.`);
    };
    if (ids.some((id) => id.length > this.typedDigits.length && id.startsWith(this.typedDigits))) this.timer = setTimeout(run, DIGITS);
    else run();
  }

  private write(entry: NewEntry): void {
    const surface = this.surface();
    if (!surface) return;
    if (surface.putAway) return this.problem.set('This face is archived. Restore it on its card before you write anything down.');
    this.problem.set('');
    this.asked.set(null);
    this.store.write(surface, entry);
  }

  protected pass(id: string): void {
    const zone = this.desk()?.zones.find((entry) => entry.zone.id === id);
    if (!zone) return;
    if (this.surface()?.heldBack)
      return this.problem.set('This face is held back to compare with: nothing comes off it. Its card can lift that.');
    if (zone.zone.use === 'ignore') return this.problem.set(`Zone ${id} is left out: nothing comes off it.`);
    const kind = zone.zone.use === 'relieve' ? 'relief' : this.passKind();
    this.write({ kind: 'pass', content: { zone: id, kind, grade: this.grade() ?? zone.grade, angle: zone.angle } });
  }

  private passNext(): void {
    const next = this.desk()?.next;
    if (next) this.pass(next);
    else this.problem.set(`No zone is yellow. ${this.now()}`);
  }

  /** A pass that was forgotten, just before something that was written down after it. */
  protected putBefore({ id, zone, grade }: Forgotten): void {
    const later = this.surface()?.entries.find((entry) => entry.id === id);
    const passes = this.surface()?.entries.filter((entry) => entry.kind === 'pass' && entry.content.zone === zone).length ?? 0;
    if (!later) return;
    const content = {
      zone,
      kind: this.zoneUse(zone) === 'relieve' ? ('relief' as const) : ('whole' as const),
      grade,
      angle: (45 + 90 * passes) % 180,
    };
    this.write({ kind: 'pass', content, at: new Date(Date.parse(later.at) - 1).toISOString() });
  }
  private zoneUse(id: string): string | undefined {
    return this.surface()?.zones.find((zone) => zone.id === id)?.use;
  }

  /** Which of plan and straightedge the work goes by, where they disagree. */
  protected believe(which: 'plan' | 'straightedge'): void {
    this.write({ kind: 'believed', content: { which } });
  }

  protected takeBack(id: string): void {
    this.write({ kind: 'withdrawn', content: {}, supersedes: id });
  }

  /** What was written down last, whatever it is: a pass, the blue, a print, the end of an evening. */
  protected readonly lastThing = computed(() => {
    const surface = this.surface();
    const entry = surface ? standing(surface.entries).at(-1) : undefined;
    if (!surface || !entry) return null;
    const text = entryWords(entry, surface.aim?.unit ?? '', sizesIn(this.settings.shown()));
    return { entry, text };
  });
  /** What somebody else wrote, or what was written on another evening, is asked about once before it goes. */
  private readonly asked = signal<{ readonly id: string; readonly text: string } | null>(null);
  /** It stands as long as what it asks about is the last thing. */
  protected readonly askedUndo = computed(() => (this.asked()?.id === this.lastThing()?.entry.id ? (this.asked()?.text ?? '') : ''));
  protected undoLast(): void {
    const last = this.lastThing();
    if (!last) return;
    const { by, at, id } = last.entry;
    const others = by !== this.settings.by();
    const before = eveningsOf([{ at }, { at: nowText() }], () => false).length > 1;
    if ((others || before) && !this.askedUndo()) {
      this.asked.set({ id, text: `“${last.text}” was written ${others ? `by ${by}, ` : ''}${timeWords(at)}. Undo it? Press once more.` });
      return;
    }
    this.takeBack(id);
  }

  protected blue(): void {
    const before = this.lastBlue();
    const dye = this.dye() || (before?.dye ?? false);
    const clamped = this.surface()?.shell ? { clamped: this.clamped() } : {};
    this.write({ kind: 'blue', content: { film: before?.film ?? null, dye, pressed: null, ...clamped } });
  }

  protected locks(locks: boolean): void {
    this.write({ kind: 'lock', content: { locks } });
  }

  protected turns({ from, length, a, b }: Turns): void {
    this.write({ kind: 'hinge', content: { from, length, a, b } });
  }

  /** The last turn with a second try: it stands in its place. */
  protected turnsAgain(again: { readonly a: number; readonly b: number }): void {
    const last = this.lastTurn();
    if (last) this.write({ kind: 'hinge', content: { ...last.content, again }, supersedes: last.id });
  }

  protected printed(content: Extract<DeskEntry, { kind: 'print' }>['content']): void {
    this.panel.set(null);
    this.write({ kind: 'print', content });
  }

  protected planned({ own, other }: Planned): void {
    this.panel.set(null);
    this.write({ kind: 'plan', content: own });
    if (other) this.store.write(other.surface, { kind: 'plan', content: other.plan });
  }

  protected openMeasure(): void {
    if (!this.surface()?.aim)
      return this.problem.set('This face is scraped by its contact alone: say on its card what it is to be true by.');
    const round = this.round();
    const unit = this.surface()?.aim?.unit ?? '';
    this.value.set(round ? `${round.value.toFixed(1)} ${unit}` : '');
    this.doubt.set(round ? `${round.doubt.toFixed(1)} ${unit}` : '');
    this.panel.set('measure');
  }

  protected measured(): void {
    const [value, doubt] = [this.value(), this.doubt()].map((text) => {
      const parsed = text.trim() ? parseQuantity(text, this.aimInfo()?.dimension ?? 'deviation') : undefined;
      return parsed?.ok ? parsed.value : NaN;
    });
    if (!Number.isFinite(value))
      return this.problem.set('What it reads: must be a figure, bare in the unit beside it or with its own. Example: 43');
    if (!(doubt >= 0)) return this.problem.set('How surely: must be a figure, nothing or more. Example: 5');
    const round = this.round();
    const same = round && Math.abs(value - round.value) < 0.06;
    this.panel.set(null);
    this.write({ kind: 'measure', content: { value, doubt, roundId: same ? round.id : null } });
  }

  /** How far it is, with who says so why: the measurement decides, not the blue. */
  protected openState(state: State): void {
    this.nextState.set(state);
    this.why.set('');
    this.panel.set('state');
  }
  protected keepState(): void {
    if (!this.why().trim()) return this.problem.set('Why: is missing. Example: squareness 8, 14 spots');
    this.panel.set(null);
    this.write({ kind: 'state', content: { state: this.nextState(), why: this.why().trim() } });
  }

  protected openBlade(): void {
    const blade = this.lastBlade();
    this.blade.set(blade?.name ?? '');
    this.strokeText.set(blade?.stroke ? `${blade.stroke} mm` : '');
    this.widthText.set(blade?.width ? `${blade.width} mm` : '');
    this.panel.set('blade');
  }
  private readonly sizes = (text: string): string => exampleFor({ dimension: 'length', example: text }, this.settings.system());

  protected keepBlade(): void {
    if (!this.blade().trim()) return this.problem.set('Blade: is missing. Example: carbide, 40 mm radius');
    const [stroke, width] = [this.strokeText(), this.widthText()].map((text) => {
      const parsed = text.trim() ? parseQuantity(text, 'length') : undefined;
      return parsed && (parsed.ok && parsed.value > 0 && parsed.value <= 200 ? parsed.value : NaN);
    });
    if (Number.isNaN(stroke))
      return this.problem.set(
        `Length of a stroke: must be more than 0 and at most ${this.sizes('200 mm')}. Example: ${this.sizes('12 mm')}`,
      );
    if (Number.isNaN(width))
      return this.problem.set(
        `Width of the blade: must be more than 0 and at most ${this.sizes('200 mm')}. Example: ${this.sizes('20 mm')}`,
      );
    this.panel.set(null);
    this.write({ kind: 'blade', content: { name: this.blade().trim(), stroke: stroke ?? null, ...(width !== undefined && { width }) } });
  }

  protected done(): void {
    this.write({ kind: 'done', content: {} });
  }

  protected async giveUp(): Promise<void> {
    for (const entry of this.refused()) await this.outbox.drop(entry);
  }
}
