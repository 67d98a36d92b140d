import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { exampleFor, parseQuantity, sizesIn } from '@isometra/core';
import { RouterLink } from '@angular/router';
import type { DeskEntry, StoredSurface, Surface } from '@isometra/contract';
import {
  flanksOf,
  joinHeights,
  pinsPlan,
  planePlan,
  planesPlan,
  priceOf,
  profileCheck,
  stripMarks,
  takesBites,
  tiltAsked,
  wedgePlan,
  wedgeWords,
  schoolsOf,
  withAll,
  type HighEnd,
  type Slope,
  type WithMate,
} from '@isometra/work';
import { Settings } from '../data/settings';
import { withUnit } from '../ui/form-model';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Figure } from '../ui/figure';
import { Notice } from '../ui/notice';
import { counted as soMany, inFine } from '../ui/say';
import { TextBox } from '../ui/text-box';
import { SlopeField } from './slope-field';
import { flankWords, type PinsRead } from './flank-words';

type Plan = Extract<DeskEntry, { kind: 'plan' }>['content'];
type Way = 'wedge' | 'plane' | 'pins' | 'hand';
type Tilt = 'free' | 'none' | 'asked';

const WAYS: readonly Choice<Way>[] = [
  { value: 'wedge', label: 'a wedge: one end is high' },
  { value: 'plane', label: 'heights read at each zone' },
  { value: 'pins', label: 'widths over pins' },
  { value: 'hand', label: 'depths by hand' },
];
const TILTS: readonly Choice<Tilt>[] = [
  { value: 'free', label: 'the tilt that costs least' },
  { value: 'none', label: 'no tilt to what it was read from' },
  { value: 'asked', label: 'a tilt that alignment asks for' },
];
const COUNTED: readonly Choice<'A' | 'B'>[] = [
  { value: 'A', label: 'end A' },
  { value: 'B', label: 'end B' },
];

/** What is planned for a face, and for the one that it goes with. */
export interface Planned {
  readonly own: Plan;
  readonly other?: { readonly surface: StoredSurface; readonly plan: Plan };
}
interface Found extends Planned {
  readonly prices: readonly string[];
}
/** The edges of a face as its drawing shows them: turned, they lie elsewhere. */
const EDGES: Readonly<Record<Surface['turned'], readonly [far: string, near: string]>> = {
  0: ['the edge above on the drawing', 'the edge below'],
  90: ['the right edge on the drawing', 'the left edge'],
  180: ['the edge below on the drawing', 'the edge above'],
  270: ['the left edge on the drawing', 'the right edge'],
};
/** The same of a bearing shell, which ends at its joint faces. */
const JOINT_FACES: typeof EDGES = {
  0: ['the joint face above on the drawing', 'the joint face below'],
  90: ['the right joint face on the drawing', 'the left joint face'],
  180: ['the joint face below on the drawing', 'the joint face above'],
  270: ['the left joint face on the drawing', 'the right joint face'],
};

