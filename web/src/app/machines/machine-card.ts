import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { map, of, switchMap, take, type Observable } from 'rxjs';
import {
  cardFieldsFor,
  MACHINE_KINDS,
  machineCardSchema,
  storedMachineSchema,
  type Machine,
  type MachineCardText,
  type StateThen,
} from '@isometra/contract';
import { fieldPath, type Fault } from '@isometra/core';
import { freshSurvey, running } from '@isometra/work';
import { newId } from '../data/id';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Machines } from '../data/machines';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { Archive } from '../shell/archive';
import { Choices, type Choice } from '../ui/choices';
import { asInFile, formFaults, formSchema, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { Button } from '../ui/controls';
import { FirstField } from '../ui/first-field';
import { leadHand } from '../ui/lead-hand';
import { Notice } from '../ui/notice';
import { fieldInHand } from '../ui/field-in-hand';
import { CardFigure } from './card-figure';
import { KindPlates } from './kind-plates';

/** The card of a machine: what the arithmetic needs to know of it. */
@Component({
  selector: 'iso-machine-card',
  imports: [Archive, AsItStood, CardFigure, Choices, Earlier, KindPlates, SchemaForm, FirstField, RouterLink, Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.drawn]': 'kind() !== undefined' },
  template: `
    <form (submit)="save($event)" (focusin)="inHand($event)" novalidate>
      <h1>{{ machineId() ? 'Machine card' : 'New machine' }}</h1>
      @if (then(); as state) {
        <iso-as-it-stood [then]="state" (back)="backToNow()" />
      }
      <p class="soft">Lengths may be typed with their unit: 360 mm, 14 1/4 in. Leave out what you do not know.</p>
      @if (ready()) {
        <div class="fields" isoFirstField>
          <iso-schema-form [schema]="schema()" [value]="card()" [faults]="faults()" [showAll]="tried()" (changed)="type($event)" />
          @if (!kind()) {
            <div>
              <h2>What kind of machine is it?</h2>
              <iso-kind-plates (chosen)="chooseKind($event)" />
              @if (tried()) {
                <iso-notice [text]="kindFault()" />
              }
            </div>
          }
          @if (otherKind(); as kind) {
            <div>
              <p class="label">The current survey was started for another kind of machine</p>
              <iso-choices label="The current survey" [options]="forSurvey(kind)" [value]="anew()" (chosen)="anew.set($event)" />
            </div>
          }
        </div>
      } @else if (!problem()) {
        <p class="soft" role="status">Loading the card …</p>
      }
      <iso-notice [text]="problem()" />
      <p class="acts">
        <button pButton type="submit" class="next" [disabled]="!canSave()">
          {{ then() ? 'Put this back' : machineId() ? 'Save the card' : 'Add this machine' }}
        </button>
        <a class="act" routerLink="/machines">Back</a>
        @if (saved(); as machine) {
          <iso-archive [name]="machine.card.number" [archived]="machine.archived" (away)="archive(machine, $event)" />
        }
      </p>
      @if (saved(); as machine) {
        <iso-earlier
          what="machines"
          [of]="machine.id"
          [version]="machine.version"
          [shown]="then()?.version ?? null"
          (looked)="lookAt($event)"
        />
      }
    </form>
    @if (kind(); as drawn) {
      <iso-card-figure [kind]="drawn" [field]="field()" [called]="called()" />
    }
  `,
  styles: `
    form,
    .fields {
      display: grid;
      gap: 18px;
    }
    :host(.drawn) {
      display: grid;
      grid-template-columns: minmax(0, 980px) minmax(0, 1fr);
    }
    form {
      padding: 26px 32px 40px;
    }
    h2 {
      margin: 0 0 10px;
      font-size: 1.125rem;
    }
    @media (width < 1000px) {
      :host(.drawn) {
        display: block;
      }
    }
    .acts {
      display: flex;
      gap: 12px;
    }
    .problem {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class MachineCardForm {
  readonly machineId = input<string>();
  private readonly machines = inject(Machines);
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(Settings);
  private readonly router = inject(Router);
  private readonly surveys = inject(Surveys);
  protected readonly saved = signal<Machine | undefined>(undefined);
  private readonly newId = newId();

  protected readonly card = signal<FormValue>({});
  /** What fills the form has come: before that no field is shown, so that none is filled while somebody types in it. */
  protected readonly ready = signal(false);
  /** A card is saved over the version that was read: what was typed before stays until that has come. */
  protected readonly canSave = computed(() => this.machineId() === undefined || this.saved() !== undefined);
  protected readonly kind = computed(() => MACHINE_KINDS.find(({ value }) => value === this.card()['kind'])?.value);
  /** What a machine of the chosen kind has. */
  protected readonly schema = computed(() => {
    const kind = this.kind();
    const fields = cardFieldsFor(kind);
    // Its kind is chosen by the drawings first; what every machine has can wait until then.
    return kind ? fields : fields.pick({ number: true });
  });
  /** The kind as it is called, where it was put right on a machine that has a survey. */
  protected readonly otherKind = computed(() => {
    const before = this.saved()?.card.kind;
    return before !== undefined && this.kind() !== undefined && before !== this.kind()
      ? MACHINE_KINDS.find(({ value }) => value === this.kind())?.label.toLowerCase()
      : undefined;
  });
  /** Whether the survey goes by what is usual for the kind that was put right. */
  protected readonly anew = signal<boolean | null>(null);
  protected readonly forSurvey = (kind: string): readonly Choice<boolean>[] => [
    { value: true, label: `uses the order and limits of a ${kind} from now on` },
    { value: false, label: 'stays as it is' },
  ];
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  private readonly told = signal<readonly Fault[]>([]);
  /** The card as it is kept: what another kind of machine was told and cannot be read is left behind. */
  private readonly kept = computed(() => {
    const card = settled(machineCardSchema, this.card(), this.settings.system());
    const bad = new Set(formFaults(machineCardSchema, card, this.settings.system()).map(({ path }) => path.split(/[.[]/)[0]));
    return Object.fromEntries(Object.entries(card).filter(([key]) => key in this.schema().shape || !bad.has(key)));
  });
  protected readonly faults = computed(() => [...formFaults(machineCardSchema, this.kept(), this.settings.system()), ...this.told()]);
  private readonly draftName = computed(() => `card:${this.machineId() ?? 'new'}`);

  constructor() {
    effect(() => {
      const id = this.machineId();
      untracked(() => this.open(id));
    });
  }

  /** The field in hand, or the group it belongs to: the part that it is about is marked on the drawing. */
  protected readonly field = signal<string | null>(null);
  /** What is wrong with the kind, which no field of the form shows before it is chosen. */
  protected readonly kindFault = computed(() => {
    const fault = this.faults().find(({ path }) => path === 'kind');
    return fault ? `${fieldPath(machineCardSchema, ['kind'])} ${fault.message}. Example: ${MACHINE_KINDS[0].label}` : '';
  });
  /** What the card calls the field in hand, or its group. */
  protected readonly called = computed(() => fieldPath(this.schema(), [this.field() ?? '']));
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);

  protected inHand(event: FocusEvent): void {
    this.field.set(fieldInHand(event).split(/[.[]/)[0] || null);
  }

  /** The drawings give way to what such a machine has; the hand goes on from there. */
  protected chooseKind(kind: string): void {
    this.type({ ...this.card(), kind });
    leadHand(this.injector, () => this.host.nativeElement.querySelector<HTMLElement>('[data-field="kind"] [role="combobox"]'));
  }

  private open(id: string | undefined): void {
    const draft = this.drafts.read(this.draftName(), formSchema);
    if (draft) this.card.set(draft);
    this.ready.set(draft !== undefined || id === undefined);
    if (id === undefined) return;
    this.machines
      .loadOne(id)
      .pipe(switchMap(() => this.machines.one(id).pipe(take(1))))
      .subscribe({
        next: (machine) => {
          this.saved.set(machine);
          if (machine && !draft) this.card.set(asInFile(machineCardSchema, machine.card));
          this.ready.set(true);
        },
        error: (failure: ApiFailure) => this.problem.set(failure.message),
      });
  }

  protected type(card: FormValue): void {
    this.card.set(card);
    this.told.set([]);
    // What is changed of a state that is only looked at does not take the place of what was typed before.
    if (!this.then()) this.drafts.keep(this.draftName(), card);
  }

  protected save(event: Event): void {
    event.preventDefault();
    if (!this.canSave()) return;
    this.tried.set(true);
    if (this.faults().length) {
      this.problem.set(`${this.faults().length === 1 ? 'One field needs' : `${this.faults().length} fields need`} another look.`);
      return;
    }
    if (this.otherKind() && this.anew() === null)
      return this.problem.set('Say what becomes of the survey that runs: its order and limits are those of another kind of machine.');
    this.problem.set('');
    const machine: Machine = {
      id: this.machineId() ?? this.newId,
      card: this.kept() as MachineCardText,
      version: this.saved()?.version ?? 0,
    };
    const anew = this.otherKind() !== undefined && this.anew() === true;
    this.machines
      .save(machine)
      .pipe(switchMap((kept) => (anew ? this.goByKind(kept) : of(kept))))
      .subscribe({
        next: (kept) => {
          this.drafts.drop(this.draftName());
          void this.router.navigate(['/machines', kept.id]);
        },
        error: (failure: ApiFailure) => this.refused(failure),
      });
  }

  /** An earlier state of the card that is looked at: the form shows it, and what was typed waits. */
  protected readonly then = signal<StateThen | null>(null);
  protected lookAt(then: StateThen): void {
    this.then.set(then);
    this.card.set(asInFile(machineCardSchema, then.state));
  }
  protected backToNow(): void {
    this.then.set(null);
    this.card.set(this.drafts.read(this.draftName(), formSchema) ?? asInFile(machineCardSchema, this.saved()?.card ?? {}));
  }

  protected archive(machine: Machine, away: boolean): void {
    this.machines.archive(machine, away).subscribe({
      next: (kept) => this.saved.set(kept),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  /** The running survey of a machine takes the order, the limits and the way to go on of its kind. */
  private goByKind(machine: Machine): Observable<Machine> {
    const { id } = machine;
    const { order, school, limits } = freshSurvey({ id, kind: machine.card.kind }, '', '', '');
    return this.surveys.load(id).pipe(
      switchMap(() => this.surveys.of(id).pipe(take(1))),
      switchMap((surveys) => {
        const now = running(surveys);
        return now ? this.surveys.change(now, { order, school, limits }) : of(null);
      }),
      map(() => machine),
    );
  }

  private refused(failure: ApiFailure): void {
    const newer = storedMachineSchema.safeParse(failure.current).data;
    if (newer) {
      this.saved.set(newer);
      this.problem.set(
        'Somebody else has changed this card meanwhile. What you typed is still here. Save again to overwrite their version.',
      );
      return;
    }
    this.told.set(failure.faults.map((fault) => ({ ...fault, path: fault.path.replace(/^card\./, '') })));
    this.problem.set(failure.message.replace(/^card\./, ''));
  }
}
