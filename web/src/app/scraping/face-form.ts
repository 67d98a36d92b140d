import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { of, switchMap } from 'rxjs';
import { CHECKS, parseQuantity, type Dimension } from '@isometra/core';
import { CASTINGS, isFor, machineFamily, MATERIALS, SURFACE_USES, type StoredSurface, type Surface, type Zone } from '@isometra/contract';
import { gridZones, nestedZones } from '@isometra/work';
import * as z from 'zod';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Surfaces } from '../data/surfaces';
import { Desk } from '../machine/desk';
import { AtHand } from '../shell/at-hand';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Tick } from '../ui/tick';
import { FaceDrawing } from './face-drawing';

const draftSchema = z.object({
  text: z.record(z.string(), z.string()),
  uses: z.record(z.string(), z.enum(['bear', 'relieve', 'ignore'])),
  mirrored: z.boolean(),
});
type Draft = z.infer<typeof draftSchema>;

/** What is asked in figures: its words, the dimension that it is typed in, an example. */
const FIGURES: Readonly<
  Record<string, { readonly label: string; readonly dimension: Dimension | 'count' | 'minutes'; readonly example: string }>
> = {
  width: { label: 'Length, end A to end B', dimension: 'length', example: '400 mm' },
  diameter: { label: 'Bore', dimension: 'length', example: '80 mm' },
  height: { label: 'Width', dimension: 'length', example: '60 mm' },
  reference: { label: 'Straightedge or plate, length', dimension: 'length', example: '500 mm' },
  columns: { label: 'Zones along', dimension: 'count', example: '4' },
  rows: { label: 'across', dimension: 'count', example: '1' },
  rough: { label: 'A roughing pass takes', dimension: 'deviation', example: '12 um' },
  fine: { label: 'a finishing pass', dimension: 'deviation', example: '5 um' },
  keepFine: { label: 'finishing passes kept to the end', dimension: 'count', example: '2' },
  session: { label: 'An evening, minutes', dimension: 'minutes', example: '150' },
  setUp: { label: 'setting up', dimension: 'minutes', example: '20' },
  cycle: { label: 'one blue and its passes', dimension: 'minutes', example: '25' },
  thickness: { label: 'Liner, thickness', dimension: 'length', example: '1.5 mm' },
  keep: { label: 'it must keep', dimension: 'length', example: '1.1 mm' },
  wanted: { label: 'Wanted', dimension: 'count', example: '0' },
  room: { label: 'within', dimension: 'count', example: '20' },
  lever: { label: 'it changes, for 1 µm of metal, by', dimension: 'count', example: '2' },
};

const FIRST: Draft = {
  text: {
    ...{
      name: '',
      part: 'saddle',
      edge: '',
      shape: 'flat',
      diameter: '',
      use: 'general',
      material: 'iron',
      layout: 'strips',
      turned: '0',
      aim: '',
    },
    ...{ width: '', height: '', reference: '', columns: '4', rows: '1', rough: '12 um', fine: '5 um', keepFine: '2' },
    ...{ session: '150', setUp: '20', cycle: '25', thickness: '', keep: '', wanted: '0', room: '20', lever: '' },
  },
  uses: {},
  mirrored: false,
};

const words = (values: readonly string[], named: Readonly<Record<string, string>> = {}): Choice<string>[] =>
  values.map((value) => ({ value, label: named[value] ?? value.replace('-', ' ') }));
const NEXT_USE = { bear: 'relieve', relieve: 'ignore', ignore: 'bear' } as const;

