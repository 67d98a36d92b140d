import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type * as z from 'zod';
import { dequal } from 'dequal';
import { CHECKS, footSchema, FRAMES, parseQuantity, planFor, supports as seatMove } from '@isometra/core';
import { CASTINGS, castingSchema, machineFamily, type Casting, type MachineCardText, type MoveWrite } from '@isometra/contract';
import { readCard } from '@isometra/work';
import type { OpenedSupports } from '@isometra/work';
import { DrawingOut } from '../drawings/drawing-out';
import { newId } from '../data/id';
import { nowText } from '../data/clock';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Machines } from '../data/machines';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { formFaults, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { bothUnits, isZero } from '../ui/say';
import { MoveFile } from './move-file';
import { Consequences } from './consequences';
import { FaceTable } from './face-table';
import { Footprint } from './footprint';
import { castingFrom, footCasting, presetOf } from './seat-facts';
import { askedOfCasting, type SeatBasis } from './seat-basis';
import { MEANS, SHARES, SPARED, type HeightShare, type Wish } from './seat-wish';
import { COMPONENTS, poseWords, totalOf, TYPED_IN, typedSize, wayOfPose, type SupportPlan } from './seat-words';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';
import { Choices } from '../ui/choices';
import { Slide } from '../ui/slide';
import { TextBox } from '../ui/text-box';
import { Tick } from '../ui/tick';

/** A casting on its faces: where they are, and which to scrape or shim for a wanted change, replanned at every touch. */
@Component({
  selector: 'iso-seat-plan',
  imports: [
    DrawingOut,
    RouterLink,
    Footprint,
    FaceTable,
    Consequences,
    SchemaForm,
    Button,
    MoveFile,
    Notice,
    Choices,
    Slide,
    TextBox,
    Tick,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './seat-plan.html',
  styleUrl: './seat-plan.css',
})
export class SeatPlan {
  readonly castingId = input.required<string>();
  protected readonly store = inject(MachineStore);
  private readonly machines = inject(Machines);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);

  protected readonly means = MEANS;
  protected readonly spared = SPARED;
  protected readonly shares = SHARES;
  protected readonly castings = computed(() => {
    const family = machineFamily(this.store.kind());
    return CASTINGS.filter(({ machines }) => machines.includes(family));
  });
  protected readonly preset = signal<FormValue>({});
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  protected readonly told = signal('');
  protected readonly selected = signal<string | null>(null);
  protected readonly draft = signal<Casting | null>(null);
  protected readonly wish = signal<Wish>({ want: {}, allow: 'scrape', prefer: 'least-metal' });
  protected readonly heightShare = signal<HeightShare>('free');

  private readonly about = computed(() => CASTINGS.find(({ id }) => id === this.castingId()));
  /** The spindle sits in it. */
  protected readonly spindle = computed(() => this.about()?.spindle === true);
  protected readonly name = computed(() => this.about()?.name ?? this.castingId());
  private readonly card = computed(() => this.store.machine()?.card);
  private readonly kept = computed(() => this.card()?.castings?.find((entry) => entry.id === this.castingId()));
  /** The foot of the column as the card tells of it: its faces need not be drawn again. */
  private readonly byFoot = computed((): Casting | null => {
    const foot = this.onFoot() ? footSchema.safeParse(readCard(this.card())?.['foot']).data : undefined;
    return foot ? footCasting(this.castingId(), foot) : null;
  });
  protected readonly casting = computed(() => this.draft() ?? this.kept() ?? this.byFoot());
  protected readonly changed = computed(() => this.draft() !== null);
  private readonly draftName = computed(() => `casting:${this.store.machine()?.id}:${this.castingId()}`);
  private readonly frame = computed((): Casting['frame'] => (machineFamily(this.store.kind()) === 'mill' ? 'mill' : 'lathe'));

  /** A column stands on a foot of its own: it is asked for as the machine card has it. */
  private readonly onFoot = computed(() => this.castingId() === 'column');
  protected readonly presetSchema = computed((): z.ZodObject => (this.onFoot() ? footSchema : presetOf(this.spindle())));
  private readonly fullPreset = computed(() => settled(this.presetSchema(), this.preset(), this.settings.system()));
  protected readonly presetFaults = computed(() => formFaults(this.presetSchema(), this.fullPreset(), this.settings.system()));

  constructor() {
    const hand = inject(AtHand);
    effect(() => hand.doing.set(`${this.name()}: faces`));
    effect(() => {
      const name = this.draftName();
      untracked(() => this.draft.set(this.drafts.read(name, castingSchema) ?? null));
    });
    effect(() => {
      const want = { ...this.held(), ...this.measured() };
      untracked(() => this.wish.update((wish) => ({ ...wish, want })));
    });
    this.store.inHand.set(true);
    this.store.refresh();
  }

  /** The round whose quantities are pose components of this casting: what the plan is made for. */
  protected readonly round = computed(() => {
    const names: readonly string[] = FRAMES[this.frame()].components.map(([name]) => name);
    return this.store
      .current()
      .filter((round) => CHECKS.get(round.check)?.casting === this.castingId())
      .filter((round) => Object.keys(round.finding?.quantities ?? {}).some((name) => names.includes(name)))
      .at(-1);
  });
  /** The change that the last round asks for: aim less value, nothing for what is in. */
  private readonly measured = computed(
    () => askedOfCasting(this.round()?.finding?.quantities ?? {}, this.frame()),
    // The same figures once more leave what the hand has slid meanwhile.
    { equal: dequal },
  );

  /** What is held at nothing unless it is given up: a roll would leave a second way behind. */
  private readonly held = computed((): Record<string, number> => (this.frame() === 'lathe' ? { roll: 0 } : {}));

  protected readonly wants = computed(() =>
    FRAMES[this.frame()].components.map(([name], index) => ({
      name,
      label: COMPONENTS[name] ?? name,
      slope: index > 2,
      value: this.wish().want[name] as number | undefined,
      text: this.wish().want[name] === undefined ? '' : typedSize(this.wish().want[name], index > 2, this.settings.system()),
      words: this.wish().want[name] === undefined ? 'free' : poseWords(name, this.wish().want[name], this.shown()),
    })),
  );
  private readonly shown = this.settings.shown;

  /** What is wanted, the height share with it. */
  private readonly want = computed(() => {
    const tail = this.tailHeight();
    const share = { free: undefined, head: 1, both: 0.5 }[this.heightShare()];
    return { ...this.wish().want, ...(share !== undefined && tail !== undefined && { lift: share * tail }) };
  });
  /** How far the tail centre is from where it should be: what the head would have to move to meet it. */
  protected readonly tailHeight = computed(() => {
    const tail = this.store.rungs().find((rung) => rung.round?.finding?.quantities['offsetVertical'] && rung.state !== 'stale');
    const quantity = tail?.round?.finding?.quantities['offsetVertical'];
    return quantity && quantity.aim !== null ? quantity.value - quantity.aim : undefined;
  });

  /** The faces and what is wanted of them, as a move of their own. */
  protected readonly asMove = computed((): OpenedSupports | null => {
    const casting = this.casting();
    if (!casting) return null;
    const { frame, origin, supports, watch } = casting;
    return { frame, origin, supports, watch, want: this.want(), prefer: this.wish().prefer };
  });
  protected readonly plan = computed((): SupportPlan | null => this.planFor(this.want()));

  private planFor(want: Readonly<Record<string, number>>): SupportPlan | null {
    const casting = this.casting();
    if (!casting || Object.keys(want).length === 0) return null;
    const { allow, prefer } = this.wish();
    const supports = casting.supports.map((support) => (allow === 'own' ? support : { ...support, allow }));
    const { frame, origin, watch } = casting;
    return planFor(seatMove, { frame, origin, supports, watch, want, prefer });
  }

  /** What giving up the roll would spare, where it is held: µm off the faces all told, and the roll that comes of it. */
  protected readonly rollSpares = computed((): string => {
    const [held, { roll, ...without }] = [this.plan(), this.want() as Record<string, number>];
    if (roll !== 0 || !held?.feasible || Object.keys(without).length === 0) return '';
    const free = this.planFor(without);
    const spared = totalOf(held) - totalOf(free);
    const size = bothUnits(spared, 'deviation', this.shown(), 1).large;
    return free?.feasible && spared > 0.5 && !isZero(size)
      ? `Giving up the roll would spare ${size} over all faces, and leave ${poseWords('roll', free.pose?.['roll'] ?? 0, this.shown())}.`
      : '';
  });

  protected readonly moved = computed(() => {
    const plan = this.plan();
    return plan?.pose
      ? Object.entries(plan.pose)
          .filter(([, value]) => Math.abs(value) > 0.05)
          .map(([name, value]) => poseWords(name, value, this.shown()))
          .filter((words) => !isZero(words))
      : [];
  });
  protected readonly obstacle = computed(() => {
    const plan = this.plan();
    if (!plan || plan.feasible) return '';
    const names = (plan.obstacle ?? '').split(', ').map((name) => COMPONENTS[name] ?? name);
    return plan.obstacle
      ? `${names.join(' and ')} is not possible with these settings. Below is the nearest plan without it.`
      : 'Not possible with these settings. Allow shims, or more depth.';
  });
  protected readonly total = computed(() => {
    const amounts = Object.values(this.plan()?.supports ?? {});
    const deepest = Math.max(0, ...amounts.map(Math.abs));
    return bothUnits(deepest, 'deviation', this.shown(), 1).large;
  });

  protected change(casting: Casting): void {
    this.draft.set(casting);
    this.drafts.keep(this.draftName(), casting);
    this.told.set('');
  }

  protected changeFace({ id, part }: { readonly id: string; readonly part: Partial<Casting['supports'][number]> }): void {
    const casting = this.casting();
    if (casting) this.change({ ...casting, supports: casting.supports.map((entry) => (entry.id === id ? { ...entry, ...part } : entry)) });
  }

  protected startFrom(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    if (this.onFoot()) return this.keepFoot();
    const parsed = presetOf(this.spindle()).safeParse(this.fullPreset());
    if (parsed.success) this.change(castingFrom(this.castingId(), this.frame(), parsed.data));
  }

  /** A wanted change as it was typed: a slope or a small distance, bare in the unit that is shown. */
  protected typeWant(name: string, label: string, slope: boolean, text: string): void {
    if (text.trim() === '') return this.setWant(name, null);
    const parsed = parseQuantity(text, slope ? 'slope' : 'deviation', TYPED_IN[this.settings.system()][slope ? 'slope' : 'deviation']);
    if (!parsed.ok) return this.problem.set(`${label} ${parsed.message}. Example: ${parsed.example}`);
    this.problem.set('');
    this.setWant(name, parsed.value);
  }

  protected setWant(name: string, value: number | null): void {
    this.wish.update((wish) => {
      const { [name]: _old, ...rest } = wish.want;
      return { ...wish, want: value === null ? rest : { ...rest, [name]: value } };
    });
  }

  protected set(part: Partial<Wish>): void {
    this.wish.update((wish) => ({ ...wish, ...part }));
  }

  /** The foot goes onto the machine card, where its job cards look for it too. */
  private keepFoot(): void {
    const machine = this.store.machine();
    if (!machine || this.presetFaults().length) return;
    const card = { ...machine.card, foot: this.fullPreset() } as MachineCardText;
    this.machines.save({ ...machine, card }).subscribe({
      next: () => this.told.set('The foot is on the machine card.'),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  /** Faces and what is wanted of them out of a file: nothing is on the machine card before it is kept. */
  protected opened({ want, prefer, ...faces }: OpenedSupports): void {
    this.change({ id: this.castingId(), name: this.name(), ...faces });
    this.wish.set({ want, prefer, allow: 'own' });
  }

  /** The faces go onto the machine card. */
  protected keep(): void {
    const [machine, casting] = [this.store.machine(), this.casting()];
    if (!machine || !casting) return;
    const others = (machine.card.castings ?? []).filter((entry) => entry.id !== casting.id);
    const card = { ...machine.card, castings: [...others, casting] } as MachineCardText;
    this.machines.save({ ...machine, card }).subscribe({
      next: () => {
        this.drafts.drop(this.draftName());
        this.draft.set(null);
        this.problem.set('');
        this.told.set('The faces are on the machine card.');
      },
      error: (failure: ApiFailure) => {
        if (failure.current) this.machines.loadOne(machine.id).subscribe({ error: () => undefined });
        this.problem.set(
          failure.current
            ? 'Somebody else has changed the machine card meanwhile. Your faces are still here; save them again.'
            : failure.message,
        );
      },
    });
  }

  protected forget(): void {
    this.drafts.drop(this.draftName());
    this.draft.set(null);
  }

  /** What its faces are scraped true by: the check that the figures come from, and what of it is to change most. */
  protected readonly aimed = computed((): { readonly aim: string; readonly goes: number } | undefined => {
    const check = this.round()?.check;
    const [most] = Object.entries(this.measured()).sort(([, one], [, other]) => Math.abs(other ?? 0) - Math.abs(one ?? 0));
    return check && most ? { aim: `${check}/${most[0]}`, goes: most[1] ?? 0 } : undefined;
  });

  /** The plan of this casting that is begun and not done, on the round the figures come from. */
  private readonly openPlan = computed(() =>
    this.round()?.moves.find(
      ({ kind, doneAt, plan }) => kind === 'supports' && doneAt === null && plan['casting'] === this.casting()?.name,
    ),
  );

  /** A job card of this plan, on the round it was made for. */
  protected toJob(): void {
    const [round, plan] = [this.round(), this.plan()];
    const quantity = Object.keys(this.measured()).find((name) => this.wish().want[name]) ?? Object.keys(this.measured())[0];
    const info = round?.finding?.quantities[quantity];
    if (!round || !plan || !info) return;
    const casting = this.casting()?.name ?? '';
    const from: SeatBasis = { asked: this.measured(), faces: this.casting()?.supports ?? [] };
    const made = { want: this.want(), supports: plan.supports, pose: plan.pose, watch: plan.watch, casting, from };
    // One plan for a casting: one that is open is made anew, not put beside the other.
    const open = this.openPlan();
    const move = open ? { ...open, plan: made, ticks: [] } : this.newMove(round.id, quantity, info.unit, made);
    this.rounds.putMove(round.machineId, move, open !== undefined);
    void this.router.navigate(['/machines', round.machineId, 'move', round.id, move.quantity]);
  }

  private newMove(roundId: string, quantity: string, unit: string, plan: MoveWrite['plan']): MoveWrite {
    const amount = this.wish().want[quantity] ?? 0;
    return {
      ...{ id: newId(), roundId, kind: 'supports', quantity, amount, unit, plan },
      direction: amount === 0 ? '' : wayOfPose(quantity, amount),
      ...{ ticks: [], shift: null, by: this.settings.by(), begunAt: nowText(), doneAt: null, version: 1 },
    };
  }
}
