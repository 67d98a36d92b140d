import { Directive, computed } from '@angular/core';
import { dequal } from 'dequal';
import { MOVES, readingValue, type JobStep } from '@isometra/core';
import {
  ASK_WORDS,
  homingOf,
  isPast,
  kappaByAxis,
  learnedPivot,
  neighbours,
  plateWords,
  leftAt,
  reallyMoved,
  registerLog,
  registersFor,
  sameThing,
  screwKnown,
  staleWords,
  standingReadings,
  turnsScrew,
  unsettledOf,
} from '@isometra/work';
import { bedWords } from '../machine/bed-words';
import { sizeOf } from '../ui/say';
import { dateWords } from '../data/when';
import { oldWords, whereNow } from '../ui/old-words';
import { moveRecord, moveTold } from '@isometra/work';
import { JobMove } from './job-move';
import { nodSides } from './nod-words';
import { orderWords } from './order-words';
import type { KnownRegister } from '../register/register-lock';

/** How the move of a card stands to what else is known: later rounds, other places along the bed, the other move of its round. */
@Directive()
export abstract class JobStanding extends JobMove {
  private readonly old = computed(() => this.store.old(this.roundId()));
  /** Another round or survey has taken the place of this one: no step of it is done any more. */
  protected readonly past = computed(() => {
    const old = this.old();
    return !!old && isPast(old) && !this.saved()?.doneAt;
  });
  /** What counts now, and how to get there. */
  protected readonly current = computed(() => {
    const [old, round] = [this.old(), this.round()];
    return old && round && this.past() ? whereNow(old, round, (one) => this.store.number(one)) : undefined;
  });
  /** A card that is done is a record: when, by whom, and what the round after it said of it. */
  protected readonly record = computed((): string => {
    const [saved, check] = [this.saved(), this.check()];
    if (!saved?.doneAt || !check) return '';
    const judged = this.store.judged(check.id).find(({ move }) => move.id === saved.id);
    const out = saved.made?.takenOut;
    return [
      `Done on ${dateWords(saved.doneAt)} by ${saved.by}.`,
      out ? `It is out again since ${dateWords(out.at)}.` : '',
      saved.made?.alsoSet ? `${saved.made.alsoSet}.` : '',
      judged ? moveRecord(judged, this.info(), this.shown()) : out ? '' : 'No round after it yet.',
    ]
      .filter(Boolean)
      .join(' ');
  });
  /** Why this card is old news: a later round, or a move since that upset what it was read on. */
  protected readonly outdated = computed((): string => {
    const [round, check] = [this.round(), this.check()];
    if (!round || !check || this.saved()?.doneAt) return '';
    // Read on a plate that belongs elsewhere, it belongs to neither station.
    const misplaced = plateWords(this.card()?.['stations'], round.conditions);
    if (misplaced) return misplaced;
    const old = this.old();
    if (old && isPast(old)) return oldWords(old, { check, shown: this.shown(), day: dateWords, number: (one) => this.store.number(one) });
    const stale = this.store.stale(round.id);
    return stale ? `Leave it for now: ${staleWords(stale)}.` : '';
  });
  /** What the round tells of what was done before it. */
  private readonly before = computed(() => this.store.told(this.roundId()));
  /** What is known of the screw by what earlier moves of it did. */
  private readonly screwTold = computed(() => {
    const check = this.check()?.id;
    const told = this.before();
    return check && told && !this.saved()?.doneAt
      ? screwKnown({ check, quantity: this.quantity(), kind: this.kind() }, told, this.store.all())
      : undefined;
  });
  /** The last move of this went the wrong way or moved nothing: said before its next steps. */
  protected readonly wentBefore = computed(() => {
    const told = this.before()?.judged.find(({ move }) => move.quantity === this.quantity());
    const words = told && moveTold(told, this.info(), this.shown());
    return words?.bad ? words.text : '';
  });
  /** The nudge tests come first, whatever is remembered: the last move of this screw went the wrong way. */
  protected readonly nudgeFirst = computed((): readonly JobStep[] => {
    if (!this.screwTold()?.wentWrong || !turnsScrew(this.kind())) return [];
    const part = this.check()?.part?.name ?? 'part';
    return [
      {
        text: `Push the ${part} toward the stylus and see which way the needle goes. It must count the way the set-up says; if it does not, edit the set-up of the round first.`,
      },
      { text: `Turn the screw a little, or press the ${part} by hand, and watch which way it goes before you drive it.` },
    ];
  });
  /** What must be answered before this card is followed. */
  protected readonly question = computed((): string => {
    const [told, move] = [this.screwTold(), this.found()];
    if (!told || this.saved()) return '';
    // What a control was told wrongly its own change sheet puts right, from the old value that is locked there.
    const sheet = this.panel() === 'register';
    if (told.ask && !sheet) return told.ask.text;
    const turned = this.before()?.differs.find((entry) => entry.turned && entry.quantity === this.quantity());
    if (turned) return ASK_WORDS.nudgeNeedle;
    const wrong = told.wentWrong?.move;
    if (!wrong || !move || turnsScrew(this.kind()) || sheet) return '';
    if (wrong.made?.takenOut) return this.outSince() ? ASK_WORDS.outAgain : '';
    return ASK_WORDS.takeOut(wrong.kind, sizeOf(reallyMoved(wrong), this.info(), this.shown(), 1).large);
  });
  /** What went in the wrong way and is still there: it can be written down that it came out again. Metal cannot be put back. */
  protected readonly toTakeOut = computed(() => {
    const wrong = this.question() ? this.screwTold()?.wentWrong : undefined;
    return wrong && !wrong.move.made?.takenOut && !turnsScrew(this.kind()) && !MOVES.get(wrong.move.kind)?.metal ? wrong.move : undefined;
  });
  /** What went in the wrong way came out after this round was read: the round is old. */
  protected readonly outSince = computed(() => {
    const [out, round] = [this.screwTold()?.wentWrong?.move.made?.takenOut, this.round()];
    return !!out && !!round && out.at > round.at;
  });
  protected readonly worn = computed(() => {
    const [info, curve] = [this.info(), this.curve()];
    return info && curve ? bedWords(curve, info, this.shown()) : '';
  });
  /** Of height and side the one that undoes the other, where the round wants both. */
  protected readonly order = computed(() => {
    const [moves, kind, done] = [this.finding()?.moves ?? [], this.kind(), this.saved()?.doneAt];
    if (!kind || done) return null;
    const { before, after, code } = neighbours(moves, { quantity: this.quantity(), kind });
    const bolts = code === 'bolts';
    if (before) return { quantity: before, text: orderWords(bolts ? 'bolts-first' : 'first', this.called(before)), link: 'To that card' };
    if (!after) return null;
    return { quantity: after, text: orderWords(bolts ? 'control-after' : 'after', this.called(after)), link: 'What it reads now' };
  });
  private called(quantity: string): string {
    return this.check()?.quantities[quantity]?.label ?? quantity;
  }

