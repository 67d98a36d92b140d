import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import * as z from 'zod';
import { FaultError, fieldInfo, MOVES, planWithSteps, planWords, type Fault, type MovePlan } from '@isometra/core';
import { answerLines } from '@isometra/work';
import { Drafts } from '../data/drafts';
import { Kit, stockOf } from '../data/kit';
import { parsedJson, type ApiFailure } from '../data/api';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { File as FileButton } from '../ui/file';
import { askedFaults, formSchema, settled, type FormValue } from '../ui/form-model';
import { giveJson } from '../ui/give-file';
import { notOpened } from '../ui/not-opened';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { SchemaForm } from '../ui/schema-form';
import { canBeTyped, heldWords, moveFileOf, openMove, takesLeaves, WORKED, type MoveInput } from './open-move';

const DRAFT = 'move-on-its-own';
const draftSchema = z.object({ kind: z.string(), value: formSchema, rest: formSchema });

interface Step {
  readonly text: string;
  readonly caution?: string;
}

/** A move worked out without a round: screws, leaves, strips, stacks. Typed, or opened from a move file, and saved as one. */
@Component({
  selector: 'iso-move-page',
  imports: [Button, FileButton, Notice, Pick, SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './move-page.html',
  styleUrl: './move-page.css',
})
export class MovePage {
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(Settings);
  private readonly kit = inject(Kit);
  private readonly kitHere = toSignal(this.kit.all$, { initialValue: [] });
  protected readonly problem = signal('');
  protected readonly told = signal('');
  protected readonly kitProblem = signal('');

  private readonly input = signal<MoveInput>(this.kept());
  protected readonly kind = computed(() => this.input().kind);
  protected readonly value = computed(() => this.input().value);
  protected readonly definition = computed(() => MOVES.get(this.kind()));
  protected readonly kinds = computed(() =>
    WORKED.filter((move) => canBeTyped(move) || move.kind === this.kind()).map(({ kind, title }) => ({ value: kind, label: title })),
  );
  /** What of a file no field shows. */
  protected readonly held = computed(() => Object.entries(this.input().rest).map(([key, part]) => ({ key, words: heldWords(part) })));

  /** What is worked out, with the shown unit behind every bare number that has been typed. */
  private readonly file = computed(() => {
    const [input, schema] = [this.input(), this.definition()?.input];
    return moveFileOf({ ...input, value: schema ? settled(schema, input.value, this.settings.system()) : input.value });
  });
  private readonly asked = computed((): readonly Fault[] => {
    const schema = this.definition()?.input;
    return schema ? askedFaults(schema, this.value(), this.settings.system()) : [];
  });
  private readonly worked = computed((): { readonly plan?: MovePlan; readonly faults: readonly Fault[] } => {
    if (this.asked().length) return { faults: this.asked() };
    try {
      return { plan: planWithSteps(this.file(), planWords(this.settings.shown())), faults: [] };
    } catch (error) {
      if (error instanceof FaultError) return { faults: error.faults };
      throw error;
    }
  });
  protected readonly faults = computed(() => this.worked().faults);
  protected readonly lines = computed(() => {
    const { plan } = this.worked();
    return plan ? answerLines(plan, this.settings.shown()) : [];
  });
  protected readonly steps = computed(() => (this.worked().plan?.['steps'] ?? []) as readonly Step[]);
  /** What is still asked, once something has been typed. */
  protected readonly lacking = computed(() =>
    Object.keys(this.value()).length === 0 ? [] : this.faults().map(({ message, path }) => `${this.labelOf(path)} ${message}.`),
  );
  /** Leaves in the drawers, where the move counts some out. */
  protected readonly drawers = computed(() => {
    const definition = this.definition();
    return definition && takesLeaves(definition) ? stockOf(this.kitHere()) : undefined;
  });

  constructor() {
    this.kit.load().subscribe({ error: (failure: ApiFailure) => this.kitProblem.set(failure.message) });
  }

  private kept(): MoveInput {
    const kept = this.drafts.read(DRAFT, draftSchema);
    return kept && MOVES.get(kept.kind)?.plan ? kept : { kind: 'shim-leaves', value: {}, rest: {} };
  }

  /** A field by its name on the screen; of what has none the key of the file. */
  private labelOf(path: string): string {
    const [key] = path.split(/[.[]/);
    const part = this.definition()?.input.shape[key] as z.ZodType | undefined;
    return (part && fieldInfo(part)?.label) ?? path;
  }

  private put(input: MoveInput): void {
    this.input.set(input);
    this.drafts.keep(DRAFT, input);
  }

  protected choose(kind: string): void {
    this.told.set('');
    this.problem.set('');
    this.put({ kind, value: {}, rest: {} });
  }

  protected change(value: FormValue): void {
    this.put({ ...this.input(), value });
  }

  /** The leaves that lie in the drawers are what there is. */
  protected useDrawers(): void {
    const stock = this.drawers();
    const input = this.input();
    const shown = this.definition()?.input.shape['stock'] as z.ZodType | undefined;
    if (!stock || !shown) return;
    this.put(
      fieldInfo(shown) === undefined ? { ...input, rest: { ...input.rest, stock } } : { ...input, value: { ...input.value, stock } },
    );
  }

  protected async open(file: globalThis.File): Promise<void> {
    this.problem.set('');
    this.told.set('');
    const read = openMove(parsedJson(await file.text()));
    if ('faults' in read) {
      return this.problem.set(notOpened(file.name, read.faults));
    }
    this.put(read.opened);
    this.told.set(`${file.name} is open.`);
  }

  protected save(): void {
    giveJson(`${this.kind()}-move.json`, this.file());
  }
}
