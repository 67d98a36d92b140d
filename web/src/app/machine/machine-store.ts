import { Injectable, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, type Observable, forkJoin, of, switchMap, tap } from 'rxjs';
import { CHECKS, type Note } from '@isometra/core';
import type { KitItem, Machine, RoundHead, StoredRound, StoredSurface } from '@isometra/contract';
import {
  gainOf,
  handRungsOf,
  headOf,
  judgedMoves,
  nextByHand,
  nextRung,
  eventsOf,
  oldNews,
  othersSay,
  passesOf,
  pendingOf,
  ladderFacts,
  spreadBefore,
  readCard,
  ruling,
  rungsOf,
  toldAfter,
  type JudgedMove,
  type OtherWork,
  type Told,
  running,
  scrapedOf,
  driftOf,
  staleBy,
  waitNotes,
  type Campaign,
  type OldNews,
  type OthersSay,
  type ShopFacts,
  type Screw,
  type StaleReason,
  type Solved,
  type Drift,
  slantOf,
} from '@isometra/work';
import { CardsThen } from '../data/cards-then';
import { nowText } from '../data/clock';
import { Heads } from '../data/heads';
import { Kit, sinePlatesOf, stockOf } from '../data/kit';
import { Machines } from '../data/machines';
import { Surfaces } from '../data/surfaces';
import { shopZone } from '../data/when';
import { Surveys } from '../data/surveys';

/** A gain nearer to one than this needs no reckoning with. */
const GAIN_ROOM = 0.1;

/** Everything about the machine being worked on, for the screens inside its frame: what the stores say of it. */
@Injectable()
export class MachineStore {
  private readonly machines = inject(Machines);
  private readonly heads = inject(Heads);
  private readonly kitStore = inject(Kit);
  private readonly surveyStore = inject(Surveys);
  private readonly surfaceStore = inject(Surfaces);
  private readonly cardsThen = inject(CardsThen);
  private readonly machineId$ = new BehaviorSubject<string | null>(null);

  private ofMachine<T>(select: (id: string) => Observable<T>, nothing: T) {
    return toSignal(this.machineId$.pipe(switchMap((id) => (id === null ? of(nothing) : select(id)))), { initialValue: nothing });
  }

  /** Everything that the screens need has been asked for and answered. */
  readonly ready = signal(false);
  private readonly asked = this.ofMachine<Machine | undefined>((id) => this.machines.one(id), undefined);
  readonly machine = computed(() => (this.ready() ? (this.asked() ?? null) : null));
  readonly kind = computed(() => this.machine()?.card.kind ?? '');
  /** The slant of its card, + its rear the higher; null where the card does not say. */
  readonly slant = computed(() => slantOf(this.machine()?.card['slide']) ?? null);
  readonly kit = toSignal(this.kitStore.inUse$, { initialValue: [] as readonly KitItem[] });
  private readonly listed = this.ofMachine<readonly RoundHead[]>((id) => this.heads.of(id), []);
  /** Rounds of all surveys that rule, oldest first. */
  readonly all = computed(() => ruling(this.listed()));
  readonly surveys = this.ofMachine<readonly Campaign[]>((id) => this.surveyStore.of(id), []);
  /** Faces that are scraped. */
  readonly surfaces = this.ofMachine<readonly StoredSurface[]>((id) => this.surfaceStore.of(id), []);
  /** The survey being worked on. */
  readonly survey = computed(() => running(this.surveys()));
  /** Rounds of that survey. */
  readonly current = computed(() => {
    const id = this.survey()?.id;
    return this.all().filter((round) => round.surveyId === id);
  });
  /** A screen with a next thing of its own is open: the ladder's yellow steps back. */
  readonly inHand = signal(false);
  readonly stock = computed(() => stockOf(this.kit()));
  /** Sine plates of the shop, the longest first: between their rolls, mm. */
  readonly sinePlates = computed(() => sinePlatesOf(this.kit()));
  private readonly ladder = () => ({
    now: nowText(),
    zone: shopZone(),
    scraped: scrapedOf(this.surfaces()),
    events: eventsOf(this.kind(), this.surveys()),
    ...ladderFacts(readCard(this.machine()?.card)),
  });
  readonly rungs = computed(() => (this.machine() ? rungsOf(this.kind(), this.current(), this.survey(), this.ladder()) : []));
  /** What is done by hand at the ends of the ladder. */
  readonly byHand = computed(() => {
    if (!this.machine()) return [];
    const work = { passes: passesOf(this.surfaces()), changes: this.otherWork().changes ?? [] };
    return handRungsOf(this.kind(), this.current(), this.survey()?.byHand ?? [], work);
  });
  /** The step by hand that comes next; then no rung is. */
  readonly nextStep = computed(() => nextByHand(this.byHand(), this.rungs()));
  readonly next = computed(() => (this.nextStep() ? undefined : nextRung(this.rungs())));

