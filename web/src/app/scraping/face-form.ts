import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { of, switchMap } from 'rxjs';
import { CHECKS, parseQuantity } from '@isometra/core';
import {
  CASTINGS,
  isFor,
  machineFamily,
  MATERIALS,
  SURFACE_USES,
  surfaceSchema,
  type StateThen,
  type StoredSurface,
  type Surface,
} from '@isometra/contract';
import { wedgePlan, type HighEnd } from '@isometra/work';
import { newId } from '../data/id';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Settings } from '../data/settings';
import { Surfaces } from '../data/surfaces';
import { MachineStore } from '../machine/machine-store';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { AtHand } from '../shell/at-hand';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Tick } from '../ui/tick';
import { aimInfoOf, asked, draftOf, draftSchema, faultIn, FIGURES, FIRST, surfaceFrom, type Draft, type FigureName } from './face-draft';
import { FaceFigures } from './face-figures';
import { FaceDrawing } from './face-drawing';
import type { Stroke } from './zone-stroke';

const words = (values: readonly string[], named: Readonly<Record<string, string>> = {}): Choice<string>[] =>
  values.map((value) => ({ value, label: named[value] ?? value.replace('-', ' ') }));
const NEXT_USE = { bear: 'relieve', relieve: 'ignore', ignore: 'bear' } as const;

/** What it is to be true by brings its usual room with it, where none was said. */
function withUsualRoom(text: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  const unit = text['room'] ? undefined : aimInfoOf(text)?.unit;
  return unit ? { ...text, room: `20 ${unit}` } : text;
}

/** A width is read across, and metal comes off square to a flank: its angle tells how they go together. Empty where it does not. */
function leverByAngle({ aim = '', mate = '', as = '', angle = '' }: Readonly<Partial<Record<string, string>>>): string {
  const parsed = parseQuantity(angle.trim() || '0', 'angle');
  const across = aim.startsWith('dovetail-over-pins/') && aimInfoOf({ aim })?.dimension === 'deviation';
  if (!across || !mate || as !== 'flank' || !parsed.ok || parsed.value <= 0 || parsed.value > 90) return '';
  return String(Number((1 / Math.sin((parsed.value * Math.PI) / 180)).toFixed(3)));
}

/** The same text, with a lever that follows from it: one that somebody typed stays. */
function withLever(before: Readonly<Record<string, string>>, text: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  const typed = text['lever'] !== '' && text['lever'] !== leverByAngle(before);
  return typed ? text : { ...text, lever: leverByAngle(text) };
}

