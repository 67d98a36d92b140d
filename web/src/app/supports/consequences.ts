import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { afterHead, insideZone, parseQuantity, planLeavesWords, planMove } from '@isometra/core';
import { factSource, waitWords } from '@isometra/work';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { Glyph } from '../ui/glyph';
import { bothUnits, isZero } from '../ui/say';
import type { SupportPlan } from './seat-words';

/** Height given up at the spindle that is worth a look at its gears, µm. */
const GEARS = 50;

/** What a plan for the headstock does to everything else, and the tailstock plan that follows from it. */
@Component({
  selector: 'iso-consequences',
  imports: [RouterLink, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (line of warnings(); track $index) {
      <p class="warning">{{ line }}</p>
    }
    <ul>
      @for (line of lines(); track $index) {
        <li>{{ line }}</li>
      }
    </ul>
    @if (tail(); as follows) {
      <section>
        <h3><iso-glyph [state]="follows.state" [way]="follows.way" /> The tailstock plan that follows</h3>
        <p>{{ follows.text }}</p>
        @if (follows.round; as round) {
          <a class="act" [routerLink]="['/machines', round.machineId, 'bench', round.check]">Read the tailstock afterwards</a>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
    section {
      display: grid;
      gap: 8px;
      justify-items: start;
      padding-top: 10px;
      border-top: 1px solid var(--line);
    }
    h3 {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .warning {
      padding-left: 10px;
      border-left: 5px solid var(--red);
      font-weight: 600;
    }
  `,
})
export class Consequences {
  readonly plan = input.required<SupportPlan>();
  private readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);

  private readonly shown = this.settings.shown;
  private size(value: number, dimension: 'deviation' | 'slope' = 'deviation'): string {
    return bothUnits(value, dimension, this.shown(), 1).large;
  }

  /** The rung that makes something known, and its latest word on it. */
  private found(fact: string) {
    const source = factSource(fact);
    const rung = this.store.rungs().find(({ check }) => check.id === source?.check.id);
    return { rung, quantity: source && rung?.round?.finding?.quantities[source.quantity] };
  }

  private readonly after = computed(() => {
    const nose = this.plan().watch?.['nose'];
    const pose = this.plan().pose;
    if (!nose || !pose || nose['v'] === undefined) return undefined;
    return afterHead(
      {
        slopeH: this.found('axisSlopeH').quantity?.value,
        slopeV: this.found('axisSlopeV').quantity?.value,
        tailH: this.found('tailH').quantity?.value,
        tailV: this.found('tailV').quantity?.value,
        saddle: this.found('saddle').quantity?.value,
      },
      { slopeH: pose['slopeH'] ?? 0, slopeV: pose['slopeV'] ?? 0 },
      { v: nose['v'], h: nose['h'] ?? 0 },
    );
  });

  protected readonly lines = computed(() => {
    const { v = 0, h = 0 } = this.plan().watch?.['nose'] ?? {};
    const { tailV, tailH, facing, slopeH, slopeV = 0 } = this.after() ?? {};
    const nothing = (value: number): boolean => isZero(this.size(value));
    const told = (value: number, plus: string, minus: string, none: string, dimension: 'deviation' | 'slope' = 'deviation') => {
      const text = this.size(value, dimension);
      return isZero(text) ? none : `${text} ${value > 0 ? plus : minus}`;
    };
    const pointing = (h: number) =>
      `${told(h, 'toward you', 'away from you', 'straight ahead', 'slope')}, ${told(slopeV, 'up', 'down', 'level', 'slope')}`;
    return [
      ...(nothing(v) ? [] : [`The spindle centre ${v < 0 ? 'comes down' : 'comes up'} ${this.size(v)}.`]),
      ...(nothing(h) ? [] : [`The nose moves ${this.size(h)} ${h > 0 ? 'toward' : 'away from'} you.`]),
      ...(tailV === undefined ? [] : [`The tailstock is then ${told(tailV, 'high', 'low', 'level with it')}.`]),
      ...(tailH === undefined ? [] : [`Sideways it is then ${told(tailH, 'toward you', 'away from you', 'in line')}.`]),
      ...(facing === undefined
        ? []
        : [`Faces then come out ${told(facing, 'hollow', 'crowned', 'flat', 'slope')}: the axis less the saddle.`]),
      ...(slopeH === undefined ? [] : [`The axis then points ${pointing(slopeH)}.`]),
    ];
  });

  protected readonly warnings = computed(() => {
    const drop = this.plan().watch?.['nose']?.['v'] ?? 0;
    const axis = this.found('axisSlopeV').rung;
    const under = this.store.rungs().filter(({ check }) => axis?.check.hangsOn.includes(check.id));
    return [
      ...(axis?.waits ?? []).map((waiting) => `Nothing read on this casting is to be trusted: ${waitWords(waiting)}.`),
      ...under
        .filter(({ state }) => state === 'none')
        .map(({ check }) => `“${check.title}” has not been read yet, and this plan depends on it.`),
      Math.abs(drop) > GEARS
        ? `The spindle ${drop < 0 ? 'comes down' : 'comes up'} ${this.size(drop)}: look at the gear mesh, the belt and the height of the tool.`
        : '',
    ].filter(Boolean);
  });

  /** Scrape or shim at the tail, with the leaves for it. */
  protected readonly tail = computed(() => {
    const { rung, quantity } = this.found('tailV');
    const stands = this.after()?.tailV;
    if (!quantity || stands === undefined || quantity.limit === null) return undefined;
    const inZone = insideZone(stands, quantity.limit);
    const amount = (quantity.aim ?? 0) - stands;
    const round = rung?.round;
    if (inZone) return { state: 'in' as const, way: null, text: 'Nothing: it stays in its zone.', round };
    if (amount < 0)
      return {
        state: 'out' as const,
        way: 'up' as const,
        text: `Scrape ${this.size(amount)} off the tailstock base, or leave the headstock that much higher.`,
        round,
      };
    return {
      state: 'out' as const,
      way: 'down' as const,
      text: `Shim the tailstock ${this.size(amount)} up: ${this.leaves(amount)}.`,
      round,
    };
  });

  private leaves(amount: number): string {
    const stock = (this.store.stock() ?? []) as { thickness: unknown }[];
    if (!stock.some((row) => parseQuantity(row.thickness, 'deviation').ok)) return 'there is no shim drawer in the kit';
    const plan = planMove({ format: 'isometra-move/1', move: 'shim-leaves', thickness: amount, stock });
    return planLeavesWords(plan, { size: (um) => this.size(um) }) ?? 'nothing in the drawer fits';
  }
}
