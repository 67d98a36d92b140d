import { OwedHoming } from '../register/owed-homing';
import { recheckWords } from '../register/register-words';
import {
  crossed,
  curvesAlong,
  doable,
  homingOf,
  isPast,
  inWorkingOrder,
  leftOver,
  mayComeNearer,
  neighbours,
  plateWords,
  registerLog,
  sameThing,
  turnsScrew,
  undoWords,
  wayOut,
  wordOf,
} from '@isometra/work';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  DOUBTS,
  drift,
  lengthRead,
  MOVES,
  verdictOf,
  type Move,
  type Quantity,
  type QuantityInfo,
  type Verdict,
  sentence,
  sizesIn,
  toYou,
} from '@isometra/core';
import { Settings } from '../data/settings';
import { dateWords } from '../data/when';
import { bedWords } from '../machine/bed-words';
import { CardThenNote } from '../machine/card-then';
import { MachineStore } from '../machine/machine-store';
import { Glyph, type GlyphState } from '../ui/glyph';
import { oldWords, whereNow } from '../ui/old-words';
import { bothUnits, isZero, moveSentence, placedWords, sizeAndWay, sizeOf, wayOfMove, zoneInWords } from '../ui/say';
import { differsWords, moveTold } from '@isometra/work';
import { BenchStore } from './bench-store';
import { Draws } from './draws';
import { FourHoles } from './four-holes';
import { LeftAlone } from './left-alone';
import { TargetPicture } from './target-picture';
import { TrialWork } from './trial-work';
import { WhatHelps } from './what-helps';
import { Button } from '../ui/controls';

