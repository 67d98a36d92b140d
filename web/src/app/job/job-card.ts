import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { crossOrder, insideZone, MOVES, jobDrawing, jobSteps, USUAL_BOLTS, type ScrewRule, type StepFacts, toYou } from '@isometra/core';
import { moveSchema, NOTHING_SEEN, type Machine, type Made, type MoveWrite } from '@isometra/contract';
import { boltOrder, jointOf, partReached, screwRuleOf, turnsScrew, usualShiftOf } from '@isometra/work';
import { nowText } from '../data/clock';
import { Machines } from '../data/machines';
import { Outbox } from '../data/outbox';
import type { Refused } from '../data/outbox-store';
import { useKeys } from '../data/keys';
import { AtHand } from '../shell/at-hand';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Dial } from '../ui/dial';
import { giveJson } from '../ui/give-file';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { bothUnits, callSentence, moveWords, sizeOf } from '../ui/say';
import { bedStands } from '../machine/bed-words';
import { JobFigure } from './job-figure';
import { JobNotes } from './job-notes';
import { CardThenNote } from '../machine/card-then';
import { AtScrew } from './at-screw';
import { jobKeys } from './job-keys';
import { needleWords, spotWords, raisedFacts, spreadOf, targetOf, targetsOfDials } from './job-texts';
import { dialsOf, ownDial, screwTarget, tightenedBy } from './screw-target';
import type { ApiFailure } from '../data/api';
import { AskCard } from './ask-card';
import { PutDateRight } from '../bench/redate';
import { Struck } from '../bench/struck';
import { NodStrokes } from './nod-strokes';
import { BoltCircle } from './bolt-circle';
import { deskOfFoot, footUnder, suitsSentence } from './foot';
import { nodDial } from './nod-dial';
import { GibFelt } from './gib-felt';
import { OwedHoming } from '../register/owed-homing';
import { OffsetChange } from '../register/offset-change';
import { SineSetting } from './sine-setting';
import { FoundShims } from './found-shims';
import { ShimTemplates } from './shim-templates';

