import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import * as z from 'zod';
import { WEEKDAYS } from '@isometra/contract';
import { minutesTyped, minutesWords, tonight, weekdayOf } from '@isometra/work';
import { Drafts } from '../data/drafts';
import { useKeys } from '../data/keys';
import { Remarks } from '../data/remarks';
import { dayWords, timeWords, today } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { Button } from '../ui/controls';
import { Cautions } from '../ui/cautions';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { PlanState } from './plan-state';
import { KIND_WORDS } from './plan-words';

const pieceSchema = z.object({ key: z.string(), title: z.string(), minutes: z.number(), carriedOn: z.boolean() });
const eveningSchema = z.object({
  day: z.string(),
  minutes: z.number(),
  people: z.number(),
  pieces: z.array(pieceSchema),
  ticked: z.array(z.string()),
  ended: z.boolean(),
});
type Evening = z.infer<typeof eveningSchema>;

/** Where nobody has told how long an evening is, minutes. */
const USUAL = 120;

/** An evening at one machine: what fits, what to lay out, who must come; at its end, what was done and what was left open. */
@Component({
  selector: 'iso-tonight-page',
  imports: [RouterLink, Button, Cautions, Field, Notice, Tick],
  providers: [PlanState],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tonight-page.html',
  styleUrl: './tonight-page.css',
})
export class TonightPage {
  protected readonly state = inject(PlanState);
  private readonly machineStore = inject(MachineStore);
  protected readonly machineId = computed(() => this.machineStore.machine()?.id ?? '');
  private readonly drafts = inject(Drafts);
  private readonly remarks = inject(Remarks);
  protected readonly when = timeWords;
  protected readonly say = minutesWords;
  protected readonly problem = signal('');
  private readonly draftName = computed(() => `tonight ${this.machineId()}`);
  /** The evening as it was laid out; undefined until the plan has come. */
  private readonly evening = signal<Evening | undefined>(undefined);

  protected readonly minutes = computed(() => minutesWords(this.evening()?.minutes ?? USUAL));
  protected readonly people = computed(() => String(this.evening()?.people ?? 1));
  protected readonly ended = computed(() => this.evening()?.ended ?? false);
  protected readonly pieces = computed(() => {
    const [evening, open] = [this.evening(), new Map(this.state.items().map((item) => [item.key, item]))];
    return (evening?.pieces ?? []).map((piece) => {
      const item = open.get(piece.key);
      const recorded = item === undefined;
      return {
        ...piece,
        ...{ path: item?.path ?? null, kind: item ? KIND_WORDS[item.kind] : '', why: item?.why ?? '' },
        recorded,
        done: recorded || (evening?.ticked.includes(piece.key) ?? false),
        takes: `${minutesWords(piece.minutes)}${piece.carriedOn ? ' of it' : ''}`,
      };
    });
  });
  protected readonly next = computed(() => this.pieces().find(({ done }) => !done)?.key);
  /** What the evening needs: worked out of what is still open of it. */
  protected readonly needs = computed(() => {
    const keys = new Set(this.pieces().flatMap(({ key, done }) => (done ? [] : [key])));
    const items = this.state.items().filter(({ key }) => keys.has(key));
    const most = Math.max(1, ...items.map((item) => Math.max(item.people, item.who.length)));
    const who = [...new Set(items.flatMap((item) => item.who))];
    return {
      layOut: [...new Set(items.flatMap(({ things }) => things))],
      cautions: [...new Set(items.flatMap(({ cautions }) => cautions))],
      who: who.length ? `${who.join(', ')} must be here.` : most > 1 ? `${most} people are needed.` : '',
    };
  });
  /** Job cards of what is still to be corrected tonight. */
  protected readonly cards = computed(() =>
    this.pieces().flatMap(({ done, path, title, kind }) =>
      done || path === null || kind !== KIND_WORDS.move ? [] : [{ path, title: `Job card: ${title}` }],
    ),
  );
  protected readonly over = computed(() => {
    const evening = this.evening();
    const used = evening?.pieces.reduce((sum, { minutes }) => sum + minutes, 0) ?? 0;
    return evening && evening.minutes - used >= 10
      ? `${minutesWords(evening.minutes - used)} are left over: nothing else fits or can be begun.`
      : '';
  });
  /** What one more pair of hands would make possible. */
  protected readonly wantsHands = computed(() => {
    const evening = this.evening();
    if (!evening) return '';
    const gone = new Set(this.pieces().flatMap(({ key, done }) => (done ? [key] : [])));
    const items = this.state.items().filter(({ key }) => !gone.has(key));
    const more = tonight(items, { minutes: evening.minutes, people: evening.people + 1, today: evening.day });
    const lift = more.items.find(({ item }) => item.people > evening.people);
    return lift ? `With ${evening.people + 1} people “${lift.item.title}” could be done as well.` : '';
  });

