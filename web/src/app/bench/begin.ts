import { ChangeDetectionStrategy, Component, type OnDestroy, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Select } from 'primeng/select';
import type * as z from 'zod';
import { CHECKS, instrumentSchemaFor, valueKindOf, type CheckDefinition, type Fault } from '@isometra/core';
import type { RoundWrite } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { Desk } from '../tailstock/desk';
import { Cautions } from '../ui/cautions';
import { fieldsOf, formFaults, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { firstDraft, purposeOf, purposeSchemaForm, suitable, type BeginDraft } from './begin-draft';

const OWN = 'own';

/** Before the first reading: cautions, what is set up, conditions, the instrument and which way its needle goes. */
@Component({
  selector: 'iso-begin',
  imports: [FormsModule, RouterLink, Select, SchemaForm, Cautions],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './begin.html',
  styleUrl: './begin.css',
})
export class Begin implements OnDestroy {
  readonly checkId = input.required<string>();
  protected readonly desk = inject(Desk);
  private readonly rounds = inject(Rounds);
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(Settings);
  private readonly router = inject(Router);
  private readonly hand = inject(AtHand);

  protected readonly own = OWN;
  protected readonly purposeSchema = purposeSchemaForm;
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  protected readonly draft = signal<BeginDraft>({
    setup: {},
    plan: {},
    conditions: {},
    purpose: {},
    kitId: null,
    own: { kind: 'lever' },
    sense: null,
    read: false,
  });

  protected readonly check = computed(() => CHECKS.get(this.checkId()) as CheckDefinition);
  protected readonly instrumentSchema = computed(() => instrumentSchemaFor(this.draft().own['kind']));
  private readonly kind = computed(() => valueKindOf(this.check(), this.draft().setup));
  protected readonly dials = computed(() => this.desk.kit().filter((item) => suitable(item, this.kind())));
  protected readonly choices = computed(() => [
    ...this.dials().map((item) => ({ id: item.id, name: item.name })),
    { id: OWN, name: 'another one: describe it' },
  ]);
  protected readonly needle = computed(
    () => this.kind() === 'indicator' && ['lever', 'plunger'].includes(String(this.instrument()['kind'])),
  );
  /** The unfinished round of this check, if there is one. */
  protected readonly unfinished = computed(() => {
    const last = this.desk.of(this.checkId()).at(-1);
    return last && last.moves.length === 0 && Object.keys(last.finding?.quantities ?? {}).length === 0 ? last : undefined;
  });

  private readonly instrument = computed((): FormValue => {
    const { kitId, own } = this.full();
    return this.dials().find((item) => item.id === kitId)?.data ?? own;
  });

  /** The draft with its units written out. */
  private readonly full = computed((): BeginDraft => {
    const [draft, check, system] = [this.draft(), this.check(), this.settings.system()];
    return {
      ...draft,
      setup: settled(check.setup, draft.setup, system),
      plan: settled(check.plan, draft.plan, system),
      conditions: settled(check.conditions, draft.conditions, system),
      purpose: settled(purposeSchemaForm, draft.purpose, system),
      own: settled(instrumentSchemaFor(draft.own['kind']), draft.own, system),
    };
  });

  protected readonly faults = computed(() => ({
    setup: formFaults(this.check().setup, this.full().setup),
    plan: formFaults(this.check().plan, this.full().plan),
    conditions: formFaults(this.check().conditions, this.full().conditions),
    purpose: formFaults(purposeSchemaForm, this.full().purpose),
    own: this.draft().kitId === OWN ? formFaults(this.instrumentSchema(), this.full().own) : ([] as Fault[]),
  }));
  private readonly faultCount = computed(() => Object.values(this.faults()).reduce((sum, faults) => sum + faults.length, 0));

  constructor() {
    this.desk.inHand.set(true);
    effect(() => {
      const name = this.draftName();
      const check = this.check();
      untracked(() => {
        this.hand.doing.set(check.title);
        const kept = this.drafts.read<BeginDraft>(name);
        this.draft.set(kept ?? firstDraft(check, this.desk.machine()?.card, this.desk.all(), this.dials(), OWN));
      });
    });
    effect(() => this.hand.instrument.set(this.dials().find((item) => item.id === this.draft().kitId)?.name ?? ''));
  }

  ngOnDestroy(): void {
    this.desk.inHand.set(false);
  }

  private readonly draftName = computed(() => `begin:${this.desk.machine()?.id}:${this.checkId()}`);

  /** Whether a part of the form has anything to ask. */
  protected asks(schema: z.ZodObject): boolean {
    return fieldsOf(schema).length > 0;
  }

  protected set<K extends keyof BeginDraft>(key: K, value: BeginDraft[K]): void {
    this.draft.update((draft) => ({ ...draft, [key]: value }));
    this.drafts.keep(this.draftName(), this.draft());
  }

  protected begin(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    const { setup, plan, conditions, purpose, kitId, sense, read } = this.full();
    if (!read) return this.problem.set('Read the cautions and tick them first.');
    if (this.faultCount())
      return this.problem.set(this.faultCount() === 1 ? 'One field needs another look.' : `${this.faultCount()} fields need another look.`);
    this.problem.set('');
    const { sense: _old, ...dial } = this.instrument() as FormValue & { sense?: unknown };
    const round: RoundWrite = {
      id: crypto.randomUUID(),
      machineId: this.desk.machine()?.id ?? '',
      check: this.checkId(),
      setup: { ...setup },
      plan: { ...plan },
      instrument: { ...dial, ...(this.needle() && sense && { sense }) },
      instrumentName: this.dials().find((item) => item.id === kitId)?.name ?? null,
      conditions: this.check().conditions.parse(conditions) as RoundWrite['conditions'],
      purpose: purposeOf(purpose),
      by: this.settings.by(),
      at: new Date().toISOString(),
      version: 1,
    };
    this.rounds.begin(round).subscribe({
      next: () => {
        this.drafts.drop(this.draftName());
        this.desk.refresh();
        void this.router.navigate(['/machines', round.machineId, 'bench', round.check, round.id]);
      },
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
