import { computed, inject, linkedSignal, signal, type Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, concat, of, switchMap } from 'rxjs';
import { dequal } from 'dequal';
import {
  CHECKS,
  readInstrument,
  readingValue,
  readsOf,
  wayProfile,
  type CheckDefinition,
  type Instrument,
  type PlannedSlot,
  type ValueKind,
  type WayProfile,
  sizesIn,
} from '@isometra/core';
import type { StoredReading } from '@isometra/contract';
import {
  hardwareOfFault,
  inWorkingOrder,
  onMachine,
  placeOf,
  placesRead,
  readingTold,
  sheetOf,
  solveWhatStands,
  standingReadings,
  withReadings,
  type BenchSlot,
  type Solved,
} from '@isometra/work';
import { Settings } from '../data/settings';
import { Outbox } from '../data/outbox';
import { Rounds } from '../data/rounds';
import { MachineStore } from '../machine/machine-store';
import { readingText } from '../ui/reading-text';
import { workDone } from './bench-round';
import { Besides } from './besides';
import { sameNotes, sameSheet } from './same';

/** What is being corrected: the reading that will be superseded. */
export interface Correction {
  readonly reading: StoredReading;
  readonly why: string;
}

/** In place of a value that is not worked out now. */
const LATER = Symbol('later');

/** What stands on the bench: the round, where the hand is in it, what has been typed, and the call that follows. */
export abstract class BenchState {
  protected readonly machineStore = inject(MachineStore);
  protected readonly rounds = inject(Rounds);
  protected readonly outbox = inject(Outbox);
  protected readonly settings = inject(Settings);
  private readonly allRefused = toSignal(this.outbox.refused$, { requireSync: true });

  protected readonly roundId$ = new BehaviorSubject<string | null>(null);
  /** The round on the bench; null as long as nobody knows it. */
  readonly round = toSignal(this.roundId$.pipe(switchMap((id) => (id === null ? of(null) : concat(of(null), this.rounds.one(id))))), {
    requireSync: true,
  });
  readonly typed = signal('');
  readonly fault = signal('');
  /** What of the round cannot be used; what a move lacks is asked for on its card. */
  readonly roundFaults = computed(() => this.solved().faults.filter((fault) => hardwareOfFault(fault) === undefined));
  /** What a bare reading may be that the dial cannot have shown, each with its unit; empty where nothing is asked. */
  readonly asked = signal<readonly string[]>([]);
  /** A reading of this place that the one in the field does not agree with; null as long as none is in doubt. */
  readonly apart = signal<StoredReading | null>(null);
  /** What is asked back of a figure that the dial can show: it is odd beside the other places. */
  readonly fitsDial = signal(false);
  readonly correction = signal<Correction | null>(null);
  /** The place chosen by hand; null follows the plan. */
  protected readonly chosen = signal<number | null>(null);
  /** The set-up chosen by hand; null follows the readings. */
  protected readonly chosenSetUp = signal<number | null>(null);
  readonly setUp = computed(() => this.chosenSetUp() ?? (this.round()?.readings ?? []).reduce((most, { set }) => Math.max(most, set), 1));