/** A face to scrape: its size, its zones, what it is blued with, and what it is scraped true by. */
@Component({
  selector: 'iso-face-form',
  imports: [RouterLink, Button, Choices, Field, Notice, Pick, Tick, FaceDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './face-form.html',
  styleUrl: './face-form.css',
})
export class FaceForm {
  readonly surfaceId = input<string>();
  /** From a plan of a casting: what the face is called, what it is on, and how much is to come off all of it, µm. */
  readonly name = input<string>();
  readonly part = input<string>();
  readonly depth = input<string>();
  protected readonly desk = inject(Desk);
  private readonly store = inject(Surfaces);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  protected readonly problem = signal('');
  protected readonly FIGURES = FIGURES;
  protected readonly uses = words(SURFACE_USES, { moving: 'precision ways that move', general: 'general ways', fixed: 'a fixed joint' });
  protected readonly materials = words(MATERIALS);
  protected readonly layouts = words(['strips', 'nested'], { strips: 'a grid or strips', nested: 'one inside the other' });
  protected readonly shapes = words(['flat', 'shell'], { flat: 'a flat face', shell: 'a bearing shell, unrolled' });
  protected readonly turns = words(['0', '90', '180', '270'], {
    0: 'as drawn',
    90: 'turned to the right',
    180: 'upside down',
    270: 'turned to the left',
  });

  private readonly machineId = computed(() => this.desk.machine()?.id ?? null);
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id === null ? of([]) : this.store.of(id)))), {
    initialValue: [] as readonly StoredSurface[],
  });
  protected readonly known = computed(() => this.all().find(({ id }) => id === this.surfaceId()));
  private readonly typed = signal<Draft | null>(null);
  private readonly draftName = computed(() => `face-${this.surfaceId() ?? this.machineId() ?? ''}${this.name() ?? ''}`);
  protected readonly draft = computed((): Draft => {
    const known = this.known();
    return (
      this.typed() ??
      this.drafts.read(this.draftName(), draftSchema) ??
      (known ? draftOf(known) : { ...FIRST, text: { ...FIRST.text, name: this.name() ?? '', part: this.part() ?? FIRST.text['part'] } })
    );
  });
  protected readonly text = computed(() => this.draft().text);

  /** Straightedges of the kit: one fills its length in. */
  protected readonly edges = computed((): Choice<string>[] => [
    { value: '', label: 'another one' },
    ...this.desk
      .kit()
      .filter(({ kind }) => kind === 'straightedge')
      .map(({ id, name }) => ({ value: id, label: name })),
  ]);
  protected pickEdge(id: string): void {
    const edge = this.desk.kit().find((item) => item.id === id);
    const length = edge ? parseQuantity(edge.data['length'], 'length') : undefined;
    this.change({ ...this.draft(), text: { ...this.text(), edge: id, ...(length?.ok && { reference: `${length.value} mm` }) } });
  }

  /** Castings of this machine, and what else a face may be on. */
  protected readonly castings = computed((): Choice<string>[] => {
    const family = machineFamily(this.desk.kind());
    const own = CASTINGS.filter(({ machines }) => machines.includes(family)).map(({ id, name }) => ({
      value: id,
      label: name.toLowerCase(),
    }));
    const others = ['bed', 'cross slide', 'knee', 'table', 'something else'].map((name) => ({ value: name, label: name }));
    return [...own, ...others];
  });

  /** Checks of this machine that a face may be scraped true by, with their quantities. */
  protected readonly aims = computed((): Choice<string>[] => {
    const kind = this.desk.kind();
    const checks = [...CHECKS.values()].filter((check) => isFor(kind, check));
    return [
      { value: '', label: 'nothing but its contact' },
      ...checks.flatMap((check) =>
        Object.entries(check.quantities)
          .filter(([, info]) => info.limit)
          .map(([name, info]) => ({ value: `${check.id}/${name}`, label: `${check.title}: ${info.label}` })),
      ),
    ];
  });
  protected readonly aimUnit = computed(() => {
    const [check, quantity] = this.text()['aim'].split('/');
    return CHECKS.get(check)?.quantities[quantity]?.unit ?? '';
  });

  constructor() {
    inject(AtHand).doing.set('A face to scrape');
    const id = this.machineId();
    if (id !== null) this.store.load(id).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected write(field: string, value: string): void {
    this.change({ ...this.draft(), text: { ...this.text(), [field]: value } });
  }
  protected mirror(mirrored: boolean): void {
    this.change({ ...this.draft(), mirrored });
  }
  /** A touch on a zone goes through what it is there for. */
  protected turnUse(zone: string): void {
    const { uses } = this.draft();
    this.change({ ...this.draft(), uses: { ...uses, [zone]: NEXT_USE[uses[zone] ?? 'bear'] } });
  }
  private change(draft: Draft): void {
    this.typed.set(draft);
    this.drafts.keep(this.draftName(), draft);
    this.problem.set('');
  }

  /** A figure as typed, in mm, µm or as a number; null where it is none. */
  private figure(field: string): number | null {
    const text = this.text()[field]?.trim() ?? '';
    const { dimension } = FIGURES[field];
    if (dimension === 'count' || dimension === 'minutes') return text !== '' && Number.isFinite(Number(text)) ? Number(text) : null;
    const parsed = parseQuantity(text, dimension);
    return text !== '' && parsed.ok ? parsed.value : null;
  }

  private zones(width: number, height: number): Zone[] {
    const [columns, rows] = [Math.max(1, Math.round(this.figure('columns') ?? 1)), Math.max(1, Math.round(this.figure('rows') ?? 1))];
    const laid =
      this.text()['layout'] === 'nested'
        ? nestedZones(width, height, Math.min(12, columns))
        : gridZones(width, height, Math.min(20, columns), Math.min(20, rows));
    return laid.map((zone) => ({ ...zone, use: this.draft().uses[zone.id] ?? 'bear' }));
  }

  /** The face as it is described so far, to look at; null before its size is known. */
  protected readonly shown = computed((): Surface | null => {
    const bore = this.text()['shape'] === 'shell' ? this.figure('diameter') : undefined;
    const [width, height] = [this.figure('width'), bore === undefined ? this.figure('height') : bore && (Math.PI * bore) / 2];
    if (width === null || height === null || width <= 0 || height <= 0) return null;
    const known = this.known();
    const { text, mirrored } = this.draft();
    const figure = (field: string) => this.figure(field) ?? NaN;
    const [check, quantity] = text['aim'].split('/');
    return {
      ...{ id: known?.id ?? '', machineId: this.machineId() ?? '', version: known?.version ?? 0 },
      ...{ name: text['name'].trim(), part: text['part'].trim(), width, height, mirrored },
      use: text['use'] as Surface['use'],
      material: text['material'] as Surface['material'],
      ...(bore && { shell: { diameter: bore } }),
      target: known?.target ?? null,
      liner: text['material'] === 'liner' ? { thickness: 1000 * figure('thickness'), keep: 1000 * figure('keep') } : null,
      turned: Number(text['turned']) as Surface['turned'],
      // Zones that passes were counted on stay as they are.
      zones: known?.entries.some(({ kind }) => kind === 'pass') ? known.zones : this.zones(width, height),
      reference: {
        kitId: text['edge'] || null,
        name: this.edges().find(({ value }) => value !== '' && value === text['edge'])?.label ?? known?.reference.name ?? 'reference',
        length: figure('reference'),
      },
      aim: quantity
        ? { check, quantity, unit: this.aimUnit(), wanted: figure('wanted'), room: figure('room'), lever: figure('lever') }
        : null,
      passes: { rough: figure('rough'), fine: figure('fine'), keepFine: figure('keepFine') },
      evening: { session: figure('session'), setUp: figure('setUp'), cycle: figure('cycle') },
    };
  });
  protected readonly drawn = computed(() => {
    const zones = this.shown()?.zones ?? [];
    return zones.map((zone) => ({ zone, left: null, depth: null, grade: 'rough' as const, done: 0, angle: 45, share: null }));
  });

  protected print(): void {
    window.print();
  }

  /** What a plan of the casting asks of the whole face is the first plan at its desk. */
  private planDepth(surface: Surface): void {
    const depth = Number(this.depth());
    if (this.known() || !(depth > 0)) return;
    const depths = surface.zones.filter(({ use }) => use === 'bear').map(({ id }) => ({ zone: id, depth }));
    this.store.write(surface, { kind: 'plan', content: { depths, from: 'headstock', why: `all of it, as the plan of the casting asks` } });
  }

  protected save(event: Event): void {
    event.preventDefault();
    const surface = this.shown();
    if (!this.text()['name'].trim()) return this.problem.set('Name: is missing. Try: Saddle, flat way');
    const asked = [
      'width',
      this.text()['shape'] === 'shell' ? 'diameter' : 'height',
      'reference',
      'rough',
      'fine',
      'keepFine',
      'session',
      'setUp',
      'cycle',
      ...(this.text()['material'] === 'liner' ? ['thickness', 'keep'] : []),
      ...(this.text()['aim'] ? ['wanted', 'room', 'lever'] : []),
    ];
    const missing = asked.find((field) => this.figure(field) === null);
    if (missing !== undefined)
      return this.problem.set(
        `${FIGURES[missing].label}: ${this.text()[missing]?.trim() ? `"${this.text()[missing]}" cannot be read` : 'is missing'}. Try: ${FIGURES[missing].example}`,
      );
    if (!surface) return;
    const id = surface.id || crypto.randomUUID();
    this.store.save({ ...surface, id }).subscribe({
      next: () => {
        this.drafts.drop(this.draftName());
        this.planDepth({ ...surface, id });
        void this.router.navigate(['/machines', surface.machineId, 'scraping', id]);
      },
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}

/** A face as it was typed: figures with their units. */
function draftOf(surface: Surface): Draft {
  const { name, part, use, material, turned, aim, width, height, reference, passes, evening, liner, zones, mirrored, shell } = surface;
  const ys = new Set(zones.map(({ outline }) => Math.min(...outline.map(({ y }) => y)))).size;
  const nested =
    zones.length > 1 &&
    ys === zones.length &&
    zones.every(
      ({ outline }, i) => i === 0 || Math.min(...outline.map(({ x }) => x)) > Math.min(...zones[i - 1].outline.map(({ x }) => x)),
    );
  const text = {
    ...{
      name,
      part,
      use,
      material,
      turned: String(turned),
      layout: nested ? 'nested' : 'strips',
      aim: aim ? `${aim.check}/${aim.quantity}` : '',
    },
    ...{ width: `${width} mm`, height: `${height} mm`, reference: `${reference.length} mm`, edge: reference.kitId ?? '' },
    ...{ shape: shell ? 'shell' : 'flat', diameter: shell ? `${shell.diameter} mm` : '' },
    ...{ columns: String(nested ? zones.length : Math.round(zones.length / ys)), rows: String(nested ? 1 : ys) },
    ...{ rough: `${passes.rough} um`, fine: `${passes.fine} um`, keepFine: String(passes.keepFine) },
    ...{ session: String(evening.session), setUp: String(evening.setUp), cycle: String(evening.cycle) },
    ...{ thickness: liner ? `${liner.thickness / 1000} mm` : '', keep: liner ? `${liner.keep / 1000} mm` : '' },
    ...{ wanted: String(aim?.wanted ?? 0), room: String(aim?.room ?? 20), lever: aim ? String(aim.lever) : '' },
  };
  return { text, mirrored, uses: Object.fromEntries(zones.map(({ id, use: own }) => [id, own])) };
}