/** A face to scrape: its size, its zones, what it is blued with, and what it is scraped true by. */
@Component({
  selector: 'iso-face-form',
  imports: [RouterLink, AsItStood, Button, Choices, Earlier, Field, Notice, Pick, Tick, FaceDrawing, FaceFigures],
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
  /** What it is to be true by, as a plan of its casting says: check/quantity. */
  readonly aim = input<string>();
  /** A wedge that comes off it instead, µm over all of it, and its high side as the face is drawn; its size, as it is typed. */
  readonly wedge = input<string>();
  readonly high = input<HighEnd>();
  readonly width = input<string>();
  readonly height = input<string>();
  /** By how much of its unit that goes for 1 µm off the face, in that plan. */
  readonly lever = input<string>();
  protected readonly desk = inject(MachineStore);
  private readonly store = inject(Surfaces);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  private readonly settings = inject(Settings);
  protected readonly problem = signal('');
  protected readonly FIGURES = FIGURES;
  protected readonly LAID: Readonly<Record<string, readonly FigureName[]>> = {
    strips: ['columns', 'rows'],
    nested: ['columns'],
    drawn: [],
  };
  protected readonly uses = words(SURFACE_USES, { moving: 'precision ways that move', general: 'general ways', fixed: 'a fixed joint' });
  protected readonly materials = words(MATERIALS);
  protected readonly layouts = words(['strips', 'nested', 'drawn'], {
    strips: 'a grid or strips',
    nested: 'one inside the other',
    drawn: 'drawn by hand',
  });
  protected readonly ways = words(['flank', 'plane'], { flank: 'the other flank of its dovetail', plane: 'one plane with it' });
  protected readonly endsA = words(['together', 'apart'], { together: 'at the same end', apart: 'at opposite ends' });
  /** Figures of one kind that this face needs. */
  protected readonly of = (names: readonly FigureName[]) => names.filter((name) => asked(this.draft()).includes(name));
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
      (known
        ? draftOf(known)
        : {
            ...FIRST,
            text: {
              ...FIRST.text,
              name: this.name() ?? '',
              part: this.part() ?? FIRST.text['part'],
              ...this.sizeText(),
              ...this.aimText(),
            },
          })
    );
  });
  private sizeText(): Readonly<Record<string, string>> {
    const [width, height] = [this.width(), this.height()];
    return { ...(width && { width }), ...(height && { height }) };
  }
  /** What the plan of the casting asks it to be true by, with the usual room of that. */
  private aimText(): Readonly<Record<string, string>> {
    const aim = this.aim();
    return aim && this.aims().some(({ value }) => value === aim) ? withUsualRoom({ aim, lever: this.lever() ?? '' }) : {};
  }
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

  /** Other faces of this machine. */
  protected readonly others = computed((): Choice<string>[] => [
    { value: '', label: 'no other face' },
    ...this.all()
      .filter(({ id, putAway }) => id !== this.surfaceId() && (!putAway || id === this.text()['mate']))
      .map(({ id, name }) => ({ value: id, label: name })),
  ]);

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
  constructor() {
    inject(AtHand).doing.set('A face to scrape');
    const id = this.machineId();
    if (id !== null) this.store.load(id).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected write(field: string, value: string): void {
    const text = { ...this.text(), [field]: value };
    this.change({ ...this.draft(), text: withLever(this.text(), field === 'aim' ? withUsualRoom(text) : text) });
  }
  protected mirror(mirrored: boolean): void {
    this.change({ ...this.draft(), mirrored });
  }
  protected holdBack(heldBack: boolean): void {
    this.change({ ...this.draft(), heldBack });
  }
  protected putAway(putAway: boolean): void {
    this.change({ ...this.draft(), putAway });
  }
  /** A stroke round a zone: it lies on what is there. */
  protected outline(stroke: Stroke): void {
    this.change({ ...this.draft(), drawn: [...this.draft().drawn, [...stroke]] });
  }
  protected takeAway(): void {
    const { drawn, uses } = this.draft();
    const last = this.drawn().at(-1)?.zone.id ?? '';
    this.change({
      ...this.draft(),
      drawn: drawn.slice(0, -1),
      uses: Object.fromEntries(Object.entries(uses).filter(([id]) => id !== last)),
    });
  }
  /** A touch on a zone goes through what it is there for. */
  protected turnUse(zone: string): void {
    const { uses } = this.draft();
    this.change({ ...this.draft(), uses: { ...uses, [zone]: NEXT_USE[uses[zone] ?? 'bear'] } });
  }
  /** An earlier state of the face that is looked at: the form shows it, and what was typed waits. */
  protected readonly then = signal<StateThen | null>(null);
  protected lookAt(then: StateThen): void {
    const known = this.known();
    if (!known) return;
    this.then.set(then);
    this.typed.set(draftOf(surfaceSchema.parse({ ...then.state, id: known.id, machineId: known.machineId, version: known.version })));
  }
  protected backToNow(): void {
    this.then.set(null);
    this.typed.set(null);
  }

  private change(draft: Draft): void {
    this.typed.set(draft);
    if (!this.then()) this.drafts.keep(this.draftName(), draft);
    this.problem.set('');
  }

  /** The face as it is described so far, to look at; null before its size is known. */
  protected readonly shown = computed((): Surface | null =>
    surfaceFrom(this.draft(), this.known(), {
      machineId: this.machineId() ?? '',
      edge: this.edges().find(({ value }) => value !== '' && value === this.text()['edge'])?.label,
    }),
  );
  /** Zones that passes were counted on are not drawn anew. */
  protected readonly fixed = computed(() => this.known()?.entries.some(({ kind }) => kind === 'pass') ?? false);
  protected readonly drawn = computed(() => {
    const zones = this.shown()?.zones ?? [];
    return zones.map((zone) => ({ zone, left: null, depth: null, grade: 'rough' as const, done: 0, angle: 45, share: null }));
  });

  protected print(): void {
    window.print();
  }

  /** What a plan of the casting asks of the whole face is the first plan at its desk. */
  private planDepth(surface: Surface): void {
    const [depth, wedge, high] = [Number(this.depth()), Number(this.wedge()), this.high()];
    if (this.known()) return;
    if (wedge > 0 && high) this.store.write(surface, { kind: 'plan', content: wedgePlan(surface, { wedge, high }) });
    if (!(depth > 0)) return;
    const depths = surface.zones.filter(({ use }) => use === 'bear').map(({ id }) => ({ zone: id, depth }));
    this.store.write(surface, { kind: 'plan', content: { depths, from: 'headstock', why: `all of it, as the plan of the casting asks` } });
  }

  protected save(event: Event): void {
    event.preventDefault();
    const surface = this.shown();
    const fault = faultIn(this.draft(), this.settings.system());
    if (fault !== undefined) return this.problem.set(fault);
    if (!surface) return;
    const id = surface.id || newId();
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
