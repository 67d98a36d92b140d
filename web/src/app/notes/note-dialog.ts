import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  type OnInit,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { map, switchMap } from 'rxjs';
import * as z from 'zod';
import {
  isTakenBack,
  markedPictureSchema,
  MOST_NOTE,
  MOST_PICTURES,
  remarkSchema,
  type MarkedPicture as Picture,
  type Remark,
  type RemarkPlace,
} from '@isometra/contract';
import { Drafts } from '../data/drafts';
import { Keys } from '../data/keys';
import { Outbox } from '../data/outbox';
import type { Refused } from '../data/outbox-store';
import { Remarks } from '../data/remarks';
import { timeWords } from '../data/when';
import { Button, TextArea } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { File as FileButton } from '../ui/file';
import { Notice } from '../ui/notice';
import { Photos } from './photos';
import { RemarkView } from './remark-view';

/** Where a note is written: the screen, and what of it was open. */
export interface Where {
  readonly machineId: string | null;
  readonly part: string | null;
  readonly place: RemarkPlace;
}

const draftSchema = z.object({ text: z.string(), pictures: z.array(markedPictureSchema) });
const BOX = '[ ] ';

/** Write a note where one is: words, things to do, photographs with what is drawn on them. What is not saved stays as a draft. */
@Component({
  selector: 'iso-note-dialog',
  imports: [Button, Dialog, FileButton, Notice, Photos, RemarkView, TextArea],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './note-dialog.html',
  styleUrl: './note-dialog.css',
})
export class NoteDialog implements OnInit {
  private readonly remarks = inject(Remarks);
  private readonly drafts = inject(Drafts);
  private readonly outbox = inject(Outbox);
  readonly where = input.required<Where>();
  /** A photograph is asked for at once. */
  readonly photograph = input(false);
  readonly closed = output<void>();

  private readonly field = viewChild.required<ElementRef<HTMLTextAreaElement>>('field');
  private readonly camera = viewChild.required(FileButton);
  private readonly photos = viewChild.required(Photos);
  protected readonly most = MOST_NOTE;
  protected readonly time = timeWords;
  protected readonly text = signal('');
  protected readonly taken = signal<readonly Picture[]>([]);
  protected readonly problem = signal('');
  /** The note that is changed; null for a new one. */
  protected readonly changing = signal<Remark | null>(null);
  protected readonly empty = computed(() => isTakenBack({ text: this.text().trim(), pictures: this.taken() }));
  /** Notes that the server did not take, whatever the screen: none is lost, and each is given up only when that is said. */
  protected readonly refused = toSignal(
    inject(Outbox).refused$.pipe(
      map((all) =>
        all.flatMap((entry) => {
          const remark = entry.what === 'remark' ? remarkSchema.safeParse(entry.body).data : undefined;
          return remark ? [{ entry, remark, why: entry.faults.map(({ message }) => message).join('; ') }] : [];
        }),
      ),
    ),
    { initialValue: [] },
  );
  protected readonly before = toSignal(toObservable(this.where).pipe(switchMap(({ place }) => this.remarks.on(place.path))), {
    initialValue: [],
  });

  constructor() {
    const keys = inject(Keys);
    afterNextRender(() => {
      this.field().nativeElement.focus();
      const early = keys.fieldIsHere();
      if (early) this.type(this.text() + early);
      if (this.photograph()) this.camera().open();
    });
  }

  ngOnInit(): void {
    const draft = this.drafts.read(this.draftName(), draftSchema);
    this.text.set(draft?.text ?? '');
    this.taken.set(draft?.pictures ?? []);
    // Without the server, what was written here before is not shown; a note can be written all the same.
    this.remarks.load(this.where().place.path).subscribe({ error: () => undefined });
  }

  private draftName(): string {
    return `note ${this.where().place.path}`;
  }

  private keep(): void {
    if (this.empty()) this.drafts.drop(this.draftName());
    else if (!this.changing()) this.drafts.keep(this.draftName(), { text: this.text(), pictures: this.taken() });
  }

  protected type(text: string): void {
    this.text.set(text);
    this.problem.set('');
    this.keep();
  }

  /** The line on which the hand is becomes a thing to do. */
  protected box(): void {
    const field = this.field().nativeElement;
    const at = field.value.lastIndexOf('\n', field.selectionStart - 1) + 1;
    field.setRangeText(BOX, at, at, field.selectionStart === at ? 'end' : 'preserve');
    field.focus();
    this.type(field.value);
  }

  protected async add(file: Blob): Promise<void> {
    this.problem.set(await this.photos().add(file));
  }

  protected show(pictures: readonly Picture[]): void {
    this.taken.set(pictures);
    this.problem.set('');
    this.keep();
  }

  protected save(): void {
    if (this.empty() && !this.changing()) return this.problem.set('Write something, or add a photograph.');
    const content = { text: this.text().trim(), pictures: [...this.taken()] };
    const before = this.changing();
    if (before) this.remarks.change(before, content);
    else {
      this.remarks.write({ ...this.where(), ...content });
      this.drafts.drop(this.draftName());
    }
    this.closed.emit();
  }

  /** An earlier note comes into the field; what was typed there stays as a draft. */
  protected change(remark: Remark): void {
    this.changing.set(remark);
    this.text.set(remark.text);
    this.taken.set(remark.pictures);
    this.field().nativeElement.focus();
  }

  /** What was not taken comes into the field, below what stands there already. */
  protected again({ entry, remark }: { readonly entry: Refused; readonly remark: Remark }): void {
    this.text.update((text) => [text.trimEnd(), remark.text].filter(Boolean).join('\n'));
    const known = new Set(this.taken().map(({ hash }) => hash));
    this.show([...this.taken(), ...remark.pictures.filter(({ hash }) => !known.has(hash))].slice(0, MOST_PICTURES));
    this.giveUp(entry);
    this.field().nativeElement.focus();
  }

  protected giveUp(entry: Refused): void {
    void this.outbox.drop(entry);
  }

  protected takeBack(remark: Remark): void {
    this.remarks.change(remark, { text: '', pictures: [] });
  }
}
