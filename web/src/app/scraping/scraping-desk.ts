import {
  ChangeDetectionStrategy,
  Component,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { combineLatest, map, switchMap } from 'rxjs';
import { CHECKS, parseQuantity } from '@isometra/core';
import type { DeskEntry, KitItem, RoundHead, StoredSurface } from '@isometra/contract';
import { daysUntilDue, deskNoteWords, deskOf, reminderWords, stateWords, stepWords, turnedWords } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Heads } from '../data/heads';
import { Keys, type KeyHint } from '../data/keys';
import { Kit } from '../data/kit';
import { Machines } from '../data/machines';
import { Outbox } from '../data/outbox';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { Surfaces, type NewEntry } from '../data/surfaces';
import { AtHand } from '../shell/at-hand';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { bothUnits } from '../ui/say';
import { Tick } from '../ui/tick';
import { EdgeTurns, type Turns } from './edge-turns';
import { FaceDrawing } from './face-drawing';
import { PlanPanel } from './plan-panel';
import { PrintPanel } from './print-panel';
import { WrittenDown } from './written-down';

type Panel = 'print' | 'plan' | 'measure' | 'accept' | 'written' | null;
type PassKind = Extract<DeskEntry, { kind: 'pass' }>['content']['kind'];

const KINDS: readonly Choice<PassKind>[] = [
  { value: 'whole', label: 'whole zone' },
  { value: 'blue-only', label: 'blue only' },
  { value: 'relief', label: 'relief' },
  { value: 'break-up', label: 'break up' },
];
/** The second digit of a zone above nine follows this soon, ms. */
const DIGITS = 700;

const count = (n: number, word: string): string => `${n} ${n === 1 ? word : word === 'pass' ? 'passes' : `${word}s`}`;

/** The scraping desk: one screen for dirty hands. A touch on a zone, its digit, or the pedal is one pass; nothing is typed to log a cycle. */
@Component({
  selector: 'iso-scraping-desk',
  imports: [RouterLink, Button, Choices, Dialog, Field, Notice, Tick, EdgeTurns, FaceDrawing, PlanPanel, PrintPanel, WrittenDown],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './scraping-desk.html',
  styleUrl: './scraping-desk.css',
})
export class ScrapingDesk implements OnDestroy {
  readonly machineId = input.required<string>();
  readonly surfaceId = input.required<string>();
  private readonly store = inject(Surfaces);
  private readonly heads = inject(Heads);
  private readonly machines = inject(Machines);
  private readonly outbox = inject(Outbox);
  private readonly kitStore = inject(Kit);
  private readonly settings = inject(Settings);
  private readonly hand = inject(AtHand);
  protected readonly pictures = inject(Pictures);
  private readonly edge = viewChild(EdgeTurns);

  protected readonly problem = signal('');
  protected readonly panel = signal<Panel>(null);
  protected readonly kinds = KINDS;
  protected readonly passKind = signal<PassKind>('whole');
  protected readonly dye = signal(false);
  protected readonly value = signal('');
  protected readonly doubt = signal('');
  protected readonly why = signal('');
  protected readonly loaded = signal(false);

  private readonly ids = toObservable(computed(() => [this.machineId(), this.surfaceId()] as const));
  protected readonly surface = toSignal(
    this.ids.pipe(
      switchMap(([machineId, id]) => this.store.of(machineId).pipe(map((all) => all.find((entry) => entry.id === id) ?? null))),
    ),
    { initialValue: null as StoredSurface | null },
  );
  private readonly rounds = toSignal(this.ids.pipe(switchMap(([machineId]) => this.heads.of(machineId))), {
    initialValue: [] as readonly RoundHead[],
  });
  private readonly machine = toSignal(this.ids.pipe(switchMap(([machineId]) => this.machines.one(machineId))));
  /** What the server refused of this face: told, and given up only when that is said. */
  protected readonly refused = toSignal(
    combineLatest([this.outbox.refused$, this.ids]).pipe(
      map(([all, [, id]]) => all.filter(({ what, about }) => what === 'entry' && about === id)),
    ),
    { initialValue: [] },
  );

