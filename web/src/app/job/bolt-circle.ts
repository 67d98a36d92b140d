import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { crossOrder, readNumber } from '@isometra/core';
import type { Made } from '@isometra/contract';
import { boltOrder } from '@isometra/work';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

type Bolts = NonNullable<Made['bolts']>;

/** The bolts of a head on their circle, numbered: clicked in the order in which they are tightened, with what the needle read after each. */
@Component({
  selector: 'iso-bolt-circle',
  imports: [Button, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="-70 -70 140 140" role="group" aria-label="Bolts of the head, as they are tightened">
      <circle class="joint" r="48" />
      @for (bolt of bolts(); track bolt.number) {
        <g
          role="button"
          tabindex="0"
          [attr.aria-label]="'Bolt ' + bolt.number + bolt.said"
          [attr.aria-pressed]="bolt.number === next()"
          [class.next]="bolt.number === next()"
          [class.done]="bolt.done"
          [attr.transform]="'translate(' + bolt.x + ' ' + bolt.y + ')'"
          (click)="next.set(bolt.number)"
          (keydown.enter)="next.set(bolt.number)"
          (keydown.space)="$event.preventDefault(); $event.stopPropagation(); next.set(bolt.number)"
        >
          <path d="M0 -17 14.7 -8.5V8.5L0 17 -14.7 8.5V-8.5Z" />
          <text y="5" text-anchor="middle">{{ bolt.number }}</text>
        </g>
      }
    </svg>
    <div>
      <p class="reads">
        <iso-field
          ownEnter
          [label]="'Bolt ' + next() + ' down, needle at'"
          [name]="'Bolt ' + next() + ' drawn down, the needle reads'"
          [size]="10"
          example="-1.5"
          [value]="typed()"
          (typed)="typed.set($event)"
          (entered)="add()"
        />
        <button pButton type="button" (click)="add()">Write it down</button>
      </p>
      <iso-notice [text]="problem()" />
      @if (read().length) {
        <p class="figures">{{ line() }}</p>
        <p>
          {{ told() }}
          <button pButton type="button" class="plain" (click)="takeBack()">undo the last one</button>
        </p>
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 22px;
      align-items: center;
    }
    svg {
      width: 150px;
      flex: none;
    }
    @media print {
      svg {
        width: 26mm;
      }
    }
    .joint {
      fill: none;
      stroke: var(--line);
      stroke-width: 22;
    }
    g {
      cursor: pointer;
    }
    path {
      fill: var(--panel);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .done path {
      fill: var(--iron);
    }
    .next path {
      fill: var(--yellow);
      stroke-width: 2.5;
    }
    text {
      font: 600 15px var(--figures);
    }
    .reads {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: center;
    }
  `,
})
export class BoltCircle {
  readonly count = input.required<number>();
  readonly read = input<Bolts>([]);
  /** What tightening has done in all, in words; empty where no dial tells. */
  readonly told = input('');
  readonly changed = output<Bolts>();

  protected readonly typed = signal('');
  protected readonly problem = signal('');
  private readonly order = computed(() => crossOrder(this.count()));
  /** The next one crosswise; another one may be clicked. */
  protected readonly next = linkedSignal(() => {
    const done = this.read().length;
    const own = boltOrder(this.read());
    // The second time round goes as the first did.
    const order = own.length === this.count() ? own : [...own, ...this.order().filter((bolt) => !own.includes(bolt))];
    return order[done % order.length];
  });
  protected readonly bolts = computed(() =>
    Array.from({ length: this.count() }, (_, i) => {
      const angle = (2 * Math.PI * i) / this.count();
      const reads = this.read()
        .filter(({ bolt }) => bolt === i + 1)
        .at(-1)?.reads;
      return {
        number: i + 1,
        x: Number((48 * Math.sin(angle)).toFixed(2)),
        y: Number((-48 * Math.cos(angle)).toFixed(2)),
        done: reads !== undefined,
        said: reads === undefined ? '' : `, read ${reads} div`,
      };
    }),
  );
  protected readonly line = computed(() =>
    this.read()
      .map(({ bolt, reads }) => `${bolt}: ${reads} div`)
      .join('   '),
  );

  protected add(): void {
    const parsed = readNumber(this.typed());
    if (!parsed || (parsed.unit !== '' && parsed.unit !== 'div') || Math.abs(parsed.value) > 9999) {
      this.problem.set(`The needle: "${this.typed()}" is not a number of divisions. Example: -1.5`);
      return;
    }
    this.problem.set('');
    this.changed.emit([...this.read(), { bolt: this.next(), reads: parsed.value }]);
    this.typed.set('');
  }

  protected takeBack(): void {
    this.changed.emit(this.read().slice(0, -1));
  }
}
