import { dequal } from 'dequal';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
  type WritableSignal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type * as z from 'zod';
import { instrumentSchemaFor, type Fault } from '@isometra/core';
import {
  KIT_NAMES,
  KIT_SCHEMAS,
  careSchema,
  kitItemSchema,
  kitStateSchema,
  type Care,
  type KitItem,
  type StateThen,
} from '@isometra/contract';
import { daysUntilDue, kitFaults } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Kit } from '../data/kit';
import { Settings } from '../data/settings';
import { asInFile, askedFaults, formFaults, settled, withField, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { KitDrawing } from './kit-drawing';
import { HolderCheck } from './holder-check';
import { today } from '../data/when';
import { dueWords, shortOf } from './kit-texts';
import { smallPhoto } from '../ui/small-photo';
import { ShimTable, type ShimRow } from './shim-table';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Escape } from '../ui/escape';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { Archive } from '../shell/archive';
import { Notice } from '../ui/notice';
import { File } from '../ui/file';

const careForm = careSchema.omit({ notes: true });

/** What the form asks of the care of a piece: all but the notes, which only grow. */
const datesOf = ({ notes: _notes, ...dates }: Care): FormValue => dates;

/** One piece of kit: shown short, opened to be changed. */
@Component({
  selector: 'iso-kit-card',
  imports: [Escape, Archive, AsItStood, Earlier, KitDrawing, SchemaForm, ShimTable, HolderCheck, Button, Field, Notice, File],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': 'open()' },
  templateUrl: './kit-card.html',
  styles: `
    :host {
      display: block;
      padding: 7px 14px;
      border: 1px solid var(--line);
      background: var(--panel);
    }
    :host(.open) {
      grid-column: 1 / -1;
    }
    .short {
      display: grid;
      grid-template-columns: 64px 1fr max-content;
      gap: 14px;
      align-items: center;
    }
    .what {
      display: grid;
      gap: 2px;
      min-width: 0;
    }
    .short b {
      font: 600 1.125rem/1.2 var(--narrow);
    }
    .short .figures {
      font-size: 0.9375rem;
      color: var(--soft);
    }
    form {
      display: grid;
      gap: 14px;
    }
    .name {
      display: grid;
      gap: 4px;
      max-width: 380px;
    }
    .due {
      font-weight: 600;
    }
    .due.over {
      color: var(--red);
    }
    fieldset {
      display: grid;
      gap: 12px;
      margin: 0;
      padding: 12px 16px;
      border: 1px solid var(--line);
    }
    legend {
      font: 600 0.9375rem/1.2 var(--narrow);
    }
    ul {
      margin: 0;
      padding-left: 18px;
      font-size: 0.9375rem;
    }
    ul:empty {
      display: none;
    }
    .photos {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: center;
    }
    img {
      display: block;
      border: 1px solid var(--edge);
    }
    .acts {
      display: flex;
      gap: 10px;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class KitCard {
  readonly item = input.required<KitItem>();
  readonly done = output<void>();
  private readonly kit = inject(Kit);
  private readonly settings = inject(Settings);
  private readonly waitingPhotos = toSignal(this.kit.waitingPhotos$, { initialValue: [] as readonly string[] });

  /** What is typed is about one version of the piece: a photograph that is added leaves it as it is. */
  private readonly about = computed(() => `${this.item().id}/${this.item().version}`);
  protected readonly open = this.typed((item) => item.version === 0);
  protected readonly name = this.typed((item) => item.name);
  protected readonly data = this.typed((item): FormValue => this.asTyped(item.data));
  protected readonly care = this.typed(({ care }) => datesOf(care));
  protected readonly note = signal('');
  protected readonly names = KIT_NAMES;
  protected readonly careSchema = careForm;
  protected readonly schema = computed(() => this.schemaOf(this.data()));
  protected readonly careFaults = computed(() => formFaults(careForm, this.care(), this.settings.system()));
  protected readonly notes = computed(() => [...(this.item().care.notes ?? [])].reverse());
  protected readonly due = computed(() => dueWords(this.item(), today()));
  protected readonly overdue = computed(() => (daysUntilDue(this.item().care, today()) ?? 0) < 0);
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  private readonly newer = signal<KitItem | null>(null);

  /** What is stored: with its units written out. */
  private readonly full = computed(() =>
    this.item().kind === 'shim-stock' ? this.data() : settled(this.schema(), this.data(), this.settings.system()),
  );
  protected readonly faults = computed((): Fault[] => {
    const asked = askedFaults(this.schema(), this.full(), this.settings.system());
    const told = kitFaults({ kind: this.item().kind, data: this.full() }).map((fault) => ({
      ...fault,
      path: fault.path.replace(/^data\.?/, ''),
    }));
    return [...asked, ...told.filter(({ path }) => !asked.some((entry) => entry.path === path))];
  });
  protected readonly stock = computed(() => (this.data()['stock'] ?? []) as readonly ShimRow[]);
  protected readonly short = computed(() => shortOf(this.item()));

  private schemaOf(data: FormValue): z.ZodObject {
    const { kind } = this.item();
    return kind === 'instrument' ? instrumentSchemaFor(data['kind']) : KIT_SCHEMAS[kind];
  }

  /** What is stored, as the form holds it. */
  private asTyped(data: FormValue): FormValue {
    return asInFile(this.schemaOf(data), data);
  }

  /** A part of the piece as it is being changed; it begins anew with another piece or another version. */
  private typed<T>(part: (item: KitItem) => T): WritableSignal<T> {
    return linkedSignal({ source: this.about, computation: () => untracked(() => part(this.item())) });
  }

  protected setStock(stock: readonly ShimRow[]): void {
    this.data.update((data) => withField({ ...data, stock }, 'stock', stock));
    if (stock.length === 0) this.data.set({ stock: [] });
  }

  /** The droop that was just measured, with a note of when. */
  protected keepSag(sag: string): void {
    this.data.update((data) => ({ ...data, sag }));
    this.note.set(`Droop measured: ${sag}`);
  }

  /** Photographs that are still on their way to the server. */
  protected readonly waiting = computed(() => this.waitingPhotos().filter((id) => id === this.item().id).length);

  protected async addPhoto(file: Blob): Promise<void> {
    try {
      this.kit.addPhoto(this.item().id, await smallPhoto(file));
      this.problem.set('');
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  protected removePhoto(photo: string): void {
    this.kit.removePhoto(this.item().id, photo).subscribe({
      next: () => this.problem.set(''),
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected archive(away: boolean): void {
    this.kit.archive(this.item(), away).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  private fullCare(): Care {
    const text = this.note().trim();
    const known = this.item().care.notes ?? [];
    const notes = text ? [...known, { at: today(), by: this.settings.by(), text }] : known;
    return { ...(this.care() as Care), ...(notes.length && { notes }) };
  }

  /** What was typed and is not kept yet. */
  private readonly changed = computed(() => {
    const { name, data, care } = this.item();
    return !dequal([this.name(), this.data(), this.care(), this.note()], [name, data, datesOf(care), '']);
  });
  /** It was asked once, and nothing was typed since. */
  private readonly warned = linkedSignal({ source: () => [this.name(), this.data(), this.care(), this.note()], computation: () => false });

  /** Escape: what was typed is lost by it only when it is pressed again. */
  protected leave(): void {
    if (!this.changed() || this.warned()) return this.cancel();
    this.warned.set(true);
    this.problem.set('Your changes are not saved yet. Press Escape again to discard them.');
  }

  /** An earlier state that is looked at: the form shows it. */
  protected readonly then = signal<StateThen | null>(null);
  protected lookAt(then: StateThen): void {
    const { name, data, care } = kitStateSchema.parse(then.state);
    this.then.set(then);
    this.name.set(name);
    this.data.set(this.asTyped(data));
    this.care.set(datesOf(care));
  }

  protected cancel(): void {
    const looking = this.then() !== null;
    this.then.set(null);
    const { name, data, care } = this.item();
    this.note.set('');
    this.name.set(name);
    this.data.set(this.asTyped(data));
    this.care.set(datesOf(care));
    this.warned.set(false);
    this.problem.set('');
    // Whoever only looked at how it stood goes on with the card as it stands.
    if (looking) return;
    this.open.set(false);
    this.done.emit();
  }

  protected save(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    if (this.faults().length || this.careFaults().length || !this.name().trim()) {
      this.problem.set(this.name().trim() ? '' : `Name is missing. Example: ${KIT_NAMES[this.item().kind].example}`);
      return;
    }
    const version = this.newer()?.version ?? this.item().version;
    this.kit.save({ ...this.item(), name: this.name().trim(), data: this.full(), care: this.fullCare(), version }).subscribe({
      next: () => {
        this.then.set(null);
        this.open.set(false);
        this.note.set('');
        this.problem.set('');
        this.done.emit();
      },
      error: (failure: ApiFailure) => {
        this.newer.set(kitItemSchema.safeParse(failure.current).data ?? null);
        this.problem.set(
          failure.current
            ? 'Somebody else has changed it meanwhile. What you typed is still here. Save again to overwrite their version.'
            : failure.message,
        );
      },
    });
  }
}
