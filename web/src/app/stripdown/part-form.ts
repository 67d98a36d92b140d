import { dequal } from 'dequal';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  untracked,
  viewChild,
} from '@angular/core';
import * as z from 'zod';
import {
  markedPictureSchema,
  PART_NUMBERS,
  partFieldsFor,
  partStateSchema,
  readPart,
  type MarkedPicture,
  type Part,
  type PartKind,
  type StateThen,
  type StoredStripDown,
} from '@isometra/contract';
import { freeNumber, inOrder, partCautions, placeBetween } from '@isometra/work';
import { Drafts } from '../data/drafts';
import { useKeys } from '../data/keys';
import { Settings } from '../data/settings';
import { StripDowns } from '../data/strip-downs';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { Photos } from '../notes/photos';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { File as FileButton } from '../ui/file';
import { FirstField } from '../ui/first-field';
import { asInFile, formFaults, formSchema, settled, type FormValue } from '../ui/form-model';
import { Notice } from '../ui/notice';
import { SchemaForm } from '../ui/schema-form';

const draftSchema = z.object({
  number: z.string(),
  details: formSchema,
  pictures: z.array(markedPictureSchema),
  /** Of the part that was changed: what somebody else changed since is not overwritten unasked. */
  version: z.number(),
});
type Draft = z.infer<typeof draftSchema>;

/** What was told of a part, as its form holds it. */
const detailsOf = ({ details }: Pick<Part, 'details'>): FormValue =>
  asInFile(partFieldsFor(details['kind'] as PartKind | undefined), details);

/** One part: written down as it comes off, or changed. What is not saved stays as a draft. */
@Component({
  selector: 'iso-part-form',
  imports: [AsItStood, Button, Earlier, Field, FileButton, FirstField, Notice, Photos, SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-form.html',
  styleUrl: './part-form.css',
})
export class PartForm {
  private readonly store = inject(StripDowns);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly stripDown = input.required<StoredStripDown>();
  /** The part that is changed; null for the next one that comes off. */
  readonly part = input.required<Part | null>();
  readonly saved = output();

  private readonly camera = viewChild.required(FileButton);
  private readonly photos = viewChild.required(Photos);
  private readonly form = viewChild.required(SchemaForm);

  protected readonly parts = computed(() => inOrder(this.stripDown().parts));
  /** The number after the highest one. */
  protected readonly free = computed(() => freeNumber(this.parts()));
  private readonly draftName = computed(() => `part ${this.stripDown().id} ${this.part()?.id ?? 'new'}`);
  /** What is typed is about one part: a change that comes from elsewhere does not take it away. */
  private readonly about = computed(() => `${this.stripDown().id} ${this.part()?.id ?? ''}`);
  private readonly typed = linkedSignal<string, Draft>({
    source: () => `${this.about()} ${this.part()?.version ?? ''}`,
    computation: () => untracked(() => this.drafts.read(this.draftName(), draftSchema) ?? this.asItIs()),
  });
  protected readonly draft = this.typed.asReadonly();
  protected readonly tried = linkedSignal({ source: this.about, computation: () => false });
  protected readonly problem = linkedSignal({ source: this.about, computation: () => '' });
  /** An earlier state that is looked at. */
  protected readonly then = linkedSignal<string, StateThen | null>({ source: this.about, computation: () => null });

  protected readonly schema = computed(() => partFieldsFor(this.draft().details['kind'] as PartKind | undefined));
  private readonly full = computed(() => settled(this.schema(), this.draft().details, this.settings.system()));
  protected readonly faults = computed(() => formFaults(this.schema(), this.full(), this.settings.system()));
  /** What to look out for while it comes off. */
  protected readonly cautions = computed(() => {
    const details = readPart({ details: this.full() });
    return details ? partCautions(details, 'off') : [];
  });
  protected readonly changed = computed(() => !dequal({ ...this.draft(), version: 0 }, { ...this.asItIs(), version: 0 }));

  constructor() {
    useKeys([
      { shown: 'Alt ↑ ↓', does: 'change the order', keys: [], run: () => false },
      { shown: 'O', does: 'photograph this part', keys: ['o'], run: () => this.camera().open() },
    ]);
  }

  private asItIs(): Draft {
    const part = this.part();
    return part
      ? { number: String(part.number), details: detailsOf(part), pictures: part.pictures, version: part.version }
      : { number: '', details: {}, pictures: [], version: 0 };
  }

  private set(change: Partial<Draft>): void {
    this.typed.update((draft) => ({ ...draft, ...change }));
    this.problem.set('');
    if (this.changed()) this.drafts.keep(this.draftName(), this.draft());
    else this.drafts.drop(this.draftName());
  }

  /** As typed; of a new part the next free one, as long as nobody typed another. */
  protected readonly numberText = computed(() => (this.part() ? this.draft().number : this.draft().number || String(this.free())));
  protected readonly setNumber = (number: string): void => this.set({ number });
  protected setDetails(details: FormValue): void {
    // Only a gib has a thick end.
    const { thickEnd, ...others } = details;
    this.set({ details: details['kind'] === 'gib' && thickEnd !== undefined ? details : others });
  }
  protected setPictures(pictures: readonly MarkedPicture[]): void {
    this.set({ pictures: [...pictures] });
  }
  protected async photograph(file: Blob): Promise<void> {
    this.problem.set(await this.photos().add(file));
  }

  protected lookAt(then: StateThen): void {
    const state = partStateSchema.safeParse(then.state).data;
    if (!state) return this.problem.set('That state cannot be shown.');
    this.then.set(then);
    this.set({ details: detailsOf(state), pictures: state.pictures });
  }

  protected discard(): void {
    this.drafts.drop(this.draftName());
    this.then.set(null);
    this.tried.set(false);
    this.problem.set('');
    this.form().forget();
    this.typed.set(this.asItIs());
  }

  /** The number that is typed; undefined where it is none or on another part already. */
  private numberFault(number: number): string {
    const { min, max } = PART_NUMBERS;
    if (!Number.isInteger(number) || number < min || number > max)
      return `Number must be a whole number from ${min} to ${max}. Example: ${this.free()}`;
    const other = this.parts().find((part) => part.number === number && part.id !== this.part()?.id);
    return other ? `Number ${number} is on ${String(other.details['name'])} already. Free: ${this.free()}` : '';
  }

  protected save(event?: Event): void {
    event?.preventDefault();
    const number = Number(this.numberText().trim());
    const fault = this.numberFault(number);
    this.tried.set(true);
    this.problem.set(fault);
    if (fault || this.faults().length) return;
    this.write({ number, details: { ...this.full() }, pictures: this.draft().pictures });
    this.discard();
    this.saved.emit();
    // The hand goes on with the next part.
    if (!this.part()) this.host.nativeElement.querySelector<HTMLInputElement>('input[id$="name"]')?.focus();
  }

  private write(content: Pick<Part, 'number' | 'details' | 'pictures'>): void {
    const { id: stripDownId, machineId } = this.stripDown();
    const part = this.part();
    if (part) return this.store.change(machineId, { ...part, version: this.draft().version }, content);
    this.store.add(machineId, { stripDownId, place: placeBetween(this.parts().at(-1)?.place, undefined), ...content });
  }

  protected remove(): void {
    const part = this.part();
    if (!part) return;
    this.store.change(this.stripDown().machineId, part, { removed: true }, `Part ${part.number} removed`);
    this.saved.emit();
  }
}