  readonly check = computed(() => CHECKS.get(this.round()?.check ?? '') as CheckDefinition | undefined);
  /** The same one as long as the round says the same of it, whatever else is written down. */
  readonly instrument = computed(
    (): Instrument | undefined => {
      const raw = this.round()?.instrument;
      return raw ? readInstrument(raw).instrument : undefined;
    },
    { equal: dequal },
  );
  /** Read again only when it was written otherwise: a reading taken changes nothing of it. */
  private readonly setupText = computed(() => JSON.stringify(this.round()?.setup ?? {}));
  private readonly planText = computed(() => JSON.stringify(this.round()?.plan ?? {}));
  private readonly parsedSetup = computed(() => this.check()?.setup.safeParse(JSON.parse(this.setupText())));
  readonly setup = computed((): Readonly<Record<string, unknown>> => {
    const parsed = this.parsedSetup();
    return parsed?.success ? parsed.data : {};
  });
  /** What a reading of a place is read on. */
  kindOf(keys: Readonly<Record<string, unknown>>): ValueKind {
    const check = this.check();
    if (!check) return 'indicator';
    const felt = check.beside?.some(({ instead, when }) => instead && (when?.(keys) ?? true));
    return felt ? 'none' : readsOf(check, this.setup(), keys);
  }
  /** What a reading says, as it was typed: its figure, or what was felt instead of one: "0.10 mm to 0.12 mm". */
  toldBy(reading: StoredReading): string {
    return readingText(readingTold(this.check()?.id ?? '', reading));
  }
  /** What the reading in hand is read on. */
  readonly valueKind = computed(() =>
    this.kindOf(this.correction()?.reading.keys ?? this.current()?.keys ?? this.slots().at(-1)?.keys ?? {}),
  );
  /** What each reading says, µm (µm/m on a level); it is taken apart once, not again at every reading after it. */
  private readonly deviations = computed(() => {
    const [instrument, known] = [this.instrument(), new WeakMap<StoredReading, number | null>()];
    return (reading: StoredReading): number | null => {
      let value = known.get(reading);
      if (value === undefined) {
        const parsed = readingValue(reading.value, this.kindOf(reading.keys), instrument);
        known.set(reading, (value = parsed.ok ? parsed.value : null));
      }
      return value;
    };
  });
  /** What a reading says, µm (µm/m on a level); null of one that cannot be read. */
  deviationOf(reading: StoredReading): number | null {
    return this.deviations()(reading);
  }
  readonly standing = computed(() => standingReadings(this.round()?.readings ?? []));
  /** Places (`at`) that were read, mm. */
  readonly places = computed(() => placesRead(this.standing()));
  /** The round as a sheet: what the call is worked out from. The same one as long as it says the same: taken, sent and acknowledged are one call. */
  readonly sheet = computed(
    () => {
      const round = this.round();
      return round && sheetOf(round, round.readings, this.machineStore.facts(round));
    },
    { equal: sameSheet },
  );
  private readonly waits = computed(() => this.machineStore.waits(this.check()?.id ?? ''), { equal: sameNotes });
  readonly solved = computed((): Solved => {
    const sheet = this.sheet();
    if (!sheet) return { finding: null, faults: [] };
    const { finding, faults } = solveWhatStands(sheet, { waits: this.waits(), sizes: sizesIn(this.settings.shown()) });
    return { finding: finding && onMachine(finding, this.machineStore.kind()), faults };
  });
  /** The one move that comes next: the height before the side. */
  readonly firstMove = computed(() => inWorkingOrder(this.solved().finding?.moves ?? []).at(0));
  /** Readings of this round that the server refused: drafts to put right. */
  readonly refused = computed(() => this.allRefused().filter(({ what, about }) => what === 'reading' && about === this.round()?.id));

  /** What was read as a profile, where the check has one. */
  readonly profile = computed((): WayProfile | undefined =>
    this.check()?.profile && this.solved().finding ? wayProfile(this.sheet()) : undefined,
  );

  /** The places of the plan, the same ones from reading to reading. */
  private readonly planned = computed((): readonly PlannedSlot[] => {
    const [check, setup] = [this.check(), this.parsedSetup()];
    const plan = check?.plan.safeParse(JSON.parse(this.planText()));
    if (!check || !setup?.success) return [];
    return check.slots(setup.data, plan?.success ? plan.data : check.plan.parse({}));
  });
  readonly slots = computed((): BenchSlot[] => {
    const [check, setUp] = [this.check(), this.setUp()];
    if (!check || !this.parsedSetup()?.success) return [];
    const here = this.standing().filter((reading) => reading.set === setUp);
    return withReadings(this.planned(), here, (keys) => placeOf(check, keys));
  });
  /** The place to read now. */
  readonly current = computed(() => {
    const slots = this.slots();
    const chosen = this.chosen();
    if (chosen !== null && slots[chosen]) return slots[chosen];
    return slots.find((slot) => !slot.done);
  });
  /** What is asked beside the figure. */
  readonly besides = new Besides(this.check, () => this.correction()?.reading.keys ?? this.current()?.keys);
  /** A call is on its way to the screen: what can wait a frame stays as it was until it has been painted. */
  protected readonly calling = signal(false);
  /** What is drawn once the call is on the screen. */
  afterCall<Drawn>(work: () => Drawn): Signal<Drawn> {
    return linkedSignal<Drawn | typeof LATER, Drawn>({
      source: () => (this.calling() ? LATER : work()),
      computation: (fresh, before) => (fresh !== LATER ? fresh : before ? before.value : work()),
    });
  }
  readonly complete = computed(() => this.slots().length > 0 && this.slots().every((slot) => slot.done));
  readonly work = computed(() => workDone(this.solved().finding, this.round(), this.setup()));
}
