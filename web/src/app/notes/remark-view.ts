import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { MarkedPicture as Picture, Remark } from '@isometra/contract';
import { noteLines, ticked } from '@isometra/work';
import { Remarks } from '../data/remarks';
import { Button } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { Tick } from '../ui/tick';
import { MarkedPicture } from './marked-picture';

/** A note as it stands: its words, its things to do, its photographs. */
@Component({
  selector: 'iso-remark',
  imports: [Button, Dialog, MarkedPicture, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (line of lines(); track line.line) {
      @if (line.done === undefined) {
        @if (words()) {
          <p>{{ line.text }}</p>
        }
      } @else {
        <iso-tick [on]="line.done" (changed)="tick(line.line, $event)">{{ line.text }}</iso-tick>
      }
    }
    @if (remark().pictures.length) {
      <div class="pictures">
        @for (picture of remark().pictures; track $index) {
          <button pButton type="button" class="bare" aria-label="Look at this photograph" (click)="large.set(picture)">
            <iso-marked-picture [picture]="picture" />
          </button>
        }
      </div>
    }
    @if (large(); as picture) {
      <iso-dialog heading="Photograph" size="wide" (closed)="large.set(null)"><iso-marked-picture [picture]="picture" /></iso-dialog>
    }
  `,
  styles: `
    p {
      margin: 0;
      white-space: pre-wrap;
      overflow-wrap: anywhere;
    }
    .pictures {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin-top: 4px;
    }
    .bare {
      width: 132px;
      min-height: 0;
      padding: 0;
      border: 1px solid var(--line);
      background: none;
      overflow: hidden;
    }
    .bare iso-marked-picture {
      width: 100%;
    }
  `,
})
export class RemarkView {
  private readonly remarks = inject(Remarks);
  readonly remark = input.required<Remark>();
  /** Its words too; otherwise they stand elsewhere already. */
  readonly words = input(true);
  protected readonly lines = computed(() => noteLines(this.remark().text).filter(({ text, done }) => text !== '' || done !== undefined));
  protected readonly large = signal<Picture | null>(null);

  protected tick(line: number, done: boolean): void {
    const remark = this.remark();
    this.remarks.change(remark, { text: ticked(remark.text, line, done), pictures: remark.pictures });
  }
}
