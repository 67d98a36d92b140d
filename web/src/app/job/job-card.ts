import { ChangeDetectionStrategy, Component, type OnDestroy, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { CHECKS, FaultError, MOVES, jobSteps, readInstrument, type CheckDefinition, type JobFacts, type Move } from '@isometra/core';
import { hardwareOf, machineCardSchema, sheetOf, trySolve, type MachineCardText, type MoveWrite, type Round } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { Desk } from '../tailstock/desk';
import { Dial } from '../ui/dial';
import { bothUnits, callSentence, spoken } from '../ui/say';
import { facesText, KIND_NAMES, leavesText, needleWords, spreadOf, targetOf, targetsOfEnds, VERBS } from './job-texts';
import { ShimTemplates } from './shim-templates';

/** A move as a job card: numbered steps with ticks, the needle's target, and what it must not forget. */
@Component({
  selector: 'iso-job-card',
  imports: [RouterLink, Dial, ShimTemplates],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './job-card.html',
  styleUrl: './job-card.css',
})
export class JobCard implements OnDestroy {
  readonly roundId = input.required<string>();
  readonly quantity = input.required<string>();

  protected readonly desk = inject(Desk);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly router = inject(Router);

  protected readonly problem = signal('');
  protected readonly kind = signal('');
  protected readonly useGain = signal(false);
  protected readonly shift = signal('');
  protected readonly saved = signal<MoveWrite | null>(null);
  protected readonly ticks = signal<ReadonlySet<number>>(new Set());

  protected readonly round = computed((): Round | undefined => this.desk.all().find((round) => round.id === this.roundId()));
  protected readonly check = computed((): CheckDefinition | undefined => CHECKS.get(this.round()?.check ?? ''));
  private readonly card = computed(() => {
    const parsed = machineCardSchema.safeParse(this.desk.machine()?.card as MachineCardText);
    return parsed.success ? parsed.data : undefined;
  });
  private readonly found = computed((): Move | undefined => this.round()?.finding?.moves.find((move) => move.quantity === this.quantity()));
  /** Ways to make this correction, the usual first. */
  protected readonly kinds = computed(() => {
    const move = this.found();
    const correction = this.check()?.corrections[this.quantity()];
    if (!move || !correction) return [];
    return (move.amount > 0 ? correction.plus : correction.minus)
      .filter((kind) => kind !== 'eccentric' || this.card()?.eccentric)
      .map((kind) => ({ kind, name: KIND_NAMES[kind] ?? kind }));
  });
  /** Only a screw has a gain to learn: a shim is as thick as it is. */
  protected readonly gain = computed(() => (MOVES.get(this.kind())?.input.shape['gain'] ? this.desk.gain(this.kind()) : null));
  protected readonly shims = computed(() => ['shim-leaves', 'base-shims'].includes(this.kind()));
  /** A shim cut to the base on the machine card. */
  protected readonly base = computed(() => (this.check()?.part?.base ? this.card()?.base : undefined));

  /** The plan of the chosen kind, or why there is none. */
  protected readonly planned = computed((): { plan: Readonly<Record<string, unknown>>; missing: string } => {
    const [move, kept] = [this.found(), this.saved()];
    // A card that has been begun keeps its plan, whatever has been taken out of the drawer since.
    if (kept) return { plan: kept.plan, missing: '' };
    if (!move) return { plan: {}, missing: '' };
    try {
      return { plan: this.plan(move), missing: '' };
    } catch (error) {
      if (!(error instanceof FaultError)) throw error;
      return { plan: {}, missing: error.faults.map((fault) => `${fault.path} ${fault.message}`).join('; ') };
    }
  });

  /** The round solved again with the hardware of this kind alone: so every kind is planned as the core plans it. */
  private plan(move: Move): Readonly<Record<string, unknown>> {
    const [kind, round] = [this.kind(), this.round()];
    const gain = this.useGain() ? this.gain() : null;
    const base = this.base();
    const hardware: Record<string, unknown> = {
      ...hardwareOf({ card: this.desk.machine()?.card, stock: this.desk.stock(), gain }),
      ...(base && { 'base-shims': { length: base.length, overhang: base.overhang ?? 0, stock: this.desk.stock() } }),
    };
    const own = hardware[kind];
    // What the machine card does not know, the finding's own plan may.
    if (!own || !round) return move.kind === kind ? move : {};
    const sheet = sheetOf(round, round.readings, this.desk.judging(round));
    const { finding, faults } = trySolve({ ...sheet, hardware: { [kind]: own } });
    if (!finding) throw new FaultError(faults);
    return finding.moves.find((entry) => entry.quantity === move.quantity && entry.kind === kind) ?? {};
  }

  private readonly shown = computed(() => ({ system: this.settings.system(), fineness: this.settings.fineness() }));
  protected readonly size = computed(() => {
    const quantity = this.round()?.finding?.quantities[this.quantity()];
    const info = this.check()?.quantities[this.quantity()];
    return bothUnits(this.found()?.amount ?? 0, info?.dimension ?? 'deviation', this.shown(), quantity?.expanded);
  });
  protected readonly verb = computed(() => {
    const spread = spreadOf(this.check()?.quantities[this.quantity()]);
    return spread === 'high-places' && this.kind() === 'scrape' ? 'Take the high places down by' : (VERBS[this.kind()] ?? 'Move it');
  });
  protected readonly direction = computed(() => spoken(this.found()?.direction ?? ''));
  protected readonly sentence = computed(() => {
    const quantity = this.round()?.finding?.quantities[this.quantity()];
    const info = this.check()?.quantities[this.quantity()];
    return quantity && info ? callSentence(quantity, info, this.shown()) : '';
  });
  /** Needle of the dial in hand, when the round was read on one. */
  protected readonly needle = computed(() => {
    const indicator = this.found()?.indicator;
    const raw = this.round()?.instrument;
    if (!indicator || !raw) return null;
    return targetOf(indicator, readInstrument(raw).instrument);
  });

  /** What each dial must do: one as a rule, two at once where both ends are pulled over. */
  protected readonly needles = computed(() => {
    const { plan } = this.planned();
    const raw = this.round()?.instrument;
    const instrument = raw ? readInstrument(raw).instrument : undefined;
    const ends = targetsOfEnds(plan, instrument);
    const single = this.needle();
    return ends.length ? ends : single ? [{ where: '', ...single }] : [];
  });

  protected readonly steps = computed(() => jobSteps(this.kind(), this.facts()));

  private facts(): JobFacts {
    const { plan } = this.planned();
    const needle = this.needle();
    const show = (um: number) => bothUnits(um, 'deviation', { ...this.shown(), fineness: 'coarse' }).large;
    return {
      size: this.size().large,
      direction: this.direction(),
      plus: (this.found()?.amount ?? 0) > 0,
      part: this.check()?.part,
      spread: spreadOf(this.check()?.quantities[this.quantity()]),
      centreLift: plan['lift'] === undefined || plan['lift'] === this.found()?.amount ? undefined : show(plan['lift'] as number),
      turns: plan['turns'] as number | undefined,
      leaves: leavesText(plan, show),
      frontLeaves: plan['frontLeaves'] ? leavesText(plan['frontLeaves'] as Record<string, unknown>, show) : undefined,
      rearLeaves: plan['rearLeaves'] ? leavesText(plan['rearLeaves'] as Record<string, unknown>, show) : undefined,
      angle: plan['angle'] as number | undefined,
      turn: plan['turn'] as number | undefined,
      where: spoken(this.found()?.indicator?.where ?? '').replace("operator's", 'your'),
      needle: needle ? needleWords(needle) : '',
      layout: this.card()?.adjuster?.layout,
      faces: facesText(plan, show),
    };
  }

  constructor() {
    const hand = inject(AtHand);
    effect(() => hand.doing.set(`Move: ${this.check()?.quantities[this.quantity()]?.label ?? ''}`));
    effect(() => {
      const round = this.round();
      const first = this.kinds().find((entry) => entry.kind === this.found()?.kind) ?? this.kinds()[0];
      untracked(() => {
        if (!round || this.saved()) return;
        const known = round.moves.find((move) => move.quantity === this.quantity()) ?? null;
        this.saved.set(known);
        this.ticks.set(new Set(known?.ticks ?? []));
        this.shift.set(known?.shift ?? '');
        if (!this.kind() || known) this.kind.set(known?.kind ?? first?.kind ?? '');
      });
    });
    this.desk.inHand.set(true);
    this.desk.refresh();
  }

  ngOnDestroy(): void {
    this.desk.inHand.set(false);
  }

  protected tick(index: number, on: boolean): void {
    this.ticks.update((ticks) => new Set(on ? [...ticks, index] : [...ticks].filter((tick) => tick !== index)));
    this.save(false);
  }

  protected done(): void {
    this.save(true);
  }

  /** The card is kept from the first tick on; ticks, shift and done are changes of it. */
  private save(done: boolean): void {
    const move = this.found();
    const known = this.saved();
    if (!move && !known) return;
    const part = {
      ticks: [...this.ticks()].sort((a, b) => a - b),
      shift: this.shift().trim() || null,
      done: done || (known?.done ?? false),
    };
    const request = known
      ? this.rounds.changeMove({ ...known, ...part })
      : this.rounds.planMove({
          ...part,
          id: crypto.randomUUID(),
          roundId: this.roundId(),
          kind: this.kind(),
          quantity: this.quantity(),
          amount: move?.amount ?? 0,
          unit: move?.unit ?? 'um',
          direction: move?.direction ?? '',
          plan: { ...this.planned().plan },
          by: this.settings.by(),
          at: new Date().toISOString(),
          version: 1,
        });
    request.subscribe({
      next: (kept) => {
        this.saved.set(kept);
        this.problem.set('');
        if (!done) return;
        this.desk.refresh();
        void this.router.navigate(['/machines', this.desk.machine()?.id, 'bench', this.round()?.check]);
      },
      error: (failure: ApiFailure) => {
        if (failure.current) this.saved.set(failure.current as MoveWrite);
        this.problem.set(
          failure.current
            ? 'This card was ticked somewhere else meanwhile; your ticks are kept here. Tick once more to save them.'
            : failure.message,
        );
      },
    });
  }

  protected words(target: { now: number; target: number }): string {
    return needleWords(target);
  }

  protected print(): void {
    globalThis.print();
  }
}
