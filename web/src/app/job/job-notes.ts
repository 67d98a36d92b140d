import { Directive, computed, linkedSignal, signal, type Signal } from '@angular/core';
import { MOVES, type JobStep, type Move } from '@isometra/core';
import { NOTHING_SEEN, type Made, type MoveWrite } from '@isometra/contract';
import { leavesOf, reallyMoved, turnsScrew } from '@isometra/work';
import { newId } from '../data/id';
import { nowText } from '../data/clock';
import type { Choice } from '../ui/choices';
import { bothUnits, moveWords } from '../ui/say';
import { JobStanding } from './job-standing';
import { landingWords } from './job-texts';
import { othersWords } from './others-words';
import { replanWords } from './replan';

/** What is written down on a card: ticks, what went in, what was moved, what was seen. Kept from the first of them on. */
@Directive()
export abstract class JobNotes extends JobStanding {
  protected abstract readonly steps: Signal<readonly JobStep[]>;
  /** Where the hand moves it, lays leaves in or takes metal off: what is ticked from there on was done by the plan of then. */
  private readonly actStep = computed(() => {
    const found = this.steps().findIndex(({ needle, leaves }) => needle === true || leaves === true);
    return found < 0 ? 0 : found;
  });
  /** It was moved by a plan that is no longer the plan. */
  protected readonly movedByOld = computed(() => this.turned() && (this.saved()?.ticks ?? []).some((tick) => tick >= this.actStep()));
  protected readonly ticks = computed(() => {
    const ticked = this.saved()?.ticks ?? [];
    return new Set(this.turned() ? ticked.filter((tick) => tick < this.actStep()) : ticked);
  });
  /** What a card says that was begun for something else than its round asks for now; '' for any other. */
  protected readonly turnedWords = computed(() => {
    const [kept, now, info] = [this.saved(), this.found(), this.info()];
    if (!kept || !this.turned()) return '';
    const say = (amount: number) => moveWords(amount, info, this.shown());
    const how = MOVES.get(kept.kind);
    return replanWords({
      old: say(kept.amount),
      now: now && !this.ended() ? say(now.amount) : '',
      moved: this.movedByOld(),
      wrongWay: !!now && Math.sign(now.amount) !== Math.sign(kept.amount),
      kind: how?.leaves ? 'leaves' : how?.metal ? 'metal' : turnsScrew(kept.kind) ? 'screw' : 'other',
    });
  });

  /** The card is closed: nothing has to be moved any more. */
  protected putAway(): void {
    this.note({ putAway: { at: nowText(), by: this.settings.by() } });
  }

  /** Another kind of move for the same card, until it is done: what was ticked belongs to the other one. */
  protected change(kind: string): void {
    const [kept, move, round] = [this.openCard(), this.found(), this.round()];
    if (!kept || !move || !round || kept.kind === kind) return;
    const plan = { ...(this.tried(move, kind) ?? {}) };
    this.rounds.putMove(round.machineId, { ...kept, kind, plan, ticks: [], amount: move.amount, direction: move.direction }, true);
  }
  protected readonly shift = linkedSignal(() => this.saved()?.shift ?? '');
  // What really went in.
  protected readonly inch = computed(() => this.settings.system() === 'inch');
  private readonly leafText = signal<string | null>(null);
  protected readonly leafProblem = signal('');
  protected readonly wentIn = computed(() => {
    const { made } = this.saved() ?? {};
    return this.leafText() ?? made?.wentIn?.map(this.leaf).join(' + ') ?? '';
  });
  /** A thickness as leaves are marked, whatever the fineness of the screen. */
  protected readonly leaf = (um: number): string => bothUnits(um, 'deviation', { ...this.shown(), fineness: 'coarse' }).large;
  /** Where it stands with what went in: by the thickness alone, before it is read again. */
  protected readonly landing = computed(() => {
    const [move, quantity, info] = [this.saved(), this.told(), this.info()];
    if (!move?.made?.wentIn || !quantity || !info || quantity.limit === null) return '';
    return landingWords(quantity, reallyMoved(move), info, this.shown());
  });

  protected putIn(text: string): void {
    this.leafText.set(text);
    const told = text.trim() ? leavesOf(text) : { ok: true as const, leaves: null };
    this.leafProblem.set(told.ok ? '' : told.message);
    if (!told.ok) return;
    const { wentIn: _none, ...made } = this.saved()?.made ?? NOTHING_SEEN;
    this.save({ made: { ...made, ...(told.leaves && { wentIn: [...told.leaves] }) } });
    this.leafText.set(null);
  }