  /** The line of a slide and its registers: what the two readings differ by, what the control has, what was learned of it. */
  protected readonly line = computed(
    () => {
      const [card, quantity, log] = [this.card(), this.told(), registerLog(this.store.all())];
      const setup = this.round()?.setup ?? {};
      const onCard = (card?.['registers'] ?? []) as readonly KnownRegister[];
      // What was changed before is known, also where the card does not tell of it.
      const used = log.map(({ use: { name, axis, kind, unit, programming, digits } }) => ({ name, axis, kind, unit, programming, digits }));
      const others = used.filter(
        ({ name }, i) => used.findIndex((entry) => entry.name === name) === i && !onCard.some((entry) => entry.name === name),
      );
      const round = this.round();
      const registers: readonly KnownRegister[] = round ? registersFor<KnownRegister>([...onCard, ...others], round) : [];
      const kappa = kappaByAxis(log, onCard);
      const rounds = new Set(this.store.all().flatMap((other) => (round && sameThing(other, round) ? [other.id] : [])));
      const usedFor = log.filter(({ move }) => rounds.has(move.roundId));
      const own = this.saved()?.id;
      const before = log.filter(({ move }) => move.id !== own);
      // In a bore the needle goes up as the wall comes nearer: as the centre goes away from the stylus. Carried by the other spindle it is turned.
      const toward = ((setup['feature'] === 'outside') === (setup['carrier'] !== 'sub') ? 1 : -1) as 1 | -1;
      return {
        total: 2 * (quantity?.value ?? 0),
        registers,
        usual: usedFor.at(-1)?.use.name ?? null,
        toward,
        homing: homingOf(card),
        kappa,
        unsettled: unsettledOf(before),
        left: leftAt(before),
        recheck: log.find(({ move }) => move.id === own)?.recheck ?? null,
      };
    },
    // The same as long as it says the same: what is being typed on the change sheet stays.
    { equal: dequal },
  );

  /** A head that nods: what its pivot is learned from. Only where a move teaches the pivot and no gain. */
  protected readonly nod = computed(() => {
    const [instrument, round, check, quantity] = [this.instrument(), this.round(), this.check(), this.told()];
    if (!instrument || !round || !quantity?.limit || !check?.corrections[this.quantity()]?.noGain) return null;
    const { radius, pivotDistance } = (check.setup.safeParse(round.setup).data ?? {}) as {
      readonly radius?: number;
      readonly pivotDistance?: number;
    };
    const before = nodSides(standingReadings(round.readings), ({ value }) => {
      const read = readingValue(value, 'indicator', instrument);
      return read.ok ? read.value : null;
    });
    const [low, high] = quantity.limit;
    if (!radius || !before || low === null || high === null) return null;
    return {
      before,
      radius,
      instrument,
      limit: (high - low) / 2,
      pivot: pivotDistance ?? null,
      learned: learnedPivot(this.store.all()) ?? null,
    };
  });
}