/** What the readings say, which way, how much, how sure, and what this method cannot see. */
@Component({
  selector: 'iso-call-column',
  imports: [RouterLink, CardThenNote, Glyph, Draws, FourHoles, LeftAlone, OwedHoming, TargetPicture, TrialWork, WhatHelps, Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', 'aria-label': 'The result', 'aria-live': 'polite', '[class.history]': 'old()?.past' },
  templateUrl: './call-column.html',
  styleUrl: './call-column.css',
})
export class CallColumn {
  protected readonly store = inject(BenchStore);
  protected readonly machineStore = inject(MachineStore);
  private readonly settings = inject(Settings);
  protected readonly budgetOf = signal<string | null>(null);

  private readonly shown = this.settings.shown;

  protected readonly calls = computed(() => {
    const { finding } = this.store.solved();
    const check = this.store.check();
    if (!finding || !check) return [];
    return Object.entries(finding.quantities)
      .filter(([, quantity]) => quantity.verdict !== null)
      .map(([name, quantity]) => this.call(name, quantity, check.quantities[name], finding.moves));
  });

  /** This round is history: what came after it, and the way to what counts now. */
  protected readonly old = computed(() => {
    const [round, check] = [this.store.round(), this.store.check()];
    const old = round && this.machineStore.old(round.id);
    if (!old || !check) return undefined;
    const number = (one: Parameters<MachineStore['number']>[0]): number => this.machineStore.number(one);
    return {
      ...whereNow(old, round, number),
      words: oldWords(old, { check, shown: this.shown(), day: dateWords, number }),
      past: isPast(old),
      done: old.code === 'moved' ? old.move.quantity : '',
    };
  });
  /** Whether a move of this round is still to be made: not of one that is history, nor the one that was made. */
  protected readonly open = (quantity: string): boolean => !this.old()?.past && this.old()?.done !== quantity;

  private readonly calling = computed(() => this.store.solved().finding !== null);
  /** Where the places along the bed differ by more than their doubts. */
  private readonly curves = computed(() => {
    const curves = this.calling() ? curvesAlong(this.machineStore.current(), this.store.check()?.id ?? '') : [];
    return curves.filter(({ curve }) => curve.worn);
  });
  /** What those places say together. */
  protected readonly worn = computed(() => {
    const { quantities = {} } = this.store.check() ?? {};
    return this.curves().map((entry) => bedWords(entry, quantities[entry.quantity], this.shown()));
  });

  /** The move of a quantity: what its round asks for, or what suits all places along the bed; undefined where there is none. */
  private moveOf(name: string, info: QuantityInfo, moves: readonly Move[]) {
    const asked = moves.find((entry) => entry.quantity === name);
    const curve = this.curves().find(({ quantity }) => quantity === name)?.curve;
    if (!curve) return asked;
    const kind = asked?.kind ?? this.kindsOf(name, curve.best).at(0);
    if (kind === undefined || isZero(sizeOf(curve.best, info, this.shown(), 1).large)) return undefined;
    return { kind, quantity: name, amount: curve.best, direction: wayOfMove(curve.best, info) };
  }

  /** Kinds of move that take a quantity up, or down, as its check names them. */
  private kindsOf(name: string, amount: number): readonly string[] {
    const { plus = [], minus = [] } = this.store.check()?.corrections[name] ?? {};
    return amount > 0 ? plus : minus;
  }

  /** Whether what is in can be brought nearer by something that takes no metal. */
  private canComeNearer(name: string, quantity: Quantity): boolean {
    const check = this.store.check()?.id ?? '';
    const can = (kind: string): boolean => !MOVES.get(kind)?.metal && doable(kind, this.machineStore.kind(), check);
    if (!this.store.complete() || !mayComeNearer(quantity)) return false;
    return this.kindsOf(name, leftOver(quantity)).some(can) && this.curves().every((entry) => entry.quantity !== name);
  }

  private call(name: string, quantity: Quantity, info: QuantityInfo, moves: readonly Move[]) {
    const shown = this.shown();
    const { large, small, figure, unit, over } = sizeOf(quantity.value, info, shown, quantity.expanded);
    const zero = isZero(large);
    const size = (value: number) => sizeOf(value, info, shown, quantity.expanded).large;
    const move = this.moveOf(name, info, moves);
    return {
      name,
      nearer: !move && this.canComeNearer(name, quantity),
      quantity,
      label: info.label,
      info,
      state: quantity.verdict as GlyphState,
      way: wayOut(quantity, info),
      head: zero ? `${info.label}: zero, as near as this can be read` : `${info.subject ?? info.label} is`,
      large: zero ? '' : large,
      figure,
      unit,
      over,
      small: zero ? '' : small,
      direction: zero ? '' : toYou(quantity.direction ?? ''),
      doubt:
        quantity.expanded === null
          ? '± unknown without an instrument'
          : `± ${sizeOf(quantity.expanded, info, shown, quantity.expanded).large}`,
      verdict: { in: 'In', out: 'Out', unsure: 'Too close to call' }[quantity.verdict ?? 'unsure'],
      zone: zoneInWords(quantity.limit, info, shown) + this.overLength(info),
      move: move && {
        text: this.comesFirst(name) || moveSentence(MOVES.get(move.kind)?.verb, size(move.amount), toYou(move.direction)),
        quantity: move.quantity,
        order: this.orderOf(move),
      },
      parts: this.partsOf(name, moves),
      sweep: this.overSweep(quantity) || this.zoneBetween(quantity) || this.betweenTwo(quantity, info),
      terms: Object.entries(quantity.terms)
        .filter(([, amount]) => !isZero(size(amount)))
        .map(([term, amount]) => `${TERMS[term] ?? term}: ${size(amount)} ${amount < 0 ? 'taken off' : 'added'}`),
      naive: this.naive(quantity, info),
      setOff: this.setOff(info),
      past: this.past(name, quantity, info),
      budget: quantity.budget.map((line) => ({ source: DOUBTS[line.source], share: Math.round(line.share * 100) })),
    };
  }

  /** What this round tells of what was done before it. */
  private readonly before = computed(() => {
    const id = this.store.round()?.id;
    return id === undefined ? undefined : this.machineStore.told(id);
  });

  /** What went the wrong way and was not turned is undone before anything else is said of a move; empty where nothing is. */
  private comesFirst(name: string): string {
    const entry = this.before()?.judged.find(({ move }) => move.quantity === name);
    if (!entry || wordOf(entry) !== 'wrong-way' || turnsScrew(entry.move.kind) || MOVES.get(entry.move.kind)?.panel) return '';
    return `${undoWords(entry.move.kind)}: see the job card.`;
  }

  /** What of a size lies along a slide, which the control can cure, and what bolts must. */
  private partsOf(name: string, moves: readonly Move[]) {
    const [check, setup] = [this.store.check(), this.store.setup()];
    return inWorkingOrder(moves.filter(({ quantity }) => check?.partOf?.(quantity, setup) === name)).map((move) => {
      const info = check?.quantities[move.quantity];
      const words = moveSentence(MOVES.get(move.kind)?.verb, sizeOf(move.amount, info, this.shown(), 1).large, toYou(move.direction));
      const cure = CURES[MOVES.get(move.kind)?.curedBy ?? 'bolts'];
      return { quantity: move.quantity, ...cure, text: `${info?.label ?? ''}: ${words}`, order: this.orderOf(move) };
    });
  }
  /** What this round says of values that were entered into the control before it. */
  protected readonly registers = computed(() => {
    const id = this.store.round()?.id;
    // Only what has parts has registers: no other check looks through its rounds at every reading.
    if (!this.store.check()?.partOf) return [];
    return registerLog(this.machineStore.all()).flatMap(({ use, next, recheck }) =>
      recheck && next?.id === id ? [recheckWords(recheck, use, homingOf(this.machineStore.machine()?.card))] : [],
    );
  });

  /** What was done before this round, as it tells it: wrong way, nothing moved, fell short; and what contradicts an earlier round. */
  protected readonly told = computed(() => {
    const check = this.store.check();
    const told = check && this.calling() ? this.before() : undefined;
    if (!told || !check) return [];
    const judged = told.judged.map((entry) => moveTold(entry, check.quantities[entry.move.quantity], this.shown()));
    // Parts of one offset turn together: it is said once.
    const turned = told.differs.filter((jump) => jump.turned).slice(0, 1);
    const differs = (turned.length ? turned : told.differs).map((jump) => ({
      bad: true,
      text: differsWords(jump, this.machineStore.number(jump.from), check.quantities[jump.quantity], this.shown()),
    }));
    // What is the same of several moves is said once.
    return [...differs, ...judged].filter(({ text }, i, all) => all.findIndex((other) => other.text === text) === i);
  });

  protected readonly misplaced = computed(() => {
    const card: Readonly<Record<string, unknown>> = this.machineStore.machine()?.card ?? {};
    return plateWords(card['stations'], this.store.round()?.conditions ?? {});
  });

  /** Of two moves of one round the one that comes first: opening the joint loses what was slid. */
  private orderOf(move: Pick<Move, 'kind' | 'quantity'>): string {
    const { before, after, code } = neighbours(this.store.solved().finding?.moves ?? [], move);
    const called = (quantity: string) => this.store.check()?.quantities[quantity]?.label.toLowerCase() ?? quantity;
    if (code === 'bolts')
      return before ? 'Do the bolts first: tapping the part over on its bolts changes this direction too. Then sweep again.' : 'First.';
    if (before) return `Second: the ${called(before)} comes first, and opening the joint for it loses this.`;
    return after ? `First: the ${called(after)} comes after it, from a new round.` : '';
  }

  /** What the readings would have said with the droop and the push left in, when that is another call. */
  private naive(quantity: Quantity, info: QuantityInfo): string {
    const { sag = 0, push = 0 } = quantity.terms;
    // Only what the droop itself changes is said of it: a round that is not judged for another reason is no other call.
    if (quantity.limit === null || sag + push === 0 || quantity.because) return '';
    const seemed = quantity.value - sag - push;
    const verdict = verdictOf(seemed, quantity.expanded ?? 0, quantity.limit);
    if (verdict === verdictOf(quantity.value, quantity.expanded ?? 0, quantity.limit)) return '';
    const seems = placedWords(seemed, info, this.shown(), quantity.expanded);
    const whose =
      quantity.verdict === 'out'
        ? 'The bar hides the fault.'
        : verdict === 'out'
          ? 'This fault comes from the bar, not from the machine.'
          : '';
    return `As it reads, with the droop left in, it would seem ${seems} and be called ${CALLED[verdict]}. ${whose}`.trimEnd();
  }

  /** What a move took past the middle, and whether that was meant. */
  private readonly crossings = computed(() => {
    const [check, round] = [this.store.check(), this.store.round()];
    return check && round ? crossed(this.machineStore.of(check.id).filter((other) => other.at <= round.at && sameThing(other, round))) : [];
  });
  private past(name: string, { verdict }: Quantity, info: QuantityInfo): string {
    const found = this.crossings().find(({ quantity }) => quantity === name);
    if (!found) return '';
    const says = (value: number) => placedWords(value, info, this.shown(), 1);
    const so = found.meant
      ? 'The target is on that side: leave it.'
      : verdict === 'out'
        ? 'The move went too far: take only the rest back.'
        : 'The move went past the middle, and it is not out: leave it.';
    return `It was ${says(found.before)}, it is now ${says(found.now)}. ${so}`;
  }

  /** How far the aim is set off by changes that are still to come. */
  private setOff(info: QuantityInfo): string {
    const round = this.store.round();
    const pending = round && this.machineStore.facts(round).pending;
    const by = pending ? drift(info, pending, this.store.setup()) : 0;
    if (by === 0) return '';
    return `Target and limits are shifted ${placedWords(-by + 0, info, this.shown(), 1)}, because planned changes will move it back by the same amount.`;
  }

  /** Of a surface read as a grid: how far apart two planes are that hold it. */
  private zoneBetween({ detail, expanded }: Quantity): string {
    const zone = detail?.['minimumZone'];
    if (typeof zone !== 'number') return '';
    return `All of it lies between two planes ${bothUnits(zone, 'deviation', this.shown(), expanded).large} apart.`;
  }

  /** What two readings half a turn apart differ by, as the dial shows it: the offset twice. */
  private betweenTwo({ value, expanded, limit }: Quantity, { swings, magnitude }: QuantityInfo): string {
    if (!swings || magnitude || limit === null) return '';
    const doubt = expanded === null ? null : swings * expanded;
    return `The two readings differ by ${bothUnits(Math.abs(swings * value), 'deviation', this.shown(), doubt).large}: half of it counts.`;
  }

  /** The bare difference of two sides of a sweep, as the dial shows it. */
  private overSweep({ value, expanded, detail }: Quantity): string {
    const over = detail?.['overSweep'];
    if (typeof over !== 'number') return '';
    const size = bothUnits((value * over) / 1000, 'deviation', this.shown(), expanded === null ? null : (expanded * over) / 1000).large;
    return `${size} from side to side of the sweep, ${bothUnits(over, 'length', { ...this.shown(), fineness: 'coarse' }).large}`;
  }

  /** A limit that grows with the length is stated with it. */
  private overLength(info: QuantityInfo): string {
    const check = this.store.check();
    const length = info.over && check ? lengthRead(check, this.store.setup(), this.store.places()) : undefined;
    return length === undefined ? '' : ` over ${bothUnits(length, 'length', this.shown()).large}`;
  }

  /** Both planes as one picture, where the check has one. */
  protected readonly target = computed(() => {
    const [check, finding] = [this.store.check(), this.store.solved().finding];
    return check?.target && finding ? { target: check.target, finding } : undefined;
  });

  /** What throws a drilled plate out of true. */
  protected readonly drilled = computed(() => {
    const name = this.store.check()?.drilled;
    return name === undefined ? undefined : this.store.solved().finding?.quantities[name];
  });

  /** Quantities without a limit, told in a line each. */
  protected readonly others = computed(() => {
    const { finding } = this.store.solved();
    const check = this.store.check();
    if (!finding || !check) return [];
    return Object.entries(finding.quantities)
      .filter(([, quantity]) => quantity.verdict === null)
      .map(([name, quantity]) => {
        const info = check.quantities[name];
        const { large } = sizeOf(quantity.value, info, this.shown(), quantity.expanded);
        return `${info.label}: ${isZero(large) ? large : sizeAndWay(large, toYou(quantity.direction ?? ''))}`;
      });
  });

  protected readonly notes = computed(() =>
    (this.store.solved().finding?.notes ?? []).filter((note) => note.code !== 'too-few-readings' || this.calls().length === 0),
  );

  protected readonly work = computed(() =>
    this.store.work().map((effect) => {
      const size = bothUnits(effect.effect, 'deviation', this.shown(), 1).large;
      const label = this.store.check()?.quantities[effect.quantity]?.label ?? effect.quantity;
      return `${label} leaves ${size} ${sentence(effect.what, sizesIn(this.shown()))}.${effect.leave ? ' Too small to matter for that work: leave it alone.' : ''}`;
    }),
  );

  protected toggle(name: string): void {
    this.budgetOf.update((open) => (open === name ? null : name));
  }
}

/** Who can put right what, and what its job card is called. */
const CURES = {
  control: { whose: 'The control can cure this.', card: 'register' },
  bolts: { whose: 'Bolts must.', card: 'bolts' },
} as const;

const CALLED: Readonly<Record<Verdict, string>> = { in: 'in', out: 'out', unsure: 'too close to call' };

const TERMS: Readonly<Record<string, string>> = {
  sag: 'droop of the bar',
  push: 'push of the stylus',
  holderSag: 'droop of the holder',
  diameter: 'diameters of the bar',
  temperature: 'temperature of the pads',
  heightError: 'height of the tail centre',
  toolSetting: 'tool re-set',
  squareError: 'error of the square',
  axis: 'spindle axis',
};