  constructor() {
    effect(() => {
      const id = this.machineId();
      if (id) untracked(() => this.state.load(id));
    });
    effect(() => {
      if (!this.state.shop()) return;
      untracked(() => this.begin());
    });
    inject(AtHand).doing.set('Tonight');
    this.machineStore.inHand.set(true);
    inject(DestroyRef).onDestroy(() => this.machineStore.inHand.set(false));
    useKeys([
      { shown: 'Space', does: 'the next one is done', keys: [' '], run: () => this.tickNext() },
      { shown: 'D', does: 'done for tonight', keys: ['d'], run: () => this.end() },
    ]);
  }

  /** Take up the evening that was laid out today, or lay one out. */
  private begin(): void {
    if (this.evening()) return;
    const kept = this.drafts.read(this.draftName(), eveningSchema);
    if (kept?.day === today()) return this.evening.set(kept);
    this.layOut({ minutes: this.usualMinutes(), people: 1 });
  }

  /** The hours of this weekday of whoever it is planned with, or two. */
  private usualMinutes(): number {
    const shop = this.state.shop();
    const weekday = WEEKDAYS[weekdayOf(today())];
    const hours = shop?.people[0]?.hours[weekday] ?? 0;
    return hours > 0 ? Math.round(hours * 60) : USUAL;
  }

  private keep(evening: Evening): void {
    this.evening.set(evening);
    this.drafts.keep(this.draftName(), evening);
  }

  /** Lay the evening out for so many minutes and hands: what is done of it stays. */
  private layOut({ minutes, people }: Pick<Evening, 'minutes' | 'people'>): void {
    const before = this.evening();
    const done = this.pieces().filter((piece) => piece.done);
    const gone = new Set(done.map(({ key }) => key));
    const left = minutes - done.reduce((sum, piece) => sum + piece.minutes, 0);
    // What was ticked is as good as done: what comes after it can be begun.
    const open = this.state.items().filter(({ key }) => !gone.has(key));
    const told = tonight(open, { minutes: Math.max(0, left), people, today: today() });
    const fresh = told.items.map(({ item: { key, title }, minutes: each, carriedOn }) => ({ key, title, minutes: each, carriedOn }));
    const pieces = [...(before?.pieces ?? []).filter(({ key }) => gone.has(key)), ...fresh];
    this.keep({ day: today(), minutes, people, pieces, ticked: before?.ticked ?? [], ended: false });
  }

  protected setMinutes(typed: string): void {
    const minutes = minutesTyped(typed);
    if (minutes === undefined || minutes < 5 || minutes > 1440) return this.problem.set('How long is the evening? Example: 2 h 30');
    this.problem.set('');
    this.layOut({ minutes, people: this.evening()?.people ?? 1 });
  }

  protected setPeople(typed: string): void {
    const people = Number(typed);
    if (!Number.isInteger(people) || people < 1 || people > 6) return this.problem.set('How many people are here? A whole number, 1 to 6.');
    this.problem.set('');
    this.layOut({ minutes: this.evening()?.minutes ?? USUAL, people });
  }

  protected tick(key: string, on: boolean): void {
    const evening = this.evening();
    if (!evening) return;
    const others = evening.ticked.filter((one) => one !== key);
    this.keep({ ...evening, ticked: on ? [...others, key] : others });
  }

  private tickNext(): boolean | void {
    const next = this.next();
    return next === undefined || this.ended() ? false : this.tick(next, true);
  }

  /** The evening is over: what was done and what was left open is written down. */
  protected end(): boolean | void {
    const evening = this.evening();
    if (!evening || evening.ended || this.pieces().length === 0) return false;
    const of = (done: boolean): string =>
      this.pieces()
        .filter((piece) => piece.done === done)
        .map(({ title }) => title)
        .join('; ');
    const [done, open] = [of(true), of(false)];
    const machine = this.machineStore.machine();
    this.remarks.write({
      ...{ machineId: this.machineId(), part: null, pictures: [] },
      place: { path: `/machines/${this.machineId()}/tonight`, words: `${machine?.card.number ?? ''}, Tonight` },
      text: [`Evening of ${dayWords(evening.day)}.`, done && `Done: ${done}.`, open && `Left open: ${open}.`].filter(Boolean).join('\n'),
    });
    for (const key of evening.ticked) if (key.startsWith('own ')) this.state.done(key.slice('own '.length));
    this.keep({ ...evening, ended: true });
  }

  /** Another evening on the same day. */
  protected again(): void {
    this.evening.set(undefined);
    this.drafts.drop(this.draftName());
    this.begin();
  }
}