  /** What else was let go and set again with it. */
  protected alsoSet(text: string): void {
    const { alsoSet: _before, ...made } = this.saved()?.made ?? NOTHING_SEEN;
    this.save({ made: { ...made, ...(text.trim() && { alsoSet: text.trim() }) } });
  }

  protected stroked(nod: NonNullable<Made['nod']>): void {
    this.note({ nod });
  }

  protected feltAt(felt: NonNullable<Made['felt']>): void {
    this.note({ felt });
  }

  protected registered(register: NonNullable<Made['register']>): void {
    this.note({ register });
  }

  // Which of what carries like things is moved.
  /** Said before the card is begun it waits here; then it stands on it. */
  protected readonly moved = linkedSignal(() => this.saved()?.made?.moved ?? null);
  private readonly byRegister = computed(() => MOVES.get(this.kind())?.curedBy === 'control');
  protected readonly wholeOrOne = computed((): readonly Choice<NonNullable<Made['moved']>>[] => {
    const { all = '', alone } = this.check()?.part?.carries ?? {};
    // A register has its own scope: nothing is eased for it.
    if (!alone || this.byRegister()) return [];
    return [
      { value: 'all', label: all },
      { value: 'one', label: `the ${alone.name}` },
    ];
  });
  protected chooseMoved(moved: NonNullable<Made['moved']>): void {
    this.moved.set(moved);
    if (this.saved()) this.note({ moved });
  }
  /** What the hand is on: where nobody said otherwise, all of it. */
  protected readonly part = computed(() => {
    const part = this.check()?.part;
    return this.moved() === 'one' && this.wholeOrOne().length ? part?.carries?.alone : part;
  });
  /** What the other stations say: whether the turret has gone over, or this one alone is off. */
  protected readonly others = computed(() => {
    const say = this.saved()?.doneAt ? undefined : this.store.others(this.roundId(), this.quantity());
    return say ? othersWords(say, this.byRegister()) : '';
  });

  protected tick(index: number, on: boolean): void {
    const ticks = new Set(this.ticks());
    if (on) ticks.add(index);
    else ticks.delete(index);
    this.save({ ticks: [...ticks].sort((a, b) => a - b) });
  }

  /** Something more was seen at the part. */
  protected note(seen: Partial<Made>, part: Partial<Pick<MoveWrite, 'plan'>> = {}): void {
    this.save({ made: { ...(this.saved()?.made ?? NOTHING_SEEN), ...seen }, ...part });
  }

  /** The card is kept from the first tick on; ticks, shift and done are changes of it. */
  protected save(part: Partial<Pick<MoveWrite, 'ticks' | 'doneAt' | 'shift' | 'made' | 'plan'>>): void {
    const [move, known, round] = [this.found(), this.saved(), this.round()];
    if (!round || (!move && !known)) return;
    const kept = known && this.anew() ? this.plannedAnew(known, move as Move) : known;
    const next = { ...(kept ?? this.begun(move as Move, part.doneAt ?? nowText())), shift: this.shift().trim() || null, ...part };
    if (kept !== known && kept?.made && part.made) next.made = { ...part.made, replanned: kept.made.replanned };
    this.rounds.putMove(round.machineId, this.withMoved(next), known !== undefined);
  }

  /** What was said to be moved before the card was begun stands on it from its first line on. */
  private withMoved(next: MoveWrite): MoveWrite {
    const moved = this.wholeOrOne().length ? this.moved() : null;
    return moved ? { ...next, made: { ...(next.made ?? NOTHING_SEEN), moved } } : next;
  }

  /** A card that goes on by what its round asks for now; what it was begun for stays written on it. */
  private plannedAnew(kept: MoveWrite, { amount, unit, direction }: Move): MoveWrite {
    const old = { at: nowText(), by: this.settings.by(), amount: kept.amount, direction: kept.direction, moved: this.movedByOld() };
    const made = { ...(kept.made ?? NOTHING_SEEN), replanned: [...(kept.made?.replanned ?? []), old].slice(-12) };
    return { ...kept, amount, unit, direction, plan: { ...this.planned().plan }, ticks: [...this.ticks()], made };
  }

  private begun({ amount, unit, direction }: Move, begunAt: string): MoveWrite {
    const nearer = this.nearerBy();
    return {
      ...{ id: newId(), roundId: this.roundId(), kind: this.kind(), quantity: this.quantity(), amount, unit, direction },
      ...{
        plan: { ...this.planned().plan },
        ticks: [],
        shift: null,
        by: this.settings.by(),
        begunAt,
        doneAt: null,
      },
      ...(nearer !== undefined && !this.asked() && { made: { ...NOTHING_SEEN, nearer } }),
      version: 1,
    };
  }
}
