import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { Subscription } from 'rxjs';
import { LOG_KINDS, LOG_STATES, type LogEntry, type LogPage, type LogQuery } from '@isometra/contract';
import { isDay } from '../data/typed';
import type { ApiFailure } from '../data/api';
import { useKeys } from '../data/keys';
import { Logbook as Entries } from '../data/logbook';
import { Machines } from '../data/machines';
import { Settings } from '../data/settings';
import { clockWords, dateWords } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { asking, orNothing } from '../ui/asking';
import { askedText } from '../ui/asked-text';
import type { Choice } from '../ui/choices';
import { Button, TextField } from '../ui/controls';
import { Day } from '../ui/day';
import { Glyph } from '../ui/glyph';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { RemarkView } from '../notes/remark-view';
import { Remarks } from '../data/remarks';
import { pieces } from './found-words';
import { KIND_WORDS, logBeside, logCalls, logPath, logState, logText, standsForRound, STATE_WORDS } from './log-words';

/** Whoever types stops for this long at the end of a word, ms. */
const PAUSE = 250;

/** The page scrolls inside the plate: there the margin of its own scroller counts. */
const AHEAD = { rootMargin: '800px', scrollMargin: '800px' };

const ANY = '';
const TO_DO = 'to-do';
/** What is asked for: a kind, or the notes with something still to be done. */
const aboutOf = (what: string) => (what === TO_DO ? { todo: 'open' } : { what });

type Asked = Partial<Record<'what' | 'by' | 'part' | 'verdict' | 'from' | 'to' | 'words', string>>;

/** One thing that can be asked for out of a list. */
interface Picked {
  readonly name: keyof Asked;
  readonly label: string;
  readonly value: string;
  readonly options: readonly Choice<string>[];
}

