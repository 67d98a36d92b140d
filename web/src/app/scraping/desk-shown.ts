import { Directive, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { combineLatest, map, switchMap } from 'rxjs';
import { CHECKS, countedOver } from '@isometra/core';
import { machineFamily, type KitItem, type RoundHead, type StoredSurface } from '@isometra/contract';
import {
  daysUntilDue,
  deskNoteWords,
  deskOf,
  endAAtRight,
  flankSince,
  learnedOn,
  mateOf,
  profileRound,
  reminderWords,
  standing,
  stateWords,
  stepWords,
  turnedWords,
  type PassDepth,
} from '@isometra/work';
import { Heads } from '../data/heads';
import { Kit } from '../data/kit';
import { Machines } from '../data/machines';
import { Outbox } from '../data/outbox';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { Surfaces } from '../data/surfaces';
import { bothUnits, counted, inFine } from '../ui/say';
import type { PinsRead } from './flank-words';
import type { ShimTexts } from './shim-panel';
import { shortDateWords, today } from '../data/when';
import type { FlatDrawing } from '../drawings/flat';
import { faceFlat } from './face-flat';

const GRAVE: ReadonlySet<string> = new Set(['grew', 'liner-ends', 'wrong-flank']);
const WHOSE: Readonly<Record<PassDepth['whose'], string>> = {
  blade: 'you with this blade',
  person: 'you',
  anybody: 'anybody here',
  nobody: '',
};

/** What a face at the desk shows: where it stands, in words and figures. */
@Directive()
export abstract class DeskShown {
  readonly machineId = input.required<string>();
  readonly surfaceId = input.required<string>();
  protected readonly store = inject(Surfaces);
  protected readonly heads = inject(Heads);
  protected readonly machines = inject(Machines);
  protected readonly outbox = inject(Outbox);
  protected readonly kitStore = inject(Kit);
  protected readonly pictures = inject(Pictures);
  protected readonly settings = inject(Settings);

  private readonly ids = toObservable(computed(() => [this.machineId(), this.surfaceId()] as const));
  /** All faces of the machine: what was learned on one holds on the next, and some go together. */
  private readonly all = toSignal(this.ids.pipe(switchMap(([machineId]) => this.store.of(machineId))), {
    initialValue: [] as readonly StoredSurface[],
  });
  protected readonly surface = computed(() => this.all().find(({ id }) => id === this.surfaceId()) ?? null);
  /** The face 1 : 1, for a file. */
  protected readonly flat = (): FlatDrawing => {
    const surface = this.surface();
    return surface ? faceFlat(surface) : { width: 0, height: 0, lines: [], words: [] };
  };
  protected readonly mate = computed(() => {
    const surface = this.surface();
    return surface && mateOf(surface, this.all());
  });
  private readonly elsewhere = computed(() => learnedOn(this.all().filter(({ id }) => id !== this.surfaceId())));
  protected readonly rounds = toSignal(this.ids.pipe(switchMap(([machineId]) => this.heads.of(machineId))), {
    initialValue: [] as readonly RoundHead[],
  });
  protected readonly machine = toSignal(this.ids.pipe(switchMap(([machineId]) => this.machines.one(machineId))));
  /** What the server refused of this face: told, and given up only when that is said. */
  protected readonly refused = toSignal(
    combineLatest([this.outbox.refused$, this.ids]).pipe(
      map(([all, [, id]]) => all.filter(({ what, about }) => what === 'entry' && about === id)),
    ),
    { initialValue: [] },
  );

  /** What the pins as they were read last and the other flank tell, where this face is a flank. */
  private readonly flank = computed(() => {
    const [surface, mate, pins] = [this.surface(), this.mate(), this.pins()];
    if (!surface || mate?.mate.as !== 'flank' || !pins) return null;
    return flankSince(surface, { other: mate.other, mate: mate.mate }, pins);
  });
  protected readonly desk = computed(() => {
    const surface = this.surface();
    return surface ? deskOf(surface, surface.entries, { by: this.settings.by(), elsewhere: this.elsewhere(), flank: this.flank() }) : null;
  });
  protected readonly size = (value: number, dimension: 'length' | 'deviation'): string => inFine(this.settings.shown())(value, dimension);

  protected readonly now = computed(() => {
    const desk = this.desk();
    return desk ? stepWords(desk.step, !!this.surface()?.shell) : '';
  });
  /** The one large figure: passes left here. */
  protected readonly here = computed(() => {
    const desk = this.desk();
    const zone = desk?.zones.find((entry) => entry.zone.id === desk.next);
    return zone?.left ?? desk?.zones.reduce((sum, { left }) => sum + (left ?? 0), 0) ?? 0;
  });
  protected readonly evenings = computed(() => {
    const forecast = this.desk()?.forecast;
    if (!forecast) return '';
    const { expected, low, high } = forecast.evenings;
    const hours = Math.round((expected * (this.surface()?.evening.session ?? 0)) / 60);
    const { checks } = forecast;
    const apart = checks ? `, and ${counted(checks.count, 'full check')}, ${Number((checks.minutes / 60).toFixed(1))} h` : '';
    return `${counted(expected, 'evening')} left (${low} to ${high}), about ${hours} h${apart}`;
  });
  protected readonly hindsight = computed(() => {
    const hindsight = this.desk()?.hindsight;
    return hindsight ? `This plan was forecast at ${counted(hindsight.expected, 'evening')} and took ${hindsight.took}.` : '';
  });
  /** Metal that is still to come off where most of it is. */
  protected readonly metal = computed(() => {
    const deepest = (this.desk()?.zones ?? []).reduce<{ readonly id: string; readonly depth: number } | null>(
      (most, { zone, depth }) => (depth !== null && depth > (most?.depth ?? 0) ? { id: zone.id, depth } : most),
      null,
    );
    return deepest && this.desk()?.next
      ? `${this.size(deepest.depth, 'deviation')} are still to come off where it is most, in zone ${deepest.id}.`
      : '';
  });
  protected readonly tonight = computed(() => {
    const desk = this.desk();
    return desk && desk.passesTonight
      ? `${counted(desk.passesTonight, 'pass')} tonight${desk.minutesTonight < 1 ? '' : `, in ${Math.round(desk.minutesTonight)} min`}`
      : '';
  });
  protected readonly turned = computed(() => {
    const [desk, surface] = [this.desk(), this.surface()];
    if (!desk || !surface) return '';
    return turnedWords(desk, (mm) => this.size(mm, 'length'), !endAAtRight(surface));
  });
  protected readonly state = computed(() => {
    const desk = this.desk();
    return desk ? stateWords(desk.state) : '';
  });
  protected readonly notes = computed(() => {
    const desk = this.desk();
    return desk
      ? desk.notes.map((note) => ({
          code: note.code,
          text: deskNoteWords(note, this.size, this.aimSays),
          grave: GRAVE.has(note.code),
        }))
      : [];
  });
  protected readonly reminders = computed(() => (this.desk()?.reminders ?? []).map((told) => reminderWords(told, !!this.surface()?.shell)));
  protected readonly spots = computed(() => {
    const spots = this.desk()?.spots;
    if (!spots) return '';
    const call = { in: 'enough', out: 'too few', unsure: 'too close to call' }[spots.verdict];
    const { width, height } = this.surface() ?? { width: 0, height: 0 };
    const across = Math.min(width, height);
    const over = countedOver(across);
    const narrow = over > across ? `, counted over ${this.size(over, 'length')} of its length` : '';
    return `${spots.perSquare.toFixed(0)} ± ${Math.max(1, Math.round(spots.expanded))} spots per square${narrow}, wanted ${spots.target[0]} to ${spots.target[1]}: ${call}`;
  });
  protected readonly aimInfo = computed(() => {
    const aim = this.surface()?.aim;
    return aim ? CHECKS.get(aim.check)?.quantities[aim.quantity] : undefined;
  });
  private readonly aimSays = (value: number): string => {
    const info = this.aimInfo();
    return info ? bothUnits(value, info.dimension, this.settings.shown()).large : String(value);
  };
  protected readonly aim = computed(() => {
    const [surface, desk] = [this.surface(), this.desk()];
    if (!surface?.aim) return '';
    const { wanted, room } = surface.aim;
    const info = this.aimInfo();
    const say = this.aimSays;
    const wish = wanted === 0 ? `at most ${say(room)} either way` : `wanted ${say(wanted)} ± ${say(room)}`;
    const label = info?.label ?? 'Target';
    return desk?.aim ? `${label}: ${say(desk.aim.value)} ± ${say(desk.aim.doubt)}, ${wish}` : `${label}: not measured yet, ${wish}`;
  });
  protected readonly liner = computed(() => {
    const left = this.desk()?.linerLeft;
    return left === null || left === undefined ? '' : `The liner has ${this.size(Math.max(0, left), 'deviation')} left to give.`;
  });
  protected readonly learned = computed(() => {
    const pass = this.desk()?.pass;
    if (!pass) return '';
    const one = (name: string, { depth, learned, whose }: PassDepth) =>
      `${name} ${this.size(depth, 'deviation')}${learned ? `, learned from ${learned} by ${WHOSE[whose]}` : ''}`;
    return `${one('A roughing pass takes', pass.rough)}; ${one('a finishing pass', pass.fine)}.`;
  });
  protected readonly prints = computed(() =>
    (this.desk()?.prints ?? []).slice(-4).map(({ id, at, content: { picture, result, film, pressed } }) => ({
      id,
      when: shortDateWords(at),
      address: picture ? this.pictures.address(picture) : '',
      text: `${!picture && result.spotsPerSquare === null ? 'by eye' : result.spotsPerSquare === null ? `${result.spots} spots` : `${result.spotsPerSquare.toFixed(0)} per square`}${result.bearingShare === null ? '' : `, ${Math.round(100 * result.bearingShare)} %`}`,
      more: `${film === null ? 'film not said' : `film ${this.size(film, 'deviation')}`}${pressed ? `, end ${pressed} pressed` : ''}`,
    })),
  );
  /** What stands of what was written down. */
  private readonly entries = computed(() => standing(this.surface()?.entries ?? []));
  protected readonly lastBlue = computed(() => this.entries().findLast((entry) => entry.kind === 'blue')?.content);
  /** Whether a cheap height may stand for the full check on this machine. */
  protected readonly standsIn = computed(() => machineFamily(this.machine()?.card.kind ?? '') !== 'mill');
  /** What is known of the shims of a split bearing: its card, what it reads now, and what is wanted. */
  protected readonly shims = computed((): ShimTexts => {
    const card = (this.machine()?.card as { readonly capShims?: ShimTexts } | undefined)?.capShims;
    const [aim, read] = [this.surface()?.aim, this.desk()?.aim];
    if (!aim) return { ...card };
    const { plus = [], minus = [] } = CHECKS.get(aim.check)?.corrections[aim.quantity] ?? {};
    if (![...plus, ...minus].includes('bearing-shims')) return { ...card };
    return { ...card, clearance: `${aim.wanted} um`, ...(read && { lift: `${read.value} um` }) };
  });
  /** The last turn of the straightedge, while nothing was done after it: a second try may be added to it. */
  protected readonly lastTurn = computed(() => {
    const last = this.entries().at(-1);
    return last?.kind === 'hinge' && !last.content.again ? last : null;
  });
  protected readonly lastBlade = computed(() => this.entries().findLast((entry) => entry.kind === 'blade')?.content);
  /** The newest round of the check that it is scraped true by, where it was read after the last measurement here. */
  protected readonly round = computed(() => {
    const [surface, desk] = [this.surface(), this.desk()];
    const { check, quantity } = surface?.aim ?? {};
    const round = this.rounds().findLast((entry) => entry.check === check && entry.finding?.quantities[quantity ?? '']);
    const found = round?.finding?.quantities[quantity ?? ''];
    return round && found && (!desk?.aim || round.at > desk.aim.at)
      ? { id: round.id, number: round.number, value: found.value, doubt: found.expanded ?? 0 }
      : null;
  });

  /** What the dovetail read over pins last, where this is one of its flanks. */
  protected readonly pins = computed((): PinsRead | null => {
    const round = profileRound(this.rounds(), 'dovetail');
    const places = round?.finding?.profile ?? [];
    if (!round || places.length < 3) return null;
    const doubt = round.finding?.quantities[CHECKS.get(round.check)?.knowsProfile?.doubt ?? '']?.expanded ?? 0;
    return { places: places.map(({ at, height }) => ({ at, over: height })), doubt, round: round.number, at: round.at };
  });

  /** The straightedge of the kit is over the date until which it is good. */
  protected readonly kit = toSignal(this.kitStore.inUse$, { initialValue: [] as readonly KitItem[] });
  protected readonly overdue = computed(() => {
    const { kitId } = this.surface()?.reference ?? {};
    const item = this.kit().find(({ id }) => id === kitId);
    const days = item ? daysUntilDue(item.care, today()) : undefined;
    return days !== undefined && days < 0
      ? `${item?.name} is ${-days} days over its date: what it prints is only as straight as it is.`
      : '';
  });
}
