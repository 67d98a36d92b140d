import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type * as z from 'zod';
import {
  bareSchema,
  CHECKS,
  fieldInfo,
  instrumentSchemaFor,
  KINDS_FOR,
  plannedKind,
  type CheckDefinition,
  type Fault,
} from '@isometra/core';
import type { KitItem, RoundWrite, StoredRound } from '@isometra/contract';
import { faultWords, fromKit, knownSense, mountingOf, roundFaults } from '@isometra/work';
import { catchError, of, zip, type Observable, type Subscription } from 'rxjs';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { Drafts } from '../data/drafts';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { FirstField } from '../ui/first-field';
import { Cautions } from '../ui/cautions';
import { formFaults, settled, type FormValue } from '../ui/form-model';
import { FormPart } from '../ui/form-part';
import { leadHand } from '../ui/lead-hand';
import { SchemaForm } from '../ui/schema-form';
import { today } from '../data/when';
import { dueWords } from '../kit/kit-texts';
import { CheckParts, anotherLook, partFaults, settledParts, type PartsDraft } from './check-parts';
import { Nudge } from './nudge';
import {
  beginSchema,
  emptyDraft,
  filledFrom,
  firstDraft,
  ownInstrument,
  purposeOf,
  purposeSchemaForm,
  suitable,
  type BeginDraft,
} from './begin-draft';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { Pick } from '../ui/pick';
import { fieldInHand } from '../ui/field-in-hand';
import { readingText } from '../ui/reading-text';
import { SetUpPicture } from './set-up-picture';
import { SheetIn } from './sheet-in';

const OWN = 'own';
const needleKinds: readonly string[] = KINDS_FOR.indicator;

