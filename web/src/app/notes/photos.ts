import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, output, signal } from '@angular/core';
import { MOST_PICTURES, type MarkedPicture as Picture } from '@isometra/contract';
import { Pictures } from '../data/pictures';
import { Button } from '../ui/controls';
import { smallPhoto } from '../ui/small-photo';
import { MarkEditor } from './mark-editor';
import { MarkedPicture } from './marked-picture';

/** Photographs of something, each with what is drawn on it. They can be drawn on and taken off; the owner keeps them. */
@Component({
  selector: 'iso-photos',
  imports: [Button, MarkedPicture, MarkEditor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (pictures().length) {
      <div class="pictures">
        @for (picture of pictures(); track picture.hash) {
          <figure>
            <iso-marked-picture [picture]="picture" />
            <figcaption>
              <button pButton type="button" class="plain" (click)="drawing.set(drawing() === $index ? null : $index)">
                {{ drawing() === $index ? 'done drawing' : 'draw on it' }}
              </button>
              <button pButton type="button" class="plain" (click)="takeOff($index)">take it off</button>
            </figcaption>
          </figure>
        }
      </div>
      @if (drawing() !== null && pictures()[drawing()!]; as picture) {
        <iso-mark-editor [picture]="picture" (changed)="drawnOn(drawing()!, $event)" />
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    :host:empty {
      display: none;
    }
    .pictures {
      display: flex;
      flex-wrap: wrap;
      gap: 12px;
    }
    figure {
      width: 170px;
      margin: 0;
    }
    figcaption {
      display: flex;
      justify-content: space-between;
    }
    iso-mark-editor {
      max-width: 640px;
    }
  `,
})
export class Photos {
  private readonly store = inject(Pictures);
  readonly pictures = input.required<readonly Picture[]>();
  readonly changed = output<readonly Picture[]>();
  /** With what was added since: several may come before the owner has handed the first one back. */
  private readonly latest = linkedSignal(() => this.pictures());
  /** The photograph that is drawn on. */
  protected readonly drawing = signal<number | null>(null);

  /** Add a photograph, no larger than it need be: a phone’s own pictures would fill the shop. @returns why not; '' where it was added. */
  async add(file: Blob): Promise<string> {
    if (this.latest().length >= MOST_PICTURES) return `At most ${MOST_PICTURES} photographs are kept here. Take one off first.`;
    try {
      const hash = await this.store.keep(await smallPhoto(file));
      if (!this.latest().some((picture) => picture.hash === hash)) this.tell([...this.latest(), { hash, marks: [] }]);
      return '';
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  }

  protected drawnOn(place: number, picture: Picture): void {
    this.tell(this.latest().map((entry, i) => (i === place ? picture : entry)));
  }

  protected takeOff(place: number): void {
    this.drawing.set(null);
    this.tell(this.latest().filter((_, i) => i !== place));
  }

  private tell(pictures: readonly Picture[]): void {
    this.latest.set(pictures);
    this.changed.emit(pictures);
  }
}
