import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { parseQuantity } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { planePlan, priceOf, stripMarks, wedgePlan, type HighEnd, type Slope } from '@isometra/work';
import { Settings } from '../data/settings';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { bothUnits } from '../ui/say';
import { TextBox } from '../ui/text-box';

type Plan = Extract<DeskEntry, { kind: 'plan' }>['content'];
type Way = 'wedge' | 'plane' | 'hand';

const WAYS: readonly Choice<Way>[] = [
  { value: 'wedge', label: 'a wedge: one end stands high' },
  { value: 'plane', label: 'heights read at each zone' },
  { value: 'hand', label: 'depths by hand' },
];
/** The edges of a face as its drawing shows them: turned, they lie elsewhere. */
const EDGES: Readonly<Record<Surface['turned'], readonly [far: string, near: string]>> = {
  0: ['the edge above on the drawing', 'the edge below'],
  90: ['the right edge on the drawing', 'the left edge'],
  180: ['the edge below on the drawing', 'the edge above'],
  270: ['the left edge on the drawing', 'the right edge'],
};

/** How much is to come off each zone: from a wedge, from heights down to the best plane, or told by hand. */
@Component({
  selector: 'iso-plan-panel',
  imports: [Button, Choices, Field, Notice, TextBox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-choices label="From" [options]="ways" [value]="way()" (chosen)="way.set($any($event))" />
    @if (way() === 'wedge') {
      <p class="line">
        <iso-field
          label="It is higher by"
          name="Height of the wedge"
          [value]="wedge()"
          [size]="8"
          placeholder="48 um"
          (typed)="wedge.set($event)"
        />
        <span>at</span>
        <iso-choices label="The high end" [options]="ends()" [value]="end()" (chosen)="end.set($any($event))" />
      </p>
      <p class="line">
        <iso-field
          label="and, the other way, by"
          name="Height of the second wedge"
          [value]="second()"
          [size]="8"
          placeholder="nothing"
          (typed)="second.set($event)"
        />
        <span>at</span>
        <iso-choices label="The other high edge" [options]="ends()" [value]="other()" (chosen)="other.set($any($event))" />
      </p>
    } @else {
      <p>
        {{
          way() === 'plane'
            ? 'Height in the middle of each zone, the higher the more: read on a plate or along stations.'
            : 'Depth still to come off each zone.'
        }}
      </p>
      <p class="grid">
        @for (zone of bearing(); track zone.id) {
          <span class="cell"
            >{{ zone.id }}
            <iso-text-box
              [label]="(way() === 'plane' ? 'Height of zone ' : 'Depth of zone ') + zone.id"
              [value]="typed()[zone.id]"
              placeholder="12 um"
              (entered)="enter(zone.id, $event)"
          /></span>
        }
      </p>
      @if (way() === 'plane') {
        <p class="line">
          <iso-field
            label="each good to"
            name="Doubt of a height"
            [value]="doubt()"
            [size]="7"
            placeholder="2 um"
            (typed)="doubt.set($event)"
          />
        </p>
        <p class="line">
          <iso-field
            label="alignment asks that it is left higher by"
            name="Slope that is asked for"
            [value]="asked()"
            [size]="8"
            placeholder="nothing"
            (typed)="asked.set($event)"
          />
          <span>at</span>
          <iso-choices label="The end that is left high" [options]="ends()" [value]="askedEnd()" (chosen)="askedEnd.set($any($event))" />
        </p>
      }
    }
    @if (told(); as plan) {
      <p class="found">
        {{ plan.summary }}
      </p>
      @if (strips()) {
        <p>{{ strips() }}</p>
      }
      @for (price of plan.prices; track price) {
        <p class="soft">{{ price }}</p>
      }
    }
    <iso-notice [text]="problem()" />
    <p class="line"><button pButton type="button" class="next" (click)="keep()">Work to this</button></p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    p {
      margin: 0;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: baseline;
    }
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
      gap: 8px;
    }
    .cell {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    .found {
      font: 600 17px/1.3 var(--narrow);
    }
  `,
})
export class PlanPanel {
  readonly surface = input.required<Surface>();
  /** Depth of a pass as it is known now, µm. */
  readonly pass = input.required<{ readonly rough: number; readonly fine: number }>();
  readonly planned = output<Plan>();
  private readonly settings = inject(Settings);
  protected readonly ways = WAYS;
  protected readonly ends = computed((): readonly Choice<HighEnd>[] => {
    const { turned, shell } = this.surface();
    const [far, near] = EDGES[turned].map((edge) => (shell ? edge.replace('edge', 'joint face') : edge));
    return [
      { value: 'left', label: 'end A' },
      { value: 'right', label: 'end B' },
      { value: 'far', label: far },
      { value: 'near', label: near },
    ];
  });
  protected readonly way = signal<Way>('wedge');
  protected readonly wedge = signal('');
  protected readonly end = signal<HighEnd | null>(null);
  protected readonly second = signal('');
  protected readonly other = signal<HighEnd | null>(null);
  protected readonly asked = signal('');
  protected readonly askedEnd = signal<HighEnd | null>(null);
  protected readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly doubt = signal('2 um');
  protected readonly problem = signal('');
  protected readonly bearing = computed(() => this.surface().zones.filter(({ use }) => use === 'bear'));

  private readonly size = (um: number): string => bothUnits(um, 'deviation', { ...this.settings.shown(), fineness: 'fine' }).large;

  protected enter(zone: string, text: string): void {
    this.typed.update((typed) => ({ ...typed, [zone]: text }));
  }

  /** A typed deviation, µm; undefined where it says nothing. */
  private read(text: string): number | undefined {
    const parsed = text.trim() === '' ? undefined : parseQuantity(text, 'deviation');
    return parsed?.ok ? parsed.value : undefined;
  }

  /** A slope as it is typed; null where it is left out, a sentence where it cannot be. */
  private slope(text: string, high: HighEnd | null): Slope | null | string {
    if (!text.trim()) return null;
    const wedge = this.read(text);
    if (wedge === undefined || wedge <= 0) return 'How much higher it is: give it above nothing. Try: 48 um';
    return high === null ? 'Say which end stands high.' : { wedge, high };
  }

  private readonly plan = computed((): { readonly plan: Plan; readonly prices: readonly string[] } | string => {
    const values = Object.fromEntries(
      this.bearing().flatMap(({ id }) => {
        const value = this.read(this.typed()[id] ?? '');
        return value === undefined ? [] : [[id, value] as const];
      }),
    );
    if (this.way() === 'wedge') {
      const slopes = [this.slope(this.wedge() || '0', this.end()), this.slope(this.second(), this.other())];
      const wrong = slopes.find((slope) => typeof slope === 'string');
      if (typeof wrong === 'string') return wrong;
      return {
        plan: wedgePlan(this.surface(), ...slopes.filter((slope): slope is Slope => typeof slope === 'object' && slope !== null)),
        prices: [],
      };
    }
    if (this.way() === 'plane') {
      const doubt = this.read(this.doubt());
      if (doubt === undefined || doubt < 0) return 'How well a height is known: try 2 um';
      const slope = this.slope(this.asked(), this.askedEnd());
      if (typeof slope === 'string') return slope;
      const found = planePlan(this.surface(), values, doubt, slope ?? undefined);
      if (!found) return 'A plane needs heights at three zones or more.';
      return {
        plan: found.plan,
        prices: found.prices.map(({ zone, saves }) => `Leaving zone ${zone} out of it saves ${this.size(saves)} in all.`),
      };
    }
    const depths = Object.entries(values).map(([zone, depth]) => ({ zone, depth }));
    if (depths.length === 0 || depths.some(({ depth }) => depth < 0))
      return 'Give the depth of one zone at least, none below nothing. Try: 24 um';
    return { plan: { depths, from: 'hand', why: 'by hand' }, prices: [] };
  });

  /** One wedge can be worked in strips marked on the iron instead of by zones. */
  protected readonly strips = computed(() => {
    const [first, second] = [this.slope(this.wedge(), this.end()), this.slope(this.second(), this.other())];
    if (this.way() !== 'wedge' || second !== null || first === null || typeof first === 'string') return '';
    const { marks, tilt } = stripMarks(this.surface(), first, this.pass().rough);
    const end = this.ends().find(({ value }) => value === first.high)?.label ?? '';
    const length = (mm: number) => bothUnits(mm, 'length', this.settings.shown()).large;
    if (marks.length === 0) return '';
    return `Or in strips marked on the iron from ${end}: one pass each over ${marks.map(length).join(', ')}; what lies beyond is left alone. That tilts it by ${this.size(tilt)}.`;
  });

  protected readonly told = computed(() => {
    const plan = this.plan();
    if (typeof plan === 'string') return null;
    const { depths } = plan.plan;
    const most = depths.reduce((one, other) => (other.depth > one.depth ? other : one));
    const { zonePasses, evenings } = priceOf(this.surface(), plan.plan, this.pass());
    if (zonePasses === 0) return { summary: 'Less than one pass anywhere: leave it, and finish for contact.', prices: plan.prices };
    return {
      summary: `Most comes off zone ${most.zone}: ${this.size(most.depth)}. ${zonePasses} passes over zones in all, about ${evenings} ${evenings === 1 ? 'evening' : 'evenings'}.`,
      prices: plan.prices,
    };
  });

  protected keep(): void {
    const plan = this.plan();
    if (typeof plan === 'string') return this.problem.set(plan);
    this.problem.set('');
    this.planned.emit(plan.plan);
  }
}