  /** Put a machine on the desk. Fails with an ApiFailure. */
  load(machineId: string): Observable<unknown> {
    this.ready.set(false);
    this.machineId$.next(machineId);
    return forkJoin([
      this.machines.loadOne(machineId),
      this.heads.load(machineId),
      this.kitStore.load(),
      this.surveyStore.load(machineId),
      this.surfaceStore.load(machineId),
    ]).pipe(tap(() => this.machineId$.value === machineId && this.ready.set(true)));
  }

  /** Ask for the rounds again. */
  refresh(): void {
    const id = this.machineId$.value;
    if (id !== null) this.heads.refresh(id);
  }

  /** What the bench has worked out of a round, before the server has. */
  show(round: StoredRound, solved: Solved, sheet: unknown): void {
    this.heads.tell(headOf(round, solved, sheet));
  }

  /** What a round's sheet needs of the shop: the card, the leaves, and by what its survey judges. */
  facts(round: Pick<StoredRound, 'id' | 'surveyId' | 'check' | 'at'>): ShopFacts {
    const survey = this.surveys().find((entry) => entry.id === round.surveyId) ?? this.survey();
    const card = this.cardsThen.known().get(round.id)?.card ?? this.machine()?.card;
    const setupSpread = spreadBefore(round, this.all());
    return {
      ...(card && { card }),
      stock: this.stock(),
      ...(survey && { limits: survey.judge, pending: pendingOf(survey) }),
      ...(setupSpread && { setupSpread }),
    };
  }

  /** Why a round of this survey no longer counts; undefined where it does. */
  stale(roundId: string): StaleReason | undefined {
    const [round, survey] = [this.current().find(({ id }) => id === roundId), this.survey()];
    return round && survey && staleBy(round, this.current(), survey, this.ladder());
  }

  /** Why a round is history; undefined for one that still tells what to do. */
  old(roundId: string): OldNews | undefined {
    const round = this.all().find(({ id }) => id === roundId);
    if (!round) return undefined;
    const survey = this.surveys().find(({ id }) => id === round.surveyId);
    return oldNews(round, { rounds: this.all(), survey, stale: this.stale(roundId) });
  }

  /** What the other like things say of one that is off, by all that the ladder knows; undefined where there are none. */
  others(roundId: string, quantity: string): OthersSay | undefined {
    const [round, survey] = [this.all().find(({ id }) => id === roundId), this.survey()];
    return round && othersSay(round, quantity, this.current(), survey, this.ladder());
  }

  /** What the call of a check waits for. */
  waits(check: string): readonly Note[] {
    return waitNotes(check, this.current(), this.survey());
  }

  /** The number of a round among those of its check. */
  number(round: Pick<StoredRound, 'id' | 'number'>): number {
    return round.number || (this.all().find(({ id }) => id === round.id)?.number ?? 1);
  }

  /** Rounds of a check, those among them whose date is asked about. */
  listedOf(checkId: string): readonly RoundHead[] {
    return this.listed().filter((round) => round.check === checkId);
  }

  /** Rounds of a check that rule. */
  of(checkId: string): readonly RoundHead[] {
    return this.all().filter((round) => round.check === checkId);
  }

  /** What else was done to the machine beside the moves of its rounds: faces that were scraped, planned changes that were made. */
  private readonly otherWork = computed((): OtherWork => ({
    scraped: scrapedOf(this.surfaces()),
    changes: this.surveys().flatMap(({ planned }) => planned.flatMap(({ doneAt }) => doneAt ?? [])),
    events: eventsOf(this.kind(), this.surveys()),
  }));

  /** The moves of a check, judged by the rounds around them. */
  judged(check: string): readonly JudgedMove[] {
    return judgedMoves(check, this.all(), this.otherWork());
  }

  /** How a quantity of a check has drifted since it was last moved; undefined where no round has told of it. */
  drift(check: string, quantity: string, thing: string): Drift | undefined {
    return driftOf(this.all(), { check, quantity, thing }, this.otherWork());
  }

  /** What a person is told after a round of what was done before it; undefined for a round that is not there yet. */
  told(roundId: string): Told | undefined {
    const round = this.all().find(({ id }) => id === roundId);
    return round && toldAfter(round, this.all(), this.otherWork());
  }

  /** Gain learned on this machine for a screw; null where none was, or where it moves as it should. */
  gain(screw: Screw): number | null {
    const learned = gainOf(this.judged(screw.check), screw);
    return learned !== null && Math.abs(learned - 1) > GAIN_ROOM ? learned : null;
  }

  /** The title of a check. */
  title(checkId: string): string {
    return CHECKS.get(checkId)?.title ?? checkId;
  }
}
