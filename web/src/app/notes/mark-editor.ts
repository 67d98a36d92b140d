import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Mark, MarkedPicture as Picture, Spot } from '@isometra/contract';
import { Choices } from '../ui/choices';
import { Button, TextField } from '../ui/controls';
import { MarkedPicture } from './marked-picture';

type Tool = Mark['kind'];

/** Shorter than this part of the picture a stroke is a touch. */
const TOUCH = 0.015;
const MOST_POINTS = 400;

const apart = ([ax, ay]: Spot, [bx, by]: Spot): number => Math.hypot(bx - ax, by - ay);
const within = (part: number): number => Math.min(1, Math.max(0, part));

/** Lines, arrows, numbers and words over a photograph, by finger, pen or mouse. */
@Component({
  selector: 'iso-mark-editor',
  imports: [Button, Choices, MarkedPicture, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="tools">
      <iso-choices label="Draw" [options]="tools" [value]="tool()" (chosen)="tool.set($any($event))" />
      @if (tool() === 'words') {
        <input
          #box
          pInputText
          type="text"
          maxlength="80"
          aria-label="Words to put there"
          [placeholder]="'the number ' + nextNumber()"
          [value]="words()"
          (input)="words.set(box.value)"
        />
        <span class="soft">then touch the place</span>
      } @else {
        <span class="soft">{{ tool() === 'arrow' ? 'from where it begins to what it shows' : 'draw on the photograph' }}</span>
      }
    </div>
    <iso-marked-picture
      class="sheet"
      [picture]="shown()"
      (pointerdown)="begin($event)"
      (pointermove)="go($event)"
      (pointerup)="end($event)"
      (pointercancel)="stroke.set([])"
    />
    @if (picture().marks.length) {
      <ul aria-label="What is drawn on it">
        @for (mark of picture().marks; track $index) {
          <li>
            {{ named(mark) }}
            <button pButton type="button" class="plain" [attr.aria-label]="'Take ' + named(mark) + ' off'" (click)="takeOff($index)">
              take it off
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
    }
    .sheet {
      touch-action: none;
      cursor: crosshair;
      user-select: none;
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 18px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
  `,
})
export class MarkEditor {
  readonly picture = input.required<Picture>();
  readonly changed = output<Picture>();

  protected readonly tools = [
    { value: 'arrow', label: 'Arrow' },
    { value: 'line', label: 'Line' },
    { value: 'words', label: 'Number or words' },
  ];
  protected readonly tool = signal<Tool>('arrow');
  protected readonly words = signal('');
  /** Where the pointer went since it was pressed. */
  protected readonly stroke = signal<readonly Spot[]>([]);

  /** One more than the highest number that stands on it. */
  protected readonly nextNumber = computed(() => {
    const numbers = this.picture().marks.flatMap((mark) =>
      mark.kind === 'words' && /^\d{1,3}$/.test(mark.text) ? [Number(mark.text)] : [],
    );
    return Math.max(0, ...numbers) + 1;
  });

  /** With the stroke that is being drawn. */
  protected readonly shown = computed((): Picture => {
    const [drawing, { hash, marks }] = [this.drawing(), this.picture()];
    return { hash, marks: drawing ? [...marks, drawing] : marks };
  });

  private readonly drawing = computed((): Mark | undefined => {
    const points = this.stroke();
    if (this.tool() === 'words' || points.length < 2) return undefined;
    const [from, to] = [points[0], points[points.length - 1]];
    if (this.tool() === 'arrow') return apart(from, to) < TOUCH ? undefined : { kind: 'arrow', from, to };
    return { kind: 'line', points: thinned(points) };
  });

  protected begin(event: PointerEvent): void {
    if (event.button !== 0) return;
    const sheet = event.currentTarget as HTMLElement;
    sheet.setPointerCapture(event.pointerId);
    event.preventDefault();
    this.stroke.set([spotOf(event)]);
  }

  protected go(event: PointerEvent): void {
    if (this.stroke().length === 0) return;
    const spot = spotOf(event);
    this.stroke.update((points) => [...points, spot]);
  }

  protected end(event: PointerEvent): void {
    if (this.stroke().length === 0) return;
    const mark = this.tool() === 'words' ? this.wordsAt(spotOf(event)) : this.drawing();
    this.stroke.set([]);
    if (mark) this.tell([...this.picture().marks, mark]);
  }

  private wordsAt(at: Spot): Mark {
    const text = this.words().trim() || String(this.nextNumber());
    this.words.set('');
    return { kind: 'words', at, text };
  }

  protected takeOff(place: number): void {
    this.tell(this.picture().marks.filter((_, i) => i !== place));
  }

  protected named(mark: Mark): string {
    return mark.kind === 'words' ? `“${mark.text}”` : mark.kind === 'arrow' ? 'the arrow' : 'the line';
  }

  private tell(marks: Mark[]): void {
    this.changed.emit({ hash: this.picture().hash, marks });
  }
}

/** Where on the picture a pointer is. */
function spotOf({ currentTarget, clientX, clientY }: PointerEvent): Spot {
  const box = (currentTarget as HTMLElement).getBoundingClientRect();
  const part = (value: number): number => Math.round(within(value) * 10_000) / 10_000;
  return [part((clientX - box.left) / box.width), part((clientY - box.top) / box.height)];
}

/** As many points as are kept, evenly taken, the last one among them. */
function thinned(points: readonly Spot[]): Spot[] {
  if (points.length <= MOST_POINTS) return [...points];
  return Array.from({ length: MOST_POINTS }, (_, i) => points[Math.round((i * (points.length - 1)) / (MOST_POINTS - 1))]);
}