  protected readonly desk = computed(() => {
    const surface = this.surface();
    return surface ? deskOf(surface, surface.entries) : null;
  });
  private readonly size = (value: number, dimension: 'length' | 'deviation'): string =>
    bothUnits(value, dimension, { ...this.settings.shown(), ...(dimension === 'deviation' && { fineness: 'fine' as const }) }).large;

  protected readonly now = computed(() => {
    const desk = this.desk();
    return desk ? stepWords(desk.step) : '';
  });
  /** The one large figure: passes left here. */
  protected readonly here = computed(() => {
    const desk = this.desk();
    const zone = desk?.zones.find((entry) => entry.zone.id === desk.next);
    return zone?.left ?? desk?.zones.reduce((sum, { left }) => sum + (left ?? 0), 0) ?? 0;
  });
  protected readonly evenings = computed(() => {
    const forecast = this.desk()?.forecast;
    if (!forecast) return '';
    const { expected, low, high } = forecast.evenings;
    const hours = Math.round((expected * (this.surface()?.evening.session ?? 0)) / 60);
    return `${count(expected, 'evening')} left (${low} to ${high}), about ${hours} h`;
  });
  protected readonly hindsight = computed(() => {
    const hindsight = this.desk()?.hindsight;
    return hindsight ? `This plan was forecast at ${count(hindsight.expected, 'evening')} and took ${hindsight.took}.` : '';
  });
  protected readonly tonight = computed(() => {
    const desk = this.desk();
    return desk && desk.passesTonight
      ? `${count(desk.passesTonight, 'pass')} tonight${desk.minutesTonight < 1 ? '' : `, in ${Math.round(desk.minutesTonight)} min`}`
      : '';
  });
  protected readonly turned = computed(() => {
    const [desk, surface] = [this.desk(), this.surface()];
    if (!desk || !surface) return '';
    const toLeft = (surface.turned === 180) === surface.mirrored;
    return turnedWords(desk, (mm) => this.size(mm, 'length'), toLeft);
  });
  protected readonly state = computed(() => {
    const desk = this.desk();
    return desk ? stateWords(desk.state) : '';
  });
  protected readonly notes = computed(() => {
    const desk = this.desk();
    return desk
      ? desk.notes.map((note) => ({
          code: note.code,
          text: deskNoteWords(note, this.size),
          grave: note.code === 'grew' || note.code === 'liner-ends',
        }))
      : [];
  });
  protected readonly reminders = computed(() => (this.desk()?.reminders ?? []).map(reminderWords));
  protected readonly spots = computed(() => {
    const spots = this.desk()?.spots;
    if (!spots) return '';
    const call = { in: 'enough', out: 'too few', unsure: 'too close to call' }[spots.verdict];
    return `${spots.perSquare.toFixed(0)} ± ${Math.max(1, Math.round(spots.expanded))} spots for a square, wanted ${spots.target[0]} to ${spots.target[1]}: ${call}`;
  });
  private readonly aimInfo = computed(() => {
    const aim = this.surface()?.aim;
    return aim ? CHECKS.get(aim.check)?.quantities[aim.quantity] : undefined;
  });
  protected readonly aim = computed(() => {
    const [surface, desk] = [this.surface(), this.desk()];
    if (!surface?.aim) return '';
    const { wanted, room } = surface.aim;
    const info = this.aimInfo();
    const say = (value: number): string => (info ? bothUnits(value, info.dimension, this.settings.shown()).large : String(value));
    const wish = wanted === 0 ? `at most ${say(room)} either way` : `wanted ${say(wanted)} ± ${say(room)}`;
    const label = info?.label ?? 'Aim';
    return desk?.aim ? `${label}: ${say(desk.aim.value)} ± ${say(desk.aim.doubt)}, ${wish}` : `${label}: not measured yet, ${wish}`;
  });
  protected readonly liner = computed(() => {
    const left = this.desk()?.linerLeft;
    return left === null || left === undefined ? '' : `The liner has ${this.size(Math.max(0, left), 'deviation')} left to give.`;
  });
  protected readonly learned = computed(() => {
    const pass = this.desk()?.pass;
    if (!pass) return '';
    const one = (name: string, { depth, learned }: { readonly depth: number; readonly learned: number }) =>
      `${name} ${this.size(depth, 'deviation')}${learned ? `, learned from ${learned}` : ''}`;
    return `${one('A roughing pass takes', pass.rough)}; ${one('a finishing pass', pass.fine)}.`;
  });
  protected readonly prints = computed(() =>
    (this.desk()?.prints ?? []).slice(-4).map(({ id, at, content: { picture, result, film, pressed } }) => ({
      id,
      when: new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }),
      address: picture ? this.pictures.address(picture) : '',
      text: `${result.spotsPerSquare === null ? `${result.spots} spots` : `${result.spotsPerSquare.toFixed(0)} a square`}${result.bearingShare === null ? '' : `, ${Math.round(100 * result.bearingShare)} %`}`,
      more: `${film === null ? 'film not said' : `film ${this.size(film, 'deviation')}`}${pressed ? `, end ${pressed} pressed` : ''}`,
    })),
  );
  protected readonly lastBlue = computed(
    () =>
      this.surface()
        ?.entries.filter((entry) => entry.kind === 'blue')
        .at(-1)?.content,
  );
  /** The newest round of the check that it is scraped true by, where it was read after the last measurement here. */
  protected readonly round = computed(() => {
    const [surface, desk] = [this.surface(), this.desk()];
    const { check, quantity } = surface?.aim ?? {};
    const round = this.rounds().findLast((entry) => entry.check === check && entry.finding?.quantities[quantity ?? '']);
    const found = round?.finding?.quantities[quantity ?? ''];
    return round && found && (!desk?.aim || round.at > desk.aim.at)
      ? { id: round.id, number: round.number, value: found.value, doubt: found.expanded ?? 0 }
      : null;
  });

  /** The straightedge of the kit is over the date until which it is good. */
  private readonly kit = toSignal(this.kitStore.all$, { initialValue: [] as readonly KitItem[] });
  protected readonly overdue = computed(() => {
    const { kitId } = this.surface()?.reference ?? {};
    const item = this.kit().find(({ id }) => id === kitId);
    const days = item ? daysUntilDue(item.care, new Date().toISOString().slice(0, 10)) : undefined;
    return days !== undefined && days < 0
      ? `${item?.name} is ${-days} days over its date: what it prints is only as straight as it is.`
      : '';
  });

  private typedDigits = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
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
    inject(Keys).use([
      key('Space', 'a pass on the yellow zone', [' '], () => this.passNext()),
      key('1 … 9', 'a pass on that zone', ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9'], () => undefined),
      key('⌫', 'take the last pass back', ['Backspace', 'Delete'], () => this.takeBack()),
      key('B', 'blue it', ['b'], () => this.blue()),
      key('P', 'read the print', ['p'], () => this.panel.set('print')),
      key('H', 'it turned there', ['h'], () => this.edge()?.keep()),
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
    addEventListener('keydown', this.digit);
  }

  ngOnDestroy(): void {
    removeEventListener('keydown', this.digit);
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
  private readonly digit = (event: KeyboardEvent): void => {
    const target = event.target as HTMLElement | null;
    if (
      !/^\d$/.test(event.key) ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      event.repeat ||
      this.panel() ||
      target?.tagName === 'INPUT'
    )
      return;
    clearTimeout(this.timer);
    this.typedDigits += event.key;
    const ids = this.surface()?.zones.map(({ id }) => id) ?? [];
    const run = () => {
      const id = this.typedDigits;
      this.typedDigits = '';
      if (ids.includes(id)) this.pass(id);
      else this.problem.set(`There is no zone ${id} on this face.`);
    };
    if (ids.some((id) => id.length > this.typedDigits.length && id.startsWith(this.typedDigits))) this.timer = setTimeout(run, DIGITS);
    else run();
  };

  private write(entry: NewEntry): void {
    const surface = this.surface();
    if (!surface) return;
    this.problem.set('');
    this.store.write(surface, entry);
  }

  protected pass(id: string): void {
    const zone = this.desk()?.zones.find((entry) => entry.zone.id === id);
    if (!zone) return;
    if (zone.zone.use === 'ignore') return this.problem.set(`Zone ${id} is left out: nothing comes off it.`);
    const kind = zone.zone.use === 'relieve' ? 'relief' : this.passKind();
    this.write({ kind: 'pass', content: { zone: id, kind, grade: zone.grade, angle: zone.angle } });
  }

  private passNext(): void {
    const next = this.desk()?.next;
    if (next) this.pass(next);
    else this.problem.set(`No zone is yellow. ${this.now()}`);
  }

  protected takeBack(id = this.desk()?.last?.id): void {
    if (id) this.write({ kind: 'withdrawn', content: {}, supersedes: id });
  }

  protected blue(): void {
    const before = this.lastBlue();
    this.write({ kind: 'blue', content: { film: before?.film ?? null, dye: this.dye() || (before?.dye ?? false), pressed: null } });
  }

  protected turns({ from, length, a, b }: Turns): void {
    this.write({ kind: 'hinge', content: { from, length, a, b } });
  }

  protected printed(content: Extract<DeskEntry, { kind: 'print' }>['content']): void {
    this.panel.set(null);
    this.write({ kind: 'print', content });
  }

  protected planned(content: Extract<DeskEntry, { kind: 'plan' }>['content']): void {
    this.panel.set(null);
    this.write({ kind: 'plan', content });
  }

  protected openMeasure(): void {
    if (!this.surface()?.aim)
      return this.problem.set('This face is scraped by its contact alone: say on its card what it is to be true by.');
    const round = this.round();
    this.value.set(round ? round.value.toFixed(1) : '');
    this.doubt.set(round ? round.doubt.toFixed(1) : '');
    this.panel.set('measure');
  }

  protected measured(): void {
    const [value, doubt] = [this.value(), this.doubt()].map((text) => {
      const parsed = text.trim() ? parseQuantity(text, this.aimInfo()?.dimension ?? 'deviation') : undefined;
      return parsed?.ok ? parsed.value : NaN;
    });
    if (!Number.isFinite(value))
      return this.problem.set(`What it reads: must be a figure in ${this.surface()?.aim?.unit ?? ''}, or with its unit. Try: 43`);
    if (!(doubt >= 0)) return this.problem.set('How surely: must be a figure, nothing or more. Try: 5');
    const round = this.round();
    const same = round && Math.abs(value - round.value) < 0.06;
    this.panel.set(null);
    this.write({ kind: 'measure', content: { value, doubt, roundId: same ? round.id : null } });
  }

  protected accept(): void {
    if (!this.why().trim()) return this.problem.set('Why: is missing. Try: squareness 8, 14 spots');
    this.panel.set(null);
    this.write({ kind: 'state', content: { state: 'accept', why: this.why().trim() } });
  }

  protected setState(state: 'rough' | 'contact' | 'measure'): void {
    this.write({ kind: 'state', content: { state, why: `${stateWords(state)} now` } });
  }

  protected freshBlade(): void {
    this.write({ kind: 'blade', content: { name: 'fresh edge', stroke: null } });
  }

  protected done(): void {
    this.write({ kind: 'done', content: {} });
  }

  protected async giveUp(): Promise<void> {
    for (const entry of this.refused()) await this.outbox.drop(entry);
  }
}
