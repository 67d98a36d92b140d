import { Directive, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { EMPTY, catchError, merge, of, switchMap } from 'rxjs';
import {
  baseSchema,
  CHECKS,
  FaultError,
  moveFiles,
  MOVES,
  readInstrument,
  type CheckDefinition,
  type Fault,
  type Move,
  type MoveFile,
  type WantedMove,
} from '@isometra/core';
import type { MoveWrite, StoredRound } from '@isometra/contract';
import {
  canSwap,
  curvesAlong,
  doable,
  hardwareOf,
  hardwareOfFault,
  leftOver,
  mayComeNearer,
  onMachine,
  pileUnder,
  readCard,
  sheetOf,
  solveWhatStands,
  SWAP,
  swapPlan,
} from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { askedOfCasting, seatPlanOutdated } from '../supports/seat-basis';
import { plansAlso, spreadOf } from './job-texts';
import { replanned } from './replan';

/** µm: a movement for all places that is less is none. */
const LEAST = 0.5;

/** The move of one kind, where there is one; else the first. */
const ofKind = (moves: readonly Move[], kind: string): Move | undefined => moves.find((move) => move.kind === kind) ?? moves.at(0);

/** The move that a round asks for, or that was begun for it: which kind, how much, by what plan. A job card shows it. */
@Directive()
export abstract class JobMove {
  readonly roundId = input.required<string>();
  readonly quantity = input.required<string>();
  /** What is in already is brought nearer: which part of what is left, "0.5" or "1". Left out, what the round asks for is done. */
  readonly nearer = input<string>();

  protected readonly store = inject(MachineStore);
  protected readonly rounds = inject(Rounds);
  protected readonly settings = inject(Settings);
  protected readonly problem = signal('');

  /** The round as it stands here: readings that are still on their way count. */
  protected readonly round = toSignal(
    toObservable(this.roundId).pipe(
      switchMap((id) =>
        merge(
          of(null),
          this.rounds.one(id),
          this.rounds.open(id).pipe(
            switchMap(() => EMPTY),
            catchError((failure: ApiFailure) => {
              this.problem.set(failure.message);
              return EMPTY;
            }),
          ),
        ),
      ),
    ),
    { initialValue: null as StoredRound | null },
  );
  protected readonly check = computed((): CheckDefinition | undefined => CHECKS.get(this.round()?.check ?? ''));
  protected readonly sheet = computed(() => {
    const round = this.round();
    return round && sheetOf(round, round.readings, this.store.facts(round));
  });
  protected readonly context = computed(() => ({ waits: this.store.waits(this.check()?.id ?? '') }));
  protected readonly finding = computed(() => {
    const sheet = this.sheet();
    const found = sheet ? solveWhatStands(sheet, this.context()).finding : null;
    return found && onMachine(found, this.store.kind());
  });
  /** The move as the round asks for it. */
  protected readonly asked = computed((): Move | undefined => this.finding()?.moves.find((move) => move.quantity === this.quantity()));
  /** The move as it is made: by a card that was begun, or for all the places along the bed where those differ. */
  protected readonly found = computed((): Move | undefined => {
    const [asked, kept, want] = [this.asked(), this.saved(), this.want()];
    const anew = this.anew();
    if (anew) return anew;
    if (kept?.quantity === this.quantity())
      return asked || kept.made?.nearer ? this.instead({ amount: kept.amount, metal: true }, kept.kind) : undefined;
    return want ? ofKind(this.wantedMoves(), this.chosen()) : asked;
  });
  /** What is wanted of a card that has not been begun, where it is not what its round asks for. */
  private readonly want = computed((): WantedMove | undefined => {
    const [curve, told, part] = [this.curve()?.curve, this.told(), this.nearerBy()];
    if (this.forAll() && curve) return { amount: curve.best, metal: curve.anyOut };
    return part !== undefined && told && mayComeNearer(told) ? { amount: part * leftOver(told), metal: false } : undefined;
  });
  /** Which part of what is left is to be done of something that is in. */
  protected readonly nearerBy = computed((): number | undefined => {
    const part = this.saved()?.made?.nearer ?? Number(this.nearer());
    return part > 0 && part <= 1 ? part : undefined;
  });

  /** The moves of this quantity by another amount than its round asks for, as the core plans them. */
  private movesFor(want: WantedMove): readonly Move[] {
    const sheet = this.sheet();
    if (!sheet || want.amount === 0) return [];
    const { finding } = solveWhatStands(sheet, { ...this.context(), wanted: { [this.quantity()]: want } });
    return (finding ? onMachine(finding, this.store.kind()).moves : []).filter(({ quantity }) => quantity === this.quantity());
  }
  /** What is wanted, as each kind of move would do it: worked out once for all that ask. */
  private readonly wantedMoves = computed(() => {
    const want = this.want();
    return want ? this.movesFor(want) : [];
  });
  private instead(want: WantedMove, kind: string): Move | undefined {
    return ofKind(this.movesFor(want), kind);
  }
  /** A card that was begun here and is not done: one that a whole casting was planned on is planned there. */
  protected readonly openCard = computed(() => {
    const kept = this.saved();
    return kept && !kept.doneAt && kept.quantity === this.quantity() && !('want' in kept.plan) ? kept : undefined;
  });
  /** What a card that was begun is planned anew to: its round or the machine card was put right since. */
  protected readonly anew = computed((): Move | undefined => {
    const [asked, kept, curve, told] = [this.asked(), this.openCard(), this.curve()?.curve, this.told()];
    if (!kept || this.panel() === 'register') return undefined;
    const part = kept.made?.nearer;
    const wants: WantedMove[] = [];
    if (asked && curve && curve.best !== 0) wants.push({ amount: curve.best, metal: true });
    if (!asked && part && told && mayComeNearer(told)) wants.push({ amount: part * leftOver(told) });
    const also = wants.flatMap((want) => this.instead(want, kept.kind) ?? []);
    const all = [...(asked ? [asked] : []), ...also];
    return all.length ? replanned({ kept, asked: all, plan: (move) => this.tried(move), gain: this.gain() }) : undefined;
  });
  /** Why the plan of a whole casting no longer holds; '' for any other card. */
  protected readonly seatOutdated = computed((): string => {
    const [kept, finding] = [this.saved(), this.finding()];
    if (!kept || kept.doneAt || !finding || !('want' in kept.plan)) return '';
    const casting = this.store.machine()?.card.castings?.find(({ id }) => id === this.check()?.casting);
    return casting ? seatPlanOutdated(kept.plan, askedOfCasting(finding.quantities, casting.frame), casting.supports) : '';
  });
  /** A card that was begun, for what nothing is asked any more: its round calls it in. */
  protected readonly ended = computed(
    () => !!this.openCard() && !this.asked() && this.told()?.verdict === 'in' && !this.saved()?.made?.nearer,
  );
  /** The card was begun for something else than its round asks for now. */
  protected readonly turned = computed(() => this.ended() || this.anew() !== undefined);
  protected readonly info = computed(() => this.check()?.quantities[this.quantity()]);
  protected readonly told = computed(() => this.finding()?.quantities[this.quantity()]);

  /** The card that was begun for this, if there is one: the last. */
  protected readonly saved = computed((): MoveWrite | undefined =>
    this.round()
      ?.moves.filter((move) => !move.made?.putAway && (move.quantity === this.quantity() || plansAlso(move, this.quantity())))
      .at(-1),
  );
  /** What this does along the bed, where it has been read at several places and they differ. */
  protected readonly curve = computed(() => {
    const curves = curvesAlong(this.store.current(), this.check()?.id ?? '');
    return curves.find(({ quantity, curve }) => quantity === this.quantity() && curve.worn);
  });
  /** What is done for one place alone would throw the others out. */
  protected readonly canSuitAll = computed(() => !this.saved() && Math.abs(this.curve()?.curve.best ?? 0) > LEAST);
  protected readonly suitAll = signal(true);
  protected readonly forAll = computed(() => this.canSuitAll() && this.suitAll());
  /** The places along the bed that this card suits: before it is begun by what is chosen, then by the amount it was begun with. */
  protected readonly forAllPlaces = computed(() => {
    const [curve, kept] = [this.curve(), this.saved()];
    if (!curve || kept?.doneAt) return undefined;
    return (kept ? Math.abs(kept.amount - curve.curve.best) < LEAST : this.forAll()) ? curve : undefined;
  });
  protected readonly card = computed(() => readCard(this.store.machine()?.card));
  protected readonly hardware = computed(() =>
    hardwareOf(this.check()?.id ?? '', {
      card: this.store.machine()?.card,
      stock: this.store.stock(),
      gain: this.useGain() ? this.gain() : null,
    }),
  );
  /** Shims that earlier moves have put under it for this. */
  private readonly pile = computed(() => {
    const round = this.round();
    return round ? pileUnder(round, this.quantity(), this.store.all()) : undefined;
  });
  /** What is to be done of it: what its round asks for, or what is wanted instead. */
  private readonly toDo = computed(() => {
    const want = this.saved() ? undefined : this.want();
    return want ? this.wantedMoves().at(0) : (this.asked() ?? (this.saved()?.made?.nearer ? this.found() : undefined));
  });
  /** What raised it too far is made thinner again before anything is scraped. */
  private readonly canSwap = computed(() => {
    const move = this.toDo();
    return move !== undefined && canSwap(this.pile(), move);
  });
  /** Ways to make this correction, the usual first. */
  protected readonly kinds = computed(() => {
    const move = this.toDo();
    const correction = this.check()?.corrections[this.quantity()];
    if (!move || !correction) return [];
    const metal = this.told()?.verdict === 'out' || this.want()?.metal === true || this.saved()?.kind !== undefined;
    const hardware = this.hardware();
    const offered = (move.amount > 0 ? correction.plus : correction.minus).filter(
      (kind) => !MOVES.get(kind)?.ifOnCard || hardware[kind] !== undefined,
    );
    // A card that tells of a sleeve and not of screws is that of a machine without screws.
    const told = offered.some((kind) => MOVES.get(kind)?.ifOnCard);
    const swap = this.canSwap() ? [SWAP] : [];
    return [...swap, ...offered]
      .filter((kind) => metal || !MOVES.get(kind)?.metal)
      .filter((move) => doable(move, this.store.kind(), this.check()?.id ?? ''))
      .filter((kind) => !told || !MOVES.get(kind)?.card || hardware[kind] !== undefined)
      .map((kind) => ({ value: kind, label: MOVES.get(kind)?.name ?? kind }));
  });
  protected readonly chosen = signal('');
  protected readonly kind = computed(() => this.saved()?.kind ?? this.wanted());
  protected readonly wanted = computed(() => {
    const kinds = this.kinds().map(({ value }) => value);
    return [this.chosen(), this.canSwap() ? SWAP : '', this.toDo()?.kind ?? ''].find((kind) => kinds.includes(kind)) ?? kinds[0] ?? '';
  });
  protected readonly useGain = signal(false);
  /** Only a screw has a gain to learn: a shim is as thick as it is. */
  protected readonly gain = computed(() => {
    const [kind, check] = [this.saved()?.kind ?? (this.chosen() || this.asked()?.kind || ''), this.check()?.id ?? ''];
    return this.store.gain({ check, quantity: this.quantity(), kind });
  });
  /** What the card has beside its steps. */
  protected readonly panel = computed(() => MOVES.get(this.kind())?.panel);
  protected readonly shims = computed(() => MOVES.get(this.kind())?.leaves === true);
  /** A shim cut to the base on the machine card. */
  protected readonly base = computed(() => (this.check()?.part?.base ? baseSchema.safeParse(this.card()?.['base']).data : undefined));

  /** The plan of the chosen kind, or why there is none. */
  protected readonly planned = computed((): { plan: Readonly<Record<string, unknown>>; missing: readonly Fault[] } => {
    const [move, kept] = [this.found(), this.saved()];
    // A card that has been begun keeps its plan, whatever has been taken out of the drawer since.
    if (kept && !this.anew()) return { plan: kept.plan, missing: [] };
    if (!move) return { plan: {}, missing: [] };
    try {
      return { plan: this.plan(move), missing: [] };
    } catch (error) {
      if (!(error instanceof FaultError)) throw error;
      return { plan: {}, missing: error.faults };
    }
  });

  /** The plan of a move; undefined where something for it is missing. */
  protected tried(move: Move, kind = this.kind()): Readonly<Record<string, unknown>> | undefined {
    try {
      return this.plan(move, kind);
    } catch (error) {
      if (error instanceof FaultError) return undefined;
      throw error;
    }
  }

  /** The round solved again with the hardware of this kind alone: so every kind is planned as the core plans it. */
  private plan(move: Move, kind = this.kind()): Readonly<Record<string, unknown>> {
    const [sheet, pile] = [this.sheet(), this.pile()];
    if (kind === SWAP && pile) return swapPlan(pile, move.amount, this.store.stock() ?? []);
    const own = this.hardware()[kind];
    // What the machine card does not know, the finding's own plan may.
    if (!own || !sheet) return move.kind === kind ? move : {};
    const wanted = { [move.quantity]: { amount: move.amount, metal: true } };
    const { finding, faults } = solveWhatStands({ ...sheet, hardware: { [kind]: own } }, { ...this.context(), wanted });
    const lacking = faults.filter((fault) => hardwareOfFault(fault) === kind);
    if (!finding || lacking.length) throw new FaultError(lacking.length ? lacking : faults);
    return finding.moves.find((entry) => entry.quantity === move.quantity && entry.kind === kind) ?? {};
  }

  /** The move of this card as a file of its own; undefined of what is done by hand and eye, or is planned with a whole casting. */
  protected readonly moveFile = computed((): MoveFile | undefined => {
    const [move, sheet, kind] = [this.found(), this.sheet(), this.kind()];
    const own = this.hardware()[kind];
    if (!move || !sheet || !own) return undefined;
    const wanted = { [move.quantity]: { amount: move.amount, metal: true } };
    try {
      const files = moveFiles({ ...sheet, hardware: { [kind]: own } }, { ...this.context(), wanted });
      return files.find(({ quantity, file }) => quantity === move.quantity && file.move === kind)?.file;
    } catch (error) {
      if (error instanceof FaultError) return undefined;
      throw error;
    }
  });

  protected readonly shown = this.settings.shown;
  protected readonly amount = computed(() => this.found()?.amount ?? this.saved()?.amount ?? 0);
  protected readonly wedge = computed(() => spreadOf(this.info()) === 'wedge');
  /** The instrument of the round. */
  protected readonly instrument = computed(() => {
    const raw = this.round()?.instrument;
    return raw ? readInstrument(raw).instrument : undefined;
  });
}