/** How much is to come off each zone: from a wedge, from heights down to the best plane, or told by hand. */
@Component({
  selector: 'iso-plan-panel',
  imports: [RouterLink, Button, Choices, Figure, Notice, SlopeField, TextBox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan-panel.html',
  styleUrl: './plan-panel.css',
})
export class PlanPanel {
  readonly surface = input.required<StoredSurface>();
  /** Depth of a pass as it is known now, µm. */
  readonly pass = input.required<{ readonly rough: number; readonly fine: number }>();
  /** Width of the blade, mm: strips narrower than it are joined. */
  readonly blade = input(0);
  /** The face that it goes with. */
  readonly mate = input<WithMate | null>(null);
  /** What the dovetail read over pins. */
  readonly pins = input<PinsRead | null>(null);
  readonly planned = output<Planned>();
  private readonly settings = inject(Settings);
  protected readonly tilts = TILTS;
  protected readonly counted = COUNTED;
  /** The check that reads widths over pins. */
  protected readonly overPins = profileCheck('dovetail')?.id;
  private readonly flank = computed(() => {
    const mate = this.mate();
    return mate?.mate.as === 'flank' ? { other: mate.other, mate: mate.mate } : null;
  });
  private readonly plane = computed(() => {
    const mate = this.mate();
    return mate?.mate.as === 'plane' ? { other: mate.other, mate: mate.mate } : null;
  });
  protected readonly ways = computed(() => WAYS.filter(({ value }) => value !== 'pins' || this.flank() !== null));
  protected readonly ends = computed((): readonly Choice<HighEnd>[] => {
    const { turned, shell } = this.surface();
    const [far, near] = (shell ? JOINT_FACES : EDGES)[turned];
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
  protected readonly down = signal('');
  protected readonly tilt = signal<Tilt>('free');
  protected readonly asked = signal('');
  protected readonly askedEnd = signal<HighEnd | null>(null);
  protected readonly from = signal<'A' | 'B' | null>(null);
  protected readonly typed = signal<Readonly<Partial<Record<string, string>>>>({});
  protected readonly doubt = signal('2 um');
  protected readonly problem = signal('');
  /** Faces whose zones are read: this one; with heights the one that must be one plane with it too. */
  protected readonly read = computed(() => {
    const bearing = ({ zones }: Surface) => zones.filter(({ use }) => use === 'bear');
    const other = this.way() === 'plane' ? this.plane()?.other : undefined;
    const surface = this.surface();
    const twice = this.way() === 'plane' && takesBites(surface);
    return [
      { key: '', name: twice ? 'The first bite' : '', zones: bearing(surface) },
      ...(twice ? [{ key: 'second ', name: 'The second bite', zones: bearing(surface) }] : []),
      ...(other ? [{ key: 'other ', name: other.name, zones: bearing(other) }] : []),
    ];
  });

  protected readonly say = (value: number, dimension: 'length' | 'deviation'): string => inFine(this.settings.shown())(value, dimension);
  private readonly size = (um: number): string => this.say(um, 'deviation');

  protected enter(zone: string, text: string): void {
    const full = withUnit(text, { dimension: 'deviation' }, this.settings.system());
    this.typed.update((typed) => ({ ...typed, [zone]: full }));
  }

  /** What would do, in the unit of the screen. */
  protected readonly example = (text: string): string => exampleFor({ dimension: 'deviation', example: text }, this.settings.system());

  /** A typed deviation, µm; undefined where it says nothing. */
  private figure(text: string): number | undefined {
    const parsed = text.trim() === '' ? undefined : parseQuantity(text, 'deviation');
    return parsed?.ok ? parsed.value : undefined;
  }
  /** What was typed for the zones of a face, µm. */
  private values(key: string): Readonly<Record<string, number>> {
    const zones = this.read().find((face) => face.key === key)?.zones ?? [];
    return Object.fromEntries(
      zones.flatMap(({ id }) => {
        const value = this.figure(this.typed()[`${this.way()} ${key}${id}`] ?? '');
        return value === undefined ? [] : [[id, value] as const];
      }),
    );
  }

  /** A slope as it is typed; null where it is left out, a sentence where it cannot be. */
  private slope(text: string, high: HighEnd | null): Slope | null | string {
    if (!text.trim()) return null;
    const wedge = this.figure(text);
    if (wedge === undefined || wedge <= 0) return `How much higher it is: give more than 0. Example: ${this.example('48 um')}`;
    return high === null ? 'Say which end is high.' : { wedge, high };
  }
  /** Both slopes of a wedge, and what all of it comes down by, µm; a sentence where something cannot be. */
  private readonly wedges = computed((): { readonly slopes: readonly Slope[]; readonly down: number } | string => {
    const down = this.down().trim() ? this.figure(this.down()) : 0;
    if (down === undefined || down < 0) return `What all of it comes down by: nothing, or more. Example: ${this.example('24 um')}`;
    const first = this.wedge() || (down > 0 ? '' : '0');
    const slopes = [this.slope(first, this.end()), this.slope(this.second(), this.other())];
    const wrong = slopes.find((slope) => typeof slope === 'string');
    if (typeof wrong === 'string') return wrong;
    return { slopes: slopes.filter((slope): slope is Slope => typeof slope === 'object' && slope !== null), down };
  });

  private byWedge(): Found | string {
    const wedges = this.wedges();
    return typeof wedges === 'string'
      ? wedges
      : {
          own: {
            ...withAll(wedgePlan(this.surface(), ...wedges.slopes), wedges.down),
            why: wedgeWords(wedges.slopes, wedges.down, sizesIn(this.settings.shown())),
          },
          prices: [],
        };
  }

  private byHeights(): Found | string {
    const doubt = this.figure(this.doubt());
    if (doubt === undefined || doubt < 0) return `How well a height is known: try ${this.example('2 um')}`;
    const slope = this.tilt() === 'asked' ? this.slope(this.asked() || '0', this.askedEnd()) : this.tilt();
    const asked = slope === 'free' || slope === null ? undefined : slope;
    if (typeof asked === 'string' && asked !== 'none') return asked;
    const saved = (zone: string, saves: number, name = '') =>
      `Leaving zone ${zone}${name ? ` of ${name}` : ''} out of it saves ${this.size(saves)} in all.`;
    const plane = this.plane();
    const own = this.bitten(doubt);
    if (own === null) return 'Two bites join by two zones at least that both have read.';
    if (!plane) {
      const found = planePlan(this.surface(), own.heights, own.doubts, asked);
      if (!found) return 'A plane needs heights at three zones or more.';
      return { own: found.plan, prices: found.prices.map(({ zone, saves }) => saved(zone, saves)) };
    }
    const heights = { own: own.heights, other: this.values('other ') };
    const found = planesPlan(this.surface(), plane, heights, doubt, tiltAsked(this.surface(), asked));
    if (!found) return 'One plane needs heights of both faces, at three zones or more, over one and the same zero.';
    return {
      own: found.own,
      other: { surface: plane.other, plan: found.other },
      prices: found.prices.map(({ face, zone, saves }) => saved(zone, saves, face === 'other' ? plane.other.name : '')),
    };
  }

  /** Heights of this face; of two bites as one profile, with the doubt that the joint adds. Null where they do not overlap enough. */
  private bitten(
    doubt: number,
  ): { readonly heights: Readonly<Record<string, number>>; readonly doubts: number | Readonly<Record<string, number>> } | null {
    const [first, second] = [this.values(''), this.values('second ')];
    if (Object.keys(second).length === 0) return { heights: first, doubts: doubt };
    const joined = joinHeights(this.surface(), first, second, doubt);
    return joined ? { heights: joined.heights, doubts: joined.doubts } : null;
  }

  private byHand(): Found | string {
    const depths = Object.entries(this.values('')).map(([zone, depth]) => ({ zone, depth }));
    if (depths.length === 0 || depths.some(({ depth }) => depth < 0))
      return `Give the depth of one zone at least, none below 0. Example: ${this.example('24 um')}`;
    return { own: { depths, from: 'hand', why: 'by hand' }, prices: [] };
  }

  /** Which flank the pins and the straightedge call; nothing before it is said where the places are counted from. */
  private readonly flankFound = computed(() => {
    const [flank, pins, from] = [this.flank(), this.pins(), this.from()];
    return flank && pins && from ? (flanksOf(this.surface(), flank, pins.places, pins.doubt, from) ?? null) : null;
  });
  protected readonly flanks = computed(() => {
    const [found, flank, pins] = [this.flankFound(), this.flank(), this.pins()];
    return found && flank && pins ? flankWords(found, flank.other.name, pins.doubt, this.say) : '';
  });

  private byPins(): Found | string {
    const [found, flank] = [this.flankFound(), this.flank()];
    if (!this.pins()) return 'Read it over pins first: at three places or more.';
    if (!found || !flank) return 'Say which end the places are counted from.';
    const plan = pinsPlan(this.surface(), found, flank.mate.angle);
    return plan ? { own: plan, prices: [] } : 'Nothing is to come off this flank on that.';
  }

  private readonly plan = computed((): Found | string => {
    const by = { wedge: () => this.byWedge(), plane: () => this.byHeights(), pins: () => this.byPins(), hand: () => this.byHand() };
    return by[this.way()]();
  });

  /** One wedge can be worked in strips marked on the iron instead of by zones. */
  protected readonly strips = computed(() => {
    const wedges = this.wedges();
    if (this.way() !== 'wedge' || typeof wedges === 'string' || wedges.slopes.length !== 1 || wedges.down > 0) return '';
    const [slope] = wedges.slopes;
    const { marks, tilt } = stripMarks(this.surface(), slope, this.pass().rough, this.blade());
    const end = this.ends().find(({ value }) => value === slope.high)?.label ?? '';
    if (marks.length === 0) return '';
    return `Or in strips marked on the iron from ${end}: one pass each over ${marks.map((mm) => this.say(mm, 'length')).join(', ')}; leave the rest alone. That tilts it by ${this.size(tilt)}.`;
  });

  /** Tilted first or brought down first: two schools, both priced. */
  protected readonly schools = computed(() => {
    const wedges = this.wedges();
    if (this.way() !== 'wedge' || typeof wedges === 'string' || wedges.slopes.length === 0 || wedges.down === 0) return '';
    const { tiltFirst, downFirst } = schoolsOf(this.surface(), wedges.slopes, wedges.down, this.pass());
    const price = ({ zonePasses, evenings }: { readonly zonePasses: number; readonly evenings: number }) =>
      `${zonePasses} passes over zones, about ${soMany(evenings, 'evening')}`;
    return `Tilted first, then straight down: ${price(tiltFirst)}. Straight down first: ${price(downFirst)}, since the tilt scrapes a finished print off again. The desk works the highest zones first.`;
  });

  protected readonly told = computed(() => {
    const plan = this.plan();
    if (typeof plan === 'string') return null;
    const { zonePasses, evenings } = priceOf(this.surface(), plan.own, this.pass());
    const { prices, other } = plan;
    const too = other ? ` ${other.surface.name} has ${priceOf(other.surface, other.plan, this.pass()).zonePasses} of its own.` : '';
    if (zonePasses === 0) return { summary: `Less than one pass anywhere: leave it, and finish for contact.${too}`, prices };
    const most = plan.own.depths.reduce((one, two) => (two.depth > one.depth ? two : one));
    return {
      summary: `Most comes off zone ${most.zone}: ${this.size(most.depth)}. ${zonePasses} passes over zones in all, about ${soMany(evenings, 'evening')}.${too}`,
      prices,
    };
  });

  protected keep(): void {
    const plan = this.plan();
    if (typeof plan === 'string') return this.problem.set(plan);
    this.problem.set('');
    this.planned.emit({ own: plan.own, ...(plan.other && { other: plan.other }) });
  }
}