/** What was done, by whom and when: of one machine, or of the whole shop. What is asked for stands in the address. */
@Component({
  selector: 'iso-logbook',
  imports: [Button, Day, Glyph, NgTemplateOutlet, Notice, Pick, RemarkView, RouterLink, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './logbook.html',
  styleUrl: './logbook.css',
})
export class Logbook {
  private readonly source = inject(Entries);
  private readonly router = inject(Router);
  private readonly ask = asking();
  private readonly settings = inject(Settings);
  /** The machine whose pages these are; of the shop's own page undefined. */
  private readonly frame = inject(MachineStore, { optional: true });
  protected readonly machineId = computed(() => this.frame?.machine()?.id);
  readonly what = input(ANY, { transform: orNothing });
  readonly by = input(ANY, { transform: orNothing });
  readonly part = input(ANY, { transform: orNothing });
  readonly verdict = input(ANY, { transform: orNothing });
  readonly from = input(ANY, { transform: orNothing });
  readonly to = input(ANY, { transform: orNothing });
  readonly words = input(ANY, { transform: orNothing });

  private readonly query = computed(
    (): LogQuery =>
      ({
        ...{ machine: this.machineId(), ...aboutOf(this.what()), by: this.by(), part: this.part(), state: this.verdict() },
        ...{ from: this.from(), to: this.to(), words: this.words() },
      }) as LogQuery,
  );
  protected readonly asked = computed(() => Object.entries(this.query()).some(([name, value]) => name !== 'machine' && !!value));

  protected readonly state = signal<'reading' | 'read'>('reading');
  protected readonly problem = signal('');
  protected readonly next = signal<string | null>(null);
  private readonly entries = signal<readonly LogEntry[]>([]);
  private readonly choices = signal<NonNullable<LogPage['choices']>>({ people: [], parts: [] });
  private reading: Subscription | undefined;

  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  private readonly more = viewChild<ElementRef<HTMLElement>>('more');
  private readonly shop = inject(Machines);
  private readonly machines = toSignal(this.shop.all$, { requireSync: true });
  protected readonly field = askedText(this.words);
  private pause: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    const hand = inject(AtHand);
    effect(() => hand.doing.set(this.machineId() ? 'Logbook' : ''));
    this.shop.load().subscribe({ error: () => undefined });
    effect(() => {
      this.query();
      untracked(() => this.begin());
    });
    // A note that the server has just taken stands there at once.
    inject(Remarks)
      .written$.pipe(takeUntilDestroyed())
      .subscribe(() => this.begin());
    useKeys([
      { shown: 'F', does: 'find words', keys: ['f'], run: () => this.box()?.nativeElement.focus() },
      { shown: 'Esc', does: 'look for no words', keys: ['Escape'], inFields: true, quiet: true, run: () => this.noWords() },
    ]);
    // The next page is asked for before the last line of this one is in sight.
    const sight = new IntersectionObserver((seen) => seen.some(({ isIntersecting }) => isIntersecting) && this.readMore(), AHEAD);
    effect(() => {
      sight.disconnect();
      this.entries();
      const end = this.more()?.nativeElement;
      if (end) sight.observe(end);
    });
    inject(DestroyRef).onDestroy(() => {
      sight.disconnect();
      clearTimeout(this.pause);
      this.reading?.unsubscribe();
    });
  }

  protected readonly picks = computed((): readonly Picked[] => {
    const { people, parts } = this.choices();
    const any = (label: string): Choice<string> => ({ value: ANY, label });
    // What the address asks for stands there, whether or not it was ever written down.
    const asWell = (options: Choice<string>[], value: string): Choice<string>[] =>
      options.some((option) => option.value === value) ? options : [...options, { value, label: value }];
    return [
      {
        ...{ name: 'what', label: 'About', value: this.what() },
        options: [
          any('everything'),
          { value: TO_DO, label: 'Things still to be done' },
          ...LOG_KINDS.map((kind) => ({ value: kind as string, label: KIND_WORDS[kind] })),
        ],
      },
      {
        ...{ name: 'part', label: 'Check or face', value: this.part() },
        options: asWell([any('all'), ...parts.map(({ id, name }) => ({ value: id, label: name }))], this.part()),
      },
      {
        ...{ name: 'verdict', label: 'Rounds that are', value: this.verdict() },
        options: [any('any'), ...LOG_STATES.map((state) => ({ value: state as string, label: STATE_WORDS[state] }))],
      },
      {
        ...{ name: 'by', label: 'By', value: this.by() },
        options: asWell([any('anybody'), ...people.map((who) => ({ value: who, label: who }))], this.by()),
      },
    ];
  });

  protected readonly bounds = computed(() => [
    { name: 'from' as const, shown: 'From', label: 'first day', value: this.from() },
    { name: 'to' as const, shown: 'To', label: 'last day', value: this.to() },
  ]);

  /** The entries, day by day. */
  protected readonly days = computed(() => {
    const days: { readonly name: string; readonly rows: ReturnType<Logbook['row']>[] }[] = [];
    for (const entry of this.entries()) {
      const name = dateWords(entry.at);
      const row = this.row(entry);
      const last = days.at(-1);
      if (last?.name === name) last.rows.push(row);
      else days.push({ name, rows: [row] });
    }
    return days;
  });

  private row(entry: LogEntry) {
    const stands = standsForRound(entry);
    const shown = this.settings.shown();
    const machine = this.machines().find(({ id }) => id === entry.machineId);
    return {
      id: entry.id,
      time: clockWords(entry.at),
      by: entry.by,
      was: entry.was,
      machine: machine && { id: machine.id, number: machine.card.number },
      path: logPath(entry),
      state: logState(entry),
      pieces: pieces(logText(entry, shown), this.words()),
      beside: logBeside(entry),
      calls: stands ? logCalls(entry, shown) : [],
      gone: (stands && !!entry.round?.struck) || entry.note === 'reworded',
      remark: entry.note === 'stands' ? entry.remark : null,
    };
  }

  protected type(text: string): void {
    const words = this.field.type(text);
    clearTimeout(this.pause);
    this.pause = setTimeout(() => this.ask({ words }), PAUSE);
  }

  private noWords(): boolean {
    if (!this.field.value()) return false;
    clearTimeout(this.pause);
    this.ask({ words: this.field.type('') });
    return true;
  }

  /** Ask for something; for a day only when it is one. */
  protected askFor(name: keyof Asked, value: string): void {
    if ((name !== 'from' && name !== 'to') || value === '' || isDay(value)) this.ask({ [name]: value });
  }

  protected askEverything(): void {
    void this.router.navigate([], { queryParams: {}, replaceUrl: true });
  }

  protected again(): void {
    if (this.entries().length) this.readMore();
    else this.begin();
  }

  private begin(): void {
    this.read(this.query(), (page) => {
      this.entries.set(page.entries);
      if (page.choices) this.choices.set(page.choices);
    });
  }

  protected readMore(): void {
    const before = this.next();
    if (before === null || this.state() === 'reading') return;
    this.read({ ...this.query(), before }, (page) => this.entries.update((known) => [...known, ...page.entries]));
  }

  /** Only the page that was asked for last is taken. */
  private read(query: LogQuery, take: (page: LogPage) => void): void {
    this.reading?.unsubscribe();
    this.state.set('reading');
    this.problem.set('');
    this.reading = this.source.page(query).subscribe({
      next: (page) => {
        take(page);
        this.next.set(page.next);
        this.state.set('read');
      },
      error: (failure: ApiFailure) => {
        this.state.set('read');
        this.problem.set(failure.message);
      },
    });
  }
}
