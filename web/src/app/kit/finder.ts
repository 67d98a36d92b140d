import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import {
  CHECKS,
  finenessFor,
  limitable,
  parseQuantity,
  prettyUnit,
  readInstrument,
  shownIn,
  showSize,
  startingZone,
  zoneWidth,
} from '@isometra/core';
import type { KitItem } from '@isometra/contract';
import { suitable } from '../bench/begin-draft';
import { Settings } from '../data/settings';
import { asTyped } from '../limits/limit-draft';
import { AtHand } from '../shell/at-hand';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { withUnit } from '../ui/form-model';
import { Pick } from '../ui/pick';

const CHOICES = [...CHECKS.values()].flatMap((check) =>
  limitable(check).map(([quantity, info]) => ({
    value: { check, quantity, info },
    label: check.title === info.label ? info.label : `${check.title}: ${info.label}`,
  })),
);

type Sought = (typeof CHOICES)[number]['value'];

/** Which instrument of the kit is fine enough for a limit. */
@Component({
  selector: 'iso-finder',
  imports: [Field, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Fine enough for what?</h2>
    <div class="asks">
      <label
        ><span class="label">Quantity</span> <iso-pick label="Quantity" [options]="choices" [value]="chosen()" (chosen)="choose($event)"
      /></label>
      <iso-field above label="Zone, from end to end" [value]="width()" [wrong]="!!fault()" (changed)="width.set(full($event))" />
      @if (slope()) {
        <iso-field above label="Read over a length of" [value]="base()" [wrong]="!!baseFault()" (changed)="base.set(withLength($event))" />
      }
    </div>
    @if (fault() || baseFault(); as message) {
      <iso-notice [text]="message" />
    } @else {
      <ul>
        @for (row of rows(); track row.name) {
          <li [class.enough]="row.enough">
            <b>{{ row.name }}</b>
            <span class="bar" aria-hidden="true"><i [style.width.%]="row.percent"></i><em></em></span>
            <span class="figures">± {{ row.doubt }}</span>
            <span>{{ row.words }}</span>
          </li>
        } @empty {
          <li class="soft">Nothing in the kit reads this.</li>
        }
      </ul>
      <p class="soft">The doubt of one difference of two readings. It should take no more than a quarter of the zone (the mark).</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      padding: 14px 16px;
      border: 1px solid var(--line);
      background: var(--panel);
    }
    .asks {
      display: flex;
      flex-wrap: wrap;
      gap: 14px;
    }
    label {
      display: grid;
      gap: 4px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 15em 180px 9em 1fr;
      gap: 14px;
      align-items: center;
      padding: 5px 0;
      color: var(--soft);
    }
    @media (width < 700px) {
      li {
        grid-template-columns: minmax(0, 1fr) 5.5em;
      }
      .bar {
        order: 1;
        grid-column: 1 / -1;
      }
    }
    li.enough {
      color: var(--ink);
    }
    .bar {
      position: relative;
      height: 12px;
      border: 1px solid var(--edge);
      background: var(--paper);
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--blue);
    }
    .bar em {
      position: absolute;
      top: -4px;
      bottom: -4px;
      left: 25%;
      width: 2px;
      background: var(--ink);
    }
    .figures {
      font-size: 0.9375rem;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class Finder {
  readonly kit = input.required<readonly KitItem[]>();
  private readonly settings = inject(Settings);
  protected readonly choices = CHOICES;
  private readonly hand = inject(AtHand);
  /** What is asked first: the check that came next on the machine that was open last, else whether the tailstock is in line. */
  private readonly usual = computed((): Sought => {
    const of = (id: string | null) => CHOICES.find(({ value }) => value.check.id === id)?.value;
    return of(this.hand.nextCheck()) ?? of('tailstock-traverse') ?? CHOICES[0].value;
  });
  protected readonly chosen = linkedSignal(() => this.usual());
  protected readonly width = linkedSignal(() => this.starting(this.chosen()));
  protected readonly base = signal(this.settings.system() === 'mm' ? '300 mm' : '12 in');
  protected readonly slope = computed(
    () => ['slope', 'twist'].includes(this.chosen().info.dimension) && this.chosen().check.reads !== 'level',
  );

  private readonly parsedWidth = computed(() => parseQuantity(this.width(), this.chosen().info.dimension, this.chosen().info.unit));
  private readonly parsedBase = computed(() => parseQuantity(this.base(), 'length'));
  protected readonly fault = computed(() => {
    const parsed = this.parsedWidth();
    if (!parsed.ok) return `Zone ${parsed.message}. Example: ${parsed.example}`;
    return parsed.value > 0 ? '' : `Zone must be more than 0. Example: ${this.settings.system() === 'mm' ? '0.03 mm' : '1 thou'}`;
  });
  protected readonly baseFault = computed(() => {
    const parsed = this.parsedBase();
    if (!this.slope()) return '';
    const example = this.settings.system() === 'mm' ? '300 mm' : '12 in';
    if (!parsed.ok) return `Length ${parsed.message}. Example: ${example}`;
    return parsed.value > 0 ? '' : `Length must be more than 0. Example: ${example}`;
  });

  protected readonly rows = computed(() => {
    const { check, info } = this.chosen();
    const [width, base] = [this.parsedWidth(), this.parsedBase()];
    if (!width.ok || !base.ok) return [];
    return this.kit()
      .filter((item) => suitable(item, check.reads))
      .flatMap((item) => {
        const { instrument } = readInstrument(item.data);
        if (!instrument) return [];
        const { expanded, share, fineEnough, repeats } = finenessFor(instrument, info.dimension, width.value, base.value);
        return [
          {
            name: item.name,
            share,
            percent: Math.min(100, 100 * share),
            doubt: showSize(expanded, info.dimension, this.settings.system(), 'fine', expanded),
            enough: fineEnough,
            words: fineEnough ? 'fine enough' : repeats ? `with each place read ${repeats} times` : 'too coarse',
          },
        ];
      })
      .sort((a, b) => a.share - b.share);
  });

  /** The catalogue's zone as a person would type it. */
  private starting({ check, quantity, info }: Sought): string {
    const zone = startingZone(check, quantity, {}, []);
    return asTyped(zone ? zoneWidth(zone) : 0, info.dimension, this.settings.system());
  }

  protected choose(entry: Sought): void {
    this.chosen.set(entry);
  }

  protected readonly withLength = (text: string): string => withUnit(text, { dimension: 'length' }, this.settings.system());

  protected full(text: string): string {
    const bare = text.trim();
    const { unit } = shownIn(this.chosen().info.dimension, this.settings.system(), 'coarse');
    return /^[\d.,/ ]+$/.test(bare) ? `${bare} ${prettyUnit(unit)}` : bare;
  }
}