/** Before the first reading: cautions, what is set up, conditions, the instrument and which way its needle goes. */
@Component({
  selector: 'iso-begin',
  imports: [
    SetUpPicture,
    SheetIn,
    FirstField,
    Field,
    RouterLink,
    SchemaForm,
    CheckParts,
    FormPart,
    Nudge,
    Cautions,
    Button,
    Notice,
    Tick,
    Pick,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './begin.html',
  styleUrl: './begin.css',
})
export class Begin implements OnDestroy {
  readonly checkId = input.required<string>();
  protected readonly machineStore = inject(MachineStore);
  private readonly rounds = inject(Rounds);
  private readonly drafts = inject(Drafts);
  protected readonly settings = inject(Settings);
  /** Asked once: as long as the field stands here it stays, whatever is typed into it. */
  protected readonly askWho = this.settings.who().trim() === '';
  private readonly router = inject(Router);
  private readonly hand = inject(AtHand);
  private remembering: Subscription | undefined;

  protected readonly own = OWN;
  protected readonly purposeSchema = purposeSchemaForm;
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  /** What fills the form is there: before that no field is shown, so that none is filled under a hand that types. */
  protected readonly ready = signal(false);
  /** Why what was set up last time could not be fetched; '' where it was. */
  protected readonly notFetched = signal('');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly draft = signal<BeginDraft>(emptyDraft());

  protected readonly check = computed(() => CHECKS.get(this.checkId()) as CheckDefinition);
  protected readonly instrumentSchema = computed(() => instrumentSchemaFor(this.draft().own['kind']));
  private readonly kind = computed(() => plannedKind(this.check(), this.draft().setup, this.draft().plan));
  protected readonly dials = computed(() => this.machineStore.kit().filter((item) => suitable(item, this.kind())));
  protected readonly choices = computed(() => [
    ...this.dials().map((item) => ({ value: item.id, label: item.name })),
    { value: OWN, label: 'another instrument: describe it' },
  ]);
  protected readonly needle = computed(() => this.kind() === 'indicator' && needleKinds.includes(String(this.instrument()['kind'])));
  protected readonly holders = computed(() =>
    this.machineStore.kit().filter((item) => item.kind === 'holder' && item.data['sag'] !== undefined),
  );
  protected readonly holds = computed(() => [
    { value: null, label: 'no holder from the kit' },
    ...this.holders().map(({ id, name, data }) => ({ value: id, label: `${name}, droop ${readingText(String(data['sag']))}` })),
  ]);
  /** Fields of the set-up that a piece of kit can fill in, with what there is. */
  protected readonly fromKit = computed(() =>
    Object.entries(this.check().setup.shape).flatMap(([key, field]) => {
      const info = fieldInfo(field as z.ZodType);
      const items = info?.kit ? this.machineStore.kit().filter((item) => item.kind === info.kit) : [];
      return info && items.length
        ? [
            {
              key,
              label: info.label,
              items: items.map((item) => ({ value: item.id, label: [item.name, dueWords(item, today())].filter(Boolean).join(', ') })),
            },
          ]
        : [];
    }),
  );
  /** What other rungs have filled in, told so that nobody wonders where it is from. */
  protected readonly filled = computed(() => {
    const known = filledFrom(this.check(), this.machineStore.rungs());
    return Object.entries(known)
      .filter(([key, text]) => this.draft().setup[key] === text)
      .map(([key, text]) => `${fieldInfo(this.check().setup.shape[key] as z.ZodType)?.label}: ${text}, as its own check measured it.`);
  });
  /** How the dial in hand counted last time, from the same side. */
  protected readonly learned = computed(() => {
    const { kitId, setup } = this.draft();
    const dial = this.dials().find((item) => item.id === kitId)?.name ?? null;
    return knownSense(this.machineStore.all(), this.checkId(), dial, mountingOf(this.checkId(), setup));
  });

  /** Put what a piece of kit knows into a field of the set-up. */
  protected fill(key: string, id: string): void {
    const item = this.machineStore.kit().find((entry) => entry.id === id);
    const field = bareSchema(this.check().setup.shape[key] as z.ZodType) as Partial<z.ZodObject>;
    const value = item && fromKit(item, field.shape);
    if (value === undefined) return;
    const known = this.draft().setup[key];
    const merged = typeof value === 'object' && value !== null ? { ...(known as object | undefined), ...value } : value;
    this.set('setup', { ...this.draft().setup, [key]: merged });
  }

  /** Choose what is read with: how it counted last time comes with it. */
  protected takeInHand(id: string): void {
    this.set('kitId', id);
    this.set('sense', this.learned()?.sense ?? null);
  }

  protected takeParts(parts: Partial<PartsDraft>): void {
    const [side, kind] = [this.draft().setup['side'], this.kind()];
    this.keep({ ...this.draft(), ...parts });
    // Another way to read it is read on something else.
    if (this.kind() !== kind)
      this.keep({ ...this.draft(), kitId: this.dials()[0]?.id ?? OWN, own: ownInstrument(this.kind()), sense: null });
    // From the other side the same dial counts the other way.
    if (this.draft().setup['side'] !== side) this.set('sense', this.learned()?.sense ?? null);
  }

  /** The unfinished round of this check, if there is one. */
  protected readonly unfinished = computed(() => {
    const last = this.machineStore.of(this.checkId()).at(-1);
    return last && last.moves.length === 0 && Object.keys(last.finding?.quantities ?? {}).length === 0 ? last : undefined;
  });

  private readonly instrument = computed((): FormValue => {
    const { kitId, own } = this.full();
    return this.dials().find((item) => item.id === kitId)?.data ?? own;
  });

  /** The field in hand: its line on the drawing is marked. */
  protected readonly field = signal('');
  protected inHand(event: FocusEvent): void {
    this.field.set(fieldInHand(event));
  }

  /** The draft with its units written out. */
  protected readonly full = computed((): BeginDraft => {
    const [draft, check, system] = [this.draft(), this.check(), this.settings.system()];
    return {
      ...draft,
      ...settledParts(check, draft, system),
      purpose: settled(purposeSchemaForm, draft.purpose, system),
      own: settled(instrumentSchemaFor(draft.own['kind']), draft.own, system),
    };
  });

  protected readonly faults = computed(() => ({
    ...partFaults(this.check(), this.full(), this.settings.system()),
    purpose: formFaults(purposeSchemaForm, this.full().purpose, this.settings.system()),
    own: this.draft().kitId === OWN ? formFaults(this.instrumentSchema(), this.full().own, this.settings.system()) : ([] as Fault[]),
  }));

  constructor() {
    this.machineStore.inHand.set(true);
    effect(() => {
      const name = this.draftName();
      const check = this.check();
      untracked(() => {
        this.hand.doing.set(check.title);
        const kept = this.drafts.read(name, beginSchema);
        this.draft.set(kept ?? this.first(check, undefined, undefined));
        this.ready.set(kept !== undefined);
        if (!kept) this.remember(check);
      });
    });
    effect(() => this.hand.instrument.set(this.dials().find((item) => item.id === this.draft().kitId)?.name ?? ''));
  }

  private first(check: CheckDefinition, last: StoredRound | undefined, other: StoredRound | undefined): BeginDraft {
    const known = {
      card: this.machineStore.machine()?.card,
      heads: this.machineStore.all(),
      kit: this.machineStore.kit(),
      rungs: this.machineStore.rungs(),
      last,
      other,
    };
    return firstDraft(check, known, OWN);
  }

  /** What was set up last time, fetched; then the form is shown. */
  private remember(check: CheckDefinition): void {
    const id = this.draft().id;
    this.notFetched.set('');
    const [last, other] = [this.machineStore.of(check.id).at(-1), this.machineStore.all().at(-1)].map((head) => this.stored(head?.id));
    this.remembering?.unsubscribe();
    this.remembering = zip(last, other).subscribe(([own, any]) => {
      // The cautions may have been ticked meanwhile.
      this.draft.set({ ...this.first(check, own, any), id, read: this.draft().read });
      this.ready.set(true);
    });
  }

  /** The hand is led to the first thing that needs another look. */
  private lookAt(selector: string): void {
    leadHand(this.injector, () => this.host.nativeElement.querySelector<HTMLElement>(selector));
  }

  private stored(id: string | undefined): Observable<StoredRound | undefined> {
    if (id === undefined) return of(undefined);
    return this.rounds.once(id).pipe(
      catchError((failure: ApiFailure) => {
        this.notFetched.set(
          `The last set-up could not be loaded: ${failure.message} The fields below come from the machine card and the kit. Check every field, the instrument and its holder too.`,
        );
        return of(undefined);
      }),
    );
  }

  ngOnDestroy(): void {
    this.remembering?.unsubscribe();
    this.machineStore.inHand.set(false);
  }

  /** The needle stands at the end of its travel. */
  protected readonly pegged = signal<boolean | null>(null);
  private readonly draftName = computed(() => `begin:${this.machineStore.machine()?.id}:${this.checkId()}`);

  protected set<K extends keyof BeginDraft>(key: K, value: BeginDraft[K]): void {
    this.keep({ ...this.draft(), [key]: value });
  }

  private keep(draft: BeginDraft): void {
    this.draft.set(draft);
    // Before the last set-up has come there is nothing worth keeping.
    if (this.ready()) this.drafts.keep(this.draftName(), draft);
  }

  protected begin(event?: Event): void {
    event?.preventDefault();
    if (!this.ready()) return;
    this.tried.set(true);
    const { read } = this.full();
    this.problem.set(read ? anotherLook(this.faults()) : 'Read the cautions and tick them first.');
    if (this.problem()) return this.lookAt(read ? '[aria-invalid=true]' : 'iso-tick input[type=checkbox]');
    if (this.needle() && this.pegged())
      return this.problem.set(
        'The needle is at the end of its travel. Set the dial so that the needle can move both ways, then confirm it above.',
      );
    const round = this.described();
    const [fault] = roundFaults(round);
    if (fault) return this.problem.set(faultWords(round.check, fault, round.instrument));
    // Pressed twice it is the same round: it goes out once.
    if (!this.rounds.knows(round.id)) this.rounds.begin(round);
    this.drafts.drop(this.draftName());
    void this.router.navigate(['/machines', round.machineId, 'bench', round.check, round.id]);
  }

  /** The dial as it is set up: with the droop of its holder, and the way its needle counts. */
  private dialUsed(): RoundWrite['instrument'] {
    const holder = this.holders().find((item: KitItem) => item.id === this.draft().holderId);
    const { sense: _old, ...dial } = this.instrument() as FormValue & { sense?: unknown };
    const { sense } = this.full();
    return { ...dial, ...(holder && { holderSag: holder.data['sag'] }), ...(this.needle() && sense && { sense }) };
  }

  /** The round as it is described here. */
  private described(): RoundWrite {
    const { setup, plan, conditions, purpose, kitId } = this.full();
    return {
      id: this.draft().id,
      machineId: this.machineStore.machine()?.id ?? '',
      check: this.checkId(),
      setup: { ...setup },
      plan: { ...plan },
      instrument: this.dialUsed(),
      instrumentName: this.dials().find((item) => item.id === kitId)?.name ?? null,
      conditions: this.check().conditions.parse(conditions) as RoundWrite['conditions'],
      purpose: purposeOf(purpose),
      ...(this.check().cautions.length > 0 && { cautions: [...this.check().cautions] }),
      by: this.settings.by(),
      at: nowText(),
      version: 1,
    };
  }
}