/** A move as a job card: numbered steps with ticks, the needle's target, and what it must not forget. */
@Component({
  selector: 'iso-job-card',
  imports: [
    RouterLink,
    AtScrew,
    CardThenNote,
    BoltCircle,
    FoundShims,
    GibFelt,
    JobFigure,
    Dial,
    NodStrokes,
    AskCard,
    PutDateRight,
    Struck,
    OffsetChange,
    OwedHoming,
    SineSetting,
    ShimTemplates,
    Button,
    Field,
    Notice,
    Choices,
    Tick,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './job-card.html',
  styleUrl: './job-card.css',
})
export class JobCard extends JobNotes implements OnDestroy {
  /** `screw` while the part is being moved. */
  readonly at = input<string>();

  private readonly outbox = inject(Outbox);
  private readonly machines = inject(Machines);
  private readonly router = inject(Router);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  private readonly refusals = toSignal(this.outbox.refused$, { requireSync: true });
  /** A change of this card that the server refused, because it was changed elsewhere. */
  protected readonly refused = computed(() => this.refusals().find(({ what, about }) => what === 'move' && about === this.roundId()));

  protected readonly size = computed(() => sizeOf(this.amount(), this.info(), this.shown(), this.told()?.expanded));
  protected readonly verb = computed(() => {
    const high = spreadOf(this.info()) === 'high-places' && MOVES.get(this.kind())?.metal;
    return high ? 'Take the high places down by' : (MOVES.get(this.kind())?.verb ?? 'Move it');
  });
  protected readonly direction = computed(() => toYou(this.found()?.direction ?? this.saved()?.direction ?? ''));
  protected readonly sentence = computed(() => {
    const [quantity, info] = [this.told(), this.info()];
    if (!quantity || !info) return '';
    const all = this.forAllPlaces();
    return all ? bedStands(all, info, this.shown()) : callSentence(quantity, info, this.shown());
  });
  /** How much of what is left may be taken, of something that is in. */
  protected readonly nearerParts = [
    { value: '0.5', label: 'half of it' },
    { value: '1', label: 'all of it' },
  ];
  protected readonly nearerWords = computed(() => {
    const told = this.told();
    return this.nearerBy() !== undefined && told && !this.asked() && !this.record()
      ? `${this.info()?.label ?? 'It'} is in: this move is not needed. Every move can upset something else, and it has to be read again after it.`
      : '';
  });
  protected saveFile(): void {
    const [file, number] = [this.moveFile(), this.store.machine()?.card.number ?? ''];
    if (file) giveJson(`${number}-${file.move}-move.json`, file);
  }
  protected takePart(nearer: string): void {
    void this.router.navigate([], { queryParams: { nearer }, queryParamsHandling: 'merge', replaceUrl: true });
  }
  /** Needle of the dial in hand, when the round was read on one. */
  protected readonly needle = computed(() => {
    const indicator = this.indicator();
    return indicator ? targetOf(indicator, this.instrument()) : null;
  });
  /** How much of the amount leaves do, or a sleeve before it comes to its end. */
  private readonly share = computed(() => partReached(this.kind(), this.planned().plan, this.amount()));
  /** The needle of the round, as far as the move goes. */
  private readonly indicator = computed(() => {
    const indicator = this.found()?.indicator;
    if (!indicator) return undefined;
    const { now, target } = indicator;
    return { ...indicator, target: now + this.share() * (target - now) };
  });
  /** What is done at the screw, signed like the quantity. */
  protected readonly atScrew = computed(() => this.nodNow()?.amount ?? this.share() * this.amount());
  protected readonly sizeAtScrew = computed(() => sizeOf(this.atScrew(), this.info(), this.shown(), this.told()?.expanded));

  /** Where the shims of this move lie; undefined where it lays none and takes none out. */
  protected readonly joint = computed(() => {
    const move = MOVES.get(this.kind());
    return move?.leaves || move?.kind === 'bearing-shims' || move?.metal ? jointOf(this.part()?.name, this.kind()) : undefined;
  });

  /** What each dial must do: one as a rule, two at once where both ends are pulled over. */
  protected readonly needles = computed(() => {
    const ends = targetsOfDials(this.kind(), this.planned().plan, this.instrument());
    const made = this.saved()?.made;
    const single = made?.dial || made?.preset ? screwTarget(this.screwMove(), made) : this.needle();
    return ends.length ? ends : single ? [{ where: '', ...single }] : [];
  });

  /** Which side of the foot comes up for this, and which goes down. */
  protected readonly raised = computed(() => raisedFacts(this.amount(), this.info()));

  protected stacked({ sine, plan }: { readonly sine: NonNullable<Made['sine']>; readonly plan: Readonly<Record<string, unknown>> }): void {
    this.note({ sine }, { plan: { ...plan } });
  }

  // At the screw.
  protected readonly arrow = computed(() => this.info()?.words?.arrow ?? null);
  protected readonly own = computed(() => this.nodNow()?.own ?? ownDial(this.indicator(), this.instrument()));
  /** A head that was nodded in strokes: where its dial stands now, and where one move stops. */
  private readonly nodNow = computed(() => {
    const nod = this.nod();
    return nod ? nodDial({ ...nod, aim: this.told()?.aim ?? 0 }, this.saved()?.made?.nod) : null;
  });
  private readonly screwMove = computed(() => ({ amount: this.atScrew(), angle: this.wedge(), arrow: this.arrow(), own: this.own() }));
  /** What ends at a figure on a dial: a step at which the needle is watched, and a side from which it sees the move. */
  protected readonly byHand = computed(
    () =>
      (this.kinds().length > 0 || !!this.saved()) &&
      (this.arrow() !== null || this.own() !== null) &&
      this.steps().some(({ needle }) => needle),
  );
  protected readonly dials = computed(() => dialsOf(this.store.kit()));
  private readonly screw = computed(() => ({ check: this.check()?.id ?? '', quantity: this.quantity(), kind: this.kind() }));
  /** The foot that this lean stands on, and how high the wedge is over it. */
  private readonly foot = computed(() => footUnder(this.part(), this.card(), this.quantity(), this.amount()));
  /** A wedge too small for a grind or a shim: which means suits, and what it costs. */
  protected readonly suitsWords = computed(() => {
    const foot = this.record() ? undefined : this.foot();
    return foot ? suitsSentence(this.kind(), foot.wedge, this.store.stock(), this.leaf) : '';
  });
  /** The desk for the strips of a foot: the face that is there, or a new one with its size, its wedge and its target. */
  protected readonly toDesk = computed(() => {
    const [foot, round] = [this.foot(), this.round()];
    if (this.kind() !== 'step-scrape' || !foot || !round) return null;
    const aim = `${round.check}/${this.quantity()}`;
    return deskOfFoot(foot, { machineId: round.machineId, aim, high: this.raised().lower, faces: this.store.surfaces() });
  });
  /** Eighths that the plan of a gib asks for, and the screws of a straight one. */
  protected readonly gib = computed(() => {
    const drawn = this.drawing();
    const screws = drawn?.shows === 'gib' && drawn.screws.length ? drawn.screws.length : undefined;
    const { eighths } = this.planned().plan as { readonly eighths?: number };
    return { asked: eighths, screws };
  });
  /** Bolts on the circle of a part that swivels; 0 for another part. */
  protected readonly bolts = computed(() => (this.check()?.part?.swivels ? (this.screwsOnCard().bolts ?? USUAL_BOLTS) : 0));
  /** What the part does on tightening, in the order in which its bolts are drawn down now. */
  protected readonly usual = computed(() => {
    const own = boltOrder(this.saved()?.made?.bolts);
    const order = this.bolts() ? (own.length === this.bolts() ? own : crossOrder(this.bolts())) : undefined;
    return usualShiftOf(this.store.all(), this.screw(), order);
  });
  /** What the bolts have done so far, by the dial that watches; empty where none does. */
  protected readonly boltsTold = computed(() => {
    const [made, last] = [this.saved()?.made, this.saved()?.made?.bolts?.at(-1)];
    const target = made && screwTarget(this.screwMove(), made);
    if (!last) return '';
    return target
      ? `In all it moved ${this.sayMove()(tightenedBy(target, last.reads))} on tightening.`
      : 'No dial on this card sees the move: the next round shows it.';
  });
  protected boltDown(bolts: NonNullable<Made['bolts']>): void {
    const made = this.saved()?.made ?? NOTHING_SEEN;
    const [target, last] = [screwTarget(this.screwMove(), made), bolts.at(-1)];
    const tightened = target && last ? tightenedBy(target, last.reads) : null;
    this.shift.set(target && last ? `${Number((last.reads - target.target).toFixed(3))} div` : '');
    this.note({ bolts: [...bolts], tightened });
  }
  /** What the machine card says of the screws and bolts that move it. */
  private readonly screwsOnCard = computed(
    () => MOVES.get(this.kind())?.screws?.(this.card() ?? {}, this.check()?.part, this.quantity()) ?? {},
  );
  /** Which of two opposed screws is driven, as it was last seen here. */
  protected readonly rule = computed(() => {
    if (!turnsScrew(this.kind()) || this.screwsOnCard().layout === 'single-screw') return null;
    return this.saved()?.made?.rule ?? this.screwsOnCard().rule ?? screwRuleOf(this.store.all(), this.screw()) ?? 'drive-far';
  });
  /** What is done with the screws now, all of them in their order; where none is spoken of, the step at which the needle is watched. */
  protected readonly drive = computed(() => {
    const steps = this.steps();
    const screws = steps.filter(({ screw }) => screw);
    return (screws.length ? screws : steps.filter(({ needle }) => needle).slice(0, 1)).map(({ text }) => text);
  });
  protected readonly sayMove = computed(() => {
    const [info, shown] = [this.info(), this.shown()];
    return (amount: number): string => moveWords(amount, info, shown);
  });

  private readonly stepFacts = computed((): StepFacts => {
    const [needle, shown, info] = [this.needle(), this.shown(), this.info()];
    return {
      plan: this.planned().plan,
      card: this.card() ?? {},
      words: {
        size: this.leaf,
        slope: (umPerM) => sizeOf(Math.abs(umPerM), info, shown, 1).large,
        length: (mm) => bothUnits(mm, 'length', { ...shown, fineness: 'coarse' }).large,
        landsIn: this.landsIn(),
      },
      quantity: this.quantity(),
      amount: this.found()?.amount,
      way: this.arrow()?.[this.amount() > 0 ? 0 : 1],
      ...this.raised(),
      size: this.size().large,
      direction: this.direction(),
      plus: this.amount() > 0,
      part: this.part(),
      spread: spreadOf(this.info()),
      where: spotWords(this.found()?.indicator?.where),
      needle: needle ? needleWords(needle) : '',
      rule: this.rule() ?? undefined,
      byFeel: (this.saved()?.made?.felt?.length ?? 0) > 0,
    };
  });
  /** The step that comes next, as a note on it begins. */
  private readonly stepWords = computed(() => {
    const next = this.steps().findIndex((_, i) => !this.ticks().has(i));
    return next < 0 ? '' : `step ${next + 1}: ${this.steps()[next].text}`;
  });
  protected readonly steps = computed(() => [...this.nudgeFirst(), ...jobSteps(this.kind(), this.stepFacts())]);
  /** Where the hand goes, drawn; undefined where nothing can be drawn right. */
  protected readonly drawing = computed(() => (this.amount() === 0 ? undefined : jobDrawing(this.kind(), this.stepFacts())));
  /** Somebody said that what the card asks has been done. */
  protected readonly answered = signal(false);
  /** As long as its question is not answered no step is shown: the same direction is never given twice unasked. */
  protected readonly held = computed(() => this.past() || this.seatOutdated() !== '' || (this.question() !== '' && !this.answered()));

  /** Whether it comes into its limits when it is carried so many µm; undefined where nobody can say. */
  private readonly landsIn = computed(() => {
    const [quantity, sign] = [this.told(), Math.sign(this.amount())];
    if (!quantity?.limit || this.wedge()) return undefined;
    const { value, limit } = quantity;
    return (um: number): boolean => insideZone(value + sign * um, limit);
  });

  constructor() {
    super();
    const hand = inject(AtHand);
    effect(() => hand.doing.set(`Move: ${this.info()?.label ?? ''}`));
    effect((onCleanup) => {
      hand.spot.set(this.stepWords());
      onCleanup(() => hand.spot.set(''));
    });
    // A refused change: what the server has is fetched, so that both can be seen.
    effect(() => {
      if (this.refused()) untracked(() => this.rounds.load(this.roundId()).subscribe({ error: () => undefined }));
    });
    this.store.inHand.set(true);
    useKeys(
      jobKeys({
        open: () => this.at() !== 'screw' && !this.held() && (this.kinds().length > 0 || !!this.saved()),
        boxes: () => [...this.host.nativeElement.querySelectorAll<HTMLInputElement>('ol iso-tick input')],
        nextStep: () => (this.saved()?.doneAt ? -1 : this.steps().findIndex((_, i) => !this.ticks().has(i))),
        tick: (index) => this.tick(index, true),
        byHand: () => this.byHand(),
        toScrew: () => this.go('screw'),
        toDesk: () => this.openDesk(),
        done: () => this.finish(),
        notDone: () => this.askedDone() && (this.askedDone.set(false), true),
      }),
    );
  }

  ngOnDestroy(): void {
    this.store.inHand.set(false);
  }

  /** A fact that the plan lacks is told: it stands on the machine card from now on. */
  protected tellCard(part: Readonly<Record<string, unknown>>): void {
    const machine = this.store.machine();
    if (!machine) return;
    this.machines.save({ ...machine, card: { ...machine.card, ...part } as Machine['card'] }).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  /** What went in the wrong way is out again: written down on the card that it was put in by. */
  protected tookOut(move: MoveWrite): void {
    const machineId = this.round()?.machineId;
    if (machineId === undefined) return;
    const made = { ...(move.made ?? NOTHING_SEEN), takenOut: { at: nowText(), by: this.settings.by() } };
    this.rounds.putMove(machineId, { ...move, made }, true);
  }

  protected choose(kind: string): void {
    this.chosen.set(kind);
    this.change(kind);
  }

  /** Steps that nobody ticked: asked about once before the card is done. */
  protected readonly unticked = computed(() => {
    const steps = this.steps();
    return steps.filter((_, i) => !this.ticks().has(i)).length;
  });
  protected readonly askedDone = signal(false);
  protected readonly doneWords = computed(() => {
    if (this.saved()?.doneAt) return 'Start the next round';
    return this.askedDone() ? 'All steps are done: start the next round' : 'Done: start the next round';
  });

  /** Done, by the key or the button: where steps are not ticked it is asked once whether all of it is done. */
  protected finish(): void {
    if (!this.saved()?.doneAt && this.unticked() > 0 && !this.askedDone()) return this.askedDone.set(true);
    this.done();
  }

  protected done(made?: Made): void {
    const { begunAt = '', doneAt = null } = this.saved() ?? {};
    const now = nowText();
    // Never before it was begun, also where it was begun on a machine whose clock is ahead.
    this.save({ doneAt: doneAt ?? (begunAt > now ? begunAt : now), shift: this.shift().trim() || null, ...(made && { made }) });
    void this.router.navigate(['/machines', this.store.machine()?.id, 'bench', this.round()?.check]);
  }

  /** To the screw, and back to the card. */
  protected go(at: 'screw' | null): void {
    void this.router.navigate([], { queryParams: { at }, queryParamsHandling: 'merge' });
  }

  protected seen({ made, shift }: { readonly made: Made; readonly shift?: string }): void {
    if (shift !== undefined) this.shift.set(shift);
    const before = this.saved()?.made?.rule ?? null;
    this.save({ made });
    if (made.rule && made.rule !== before) this.keepRule(made.rule);
  }

  /** What is believed of the screws stands on the machine card, where it can be put right. */
  private keepRule(rule: ScrewRule): void {
    const machine = this.store.machine();
    const screws = machine?.card['adjuster'] as Readonly<Record<string, unknown>> | undefined;
    if (!machine || !screws || screws['rule'] === rule) return;
    const card = { ...machine.card, adjuster: { ...screws, rule } } as Machine['card'];
    this.machines.save({ ...machine, card }).subscribe({ error: () => undefined });
  }

  /** Put what was ticked here over what was ticked elsewhere. */
  protected keepMine(refused: Refused): void {
    const [mine, theirs] = [moveSchema.safeParse(refused.body).data, moveSchema.safeParse(refused.current).data];
    if (mine) void this.outbox.retake(refused, { ...mine, version: theirs?.version ?? mine.version });
  }

  protected takeTheirs(refused: Refused): void {
    void this.outbox.drop(refused);
  }

  protected words(target: { now: number; target: number }): string {
    return needleWords(target);
  }

  private openDesk(): boolean {
    const desk = this.toDesk();
    if (desk) void this.router.navigate(desk.link, { queryParams: desk.params });
    return desk !== null;
  }

  protected print(): void {
    globalThis.print();
  }
}
