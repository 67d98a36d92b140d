import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { type Remote, proxy, wrap } from 'comlink';
import { exampleFor, parseQuantity } from '@isometra/core';
import type { Print } from '@isometra/core/print';
import type { DeskEntry, Surface } from '@isometra/contract';
import { takesBites } from '@isometra/work';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Figure } from '../ui/figure';
import { File } from '../ui/file';
import { Notice } from '../ui/notice';
import { Progress } from '../ui/progress';
import { bothUnits } from '../ui/say';
import { Slide } from '../ui/slide';
import type { PrintWork } from '../workers/print.worker';

type PrintContent = Extract<DeskEntry, { kind: 'print' }>['content'];

interface Point {
  readonly x: number;
  readonly y: number;
}

const PRESSED: readonly Choice<'A' | 'B' | 'none'>[] = [
  { value: 'none', label: 'neither end pressed' },
  { value: 'A', label: 'end A pressed' },
  { value: 'B', label: 'end B pressed' },
];
/** How blue a zone looks, and the part of it that counts as blue. */
const BLUES: readonly (Choice<string> & { readonly share: number })[] = [
  { value: 'bare', label: 'bare', share: 0 },
  { value: 'light', label: 'light', share: 0.08 },
  { value: 'good', label: 'good', share: 0.25 },
  { value: 'heavy', label: 'heavy', share: 0.55 },
];
/** px to a mm that a spot wants. */
const LEAST_PER_MM = 3;
const STROKE = 0.025;

/** A photographed part of a face is no shorter than this, mm. */
const LEAST_PART = 5;

/** Area inside corners that go round, mm². */
const areaOf = (outline: readonly Point[]): number =>
  Math.abs(
    outline.reduce((sum, { x, y }, i) => sum + x * outline[(i + 1) % outline.length].y - outline[(i + 1) % outline.length].x * y, 0),
  ) / 2;

/** Read a print: by a photograph whose four corners are touched, or by counting. What was seen is laid over it to look it over. */
@Component({
  selector: 'iso-print-panel',
  imports: [Button, Choices, Field, Figure, File, Notice, Progress, Slide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './print-panel.html',
  styleUrl: './print-panel.css',
})
export class PrintPanel implements OnDestroy {
  readonly surface = input.required<Surface>();
  readonly film = input<number | null>(null);
  readonly pressedAtBlue = input<'A' | 'B' | null>(null);
  readonly read = output<PrintContent>();

  private readonly pictures = inject(Pictures);
  private readonly settings = inject(Settings);
  private worker: Worker | undefined;
  private work: Remote<PrintWork> | undefined;

  protected readonly pressedChoices = PRESSED;
  protected readonly file = signal<Blob | null>(null);
  protected readonly address = signal('');
  protected readonly natural = signal<{ readonly width: number; readonly height: number } | null>(null);
  protected readonly corners = signal<readonly Point[]>([]);
  protected readonly strokes = signal<readonly (Point & { readonly radius: number })[]>([]);
  protected readonly brushing = signal(false);
  protected readonly threshold = signal(50);
  protected readonly percent = signal(0);
  protected readonly running = signal(false);
  protected readonly print = signal<Print | null>(null);
  protected readonly problem = signal('');
  protected readonly filmText = signal<string | null>(null);
  protected readonly pressed = signal<'A' | 'B' | 'none' | null>(null);
  /** Where the end A of a straightedge lay that is shorter than the face. */
  protected readonly lay = signal('');
  protected readonly short = computed(() => takesBites(this.surface()));
  protected readonly byEye = signal(false);
  protected readonly spots = signal('');
  protected readonly picture = viewChild<ElementRef<HTMLCanvasElement>>('overlay');
  private tries = 0;

  /** The part of the face that a photograph shows, as it was typed; both empty where it shows all of it. */
  protected readonly partFrom = signal('');
  protected readonly partTo = signal('');
  protected readonly blues = BLUES;
  protected readonly bearing = computed(() => this.surface().zones.filter(({ use }) => use === 'bear'));
  /** How blue each zone that was touched looks. */
  protected readonly touched = signal<Readonly<Record<string, string>>>({});

  /** The part of the face that is photographed, mm from end A; null where what was typed is none. */
  private readonly part = computed((): { readonly from: number; readonly length: number } | null => {
    const { width } = this.surface();
    const read = (text: string, empty: number): number => {
      const parsed = text.trim() ? parseQuantity(text, 'length') : undefined;
      return parsed ? (parsed.ok ? parsed.value : NaN) : empty;
    };
    const [from, to] = [read(this.partFrom(), 0), read(this.partTo(), width)];
    return from >= 0 && to <= width + 0.5 && to - from >= LEAST_PART ? { from, length: Math.min(to, width) - from } : null;
  });
  private readonly inPart = computed(() => this.partFrom().trim() !== '' || this.partTo().trim() !== '');

  /** The corner, or the mark, that is to be touched next. */
  protected readonly asks = computed(() => {
    const part = this.part();
    if (!this.natural() || !part) return null;
    const say = (mm: number) => bothUnits(mm, 'length', this.settings.shown()).large;
    const [near, far] = this.inPart()
      ? [`the mark at ${say(part.from)} from end A`, `the mark at ${say(part.from + part.length)} from end A`]
      : ['the corner at end A', 'the corner at end B'];
    return [`${near}, above`, `${far}, above`, `${far}, below`, `${near}, below`][this.corners().length] ?? null;
  });
  /** So few pixels to a millimetre that spots run together; by the side that is shown smallest. */
  protected readonly coarse = computed(() => {
    const [corners, { height }, width] = [this.corners(), this.surface(), this.part()?.length ?? 0];
    if (corners.length < 4) return '';
    const sides = corners.map((corner, i) => {
      const next = corners[(i + 1) % 4];
      return Math.hypot(next.x - corner.x, next.y - corner.y) / (i % 2 === 0 ? width : height);
    });
    const least = Math.min(...sides);
    return least < LEAST_PER_MM
      ? `The photograph shows a millimetre by ${least.toFixed(1)} pixels, and ${LEAST_PER_MM} are wanted: small spots run together. Go nearer, or photograph the face in parts.`
      : '';
  });
  protected readonly filmShown = computed(() => this.filmText() ?? (this.film() === null ? '' : `${this.film()} um`));
  protected readonly pressedNow = computed(() => this.pressed() ?? this.pressedAtBlue() ?? 'none');
  protected readonly summary = computed(() => {
    const print = this.print();
    if (!print) return '';
    const bare =
      print.largestBare === null ? '' : `, largest bare circle ${bothUnits(print.largestBare, 'length', this.settings.shown()).large}`;
    return `${print.spots} spots${print.spotsPerSquare === null ? '' : `, ${print.spotsPerSquare.toFixed(1)} per square inch`}; ${Math.round(100 * print.bearingShare)} % bears${bare}.`;
  });

  constructor() {
    effect(() => this.draw(this.print()?.overlay, this.picture()?.nativeElement));
  }

  ngOnDestroy(): void {
    this.worker?.terminate();
    if (this.address()) URL.revokeObjectURL(this.address());
  }

  protected take(file: Blob): void {
    if (this.address()) URL.revokeObjectURL(this.address());
    this.stop();
    this.print.set(null);
    this.natural.set(null);
    this.corners.set([]);
    this.strokes.set([]);
    this.problem.set('');
    this.byEye.set(false);
    this.file.set(file);
    this.address.set(URL.createObjectURL(file));
  }

  protected loaded(image: HTMLImageElement): void {
    this.natural.set({ width: image.naturalWidth, height: image.naturalHeight });
  }

  /** The browser cannot show it: the reader says what it is instead. */
  protected unreadable(): void {
    void this.start();
  }

  /** A touch on the photograph: a corner, or a stroke of the brush. */
  protected touch(event: PointerEvent): void {
    const natural = this.natural();
    if (!natural) return;
    const area = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const point = {
      x: ((event.clientX - area.left) / area.width) * natural.width,
      y: ((event.clientY - area.top) / area.height) * natural.height,
    };
    if (this.brushing()) {
      this.strokes.update((all) => [...all, { ...point, radius: STROKE * natural.width }]);
      return;
    }
    if (this.corners().length >= 4) return;
    this.corners.update((all) => [...all, point]);
    if (this.corners().length === 4) void this.start();
  }

  protected again(): void {
    this.corners.set([]);
    this.print.set(null);
  }

  /** The whole photograph is the face. */
  protected whole(): void {
    const natural = this.natural();
    if (!natural) return;
    const { width, height } = natural;
    this.corners.set([
      { x: 0, y: 0 },
      { x: width, y: 0 },
      { x: width, y: height },
      { x: 0, y: height },
    ]);
    void this.start();
  }

  protected shift(threshold: number): void {
    this.threshold.set(threshold);
    if (this.print()) void this.start();
  }

  protected async start(): Promise<void> {
    const file = this.file();
    if (!file) return;
    const part = this.part();
    if (!part) return this.problem.set(this.partFault());
    const { height } = this.surface();
    const { from, length: width } = part;
    // As the face is laid flat: the part that is photographed begins at 0.
    const zones = this.surface()
      .zones.map((zone) => ({ ...zone, outline: zone.outline.map(({ x, y }) => ({ x: x - from, y })) }))
      .filter(({ outline }) => outline.some(({ x }) => x > 0) && outline.some(({ x }) => x < width));
    const mine = ++this.tries;
    this.worker ??= new Worker(new URL('../workers/print.worker', import.meta.url), { type: 'module' });
    this.work ??= wrap<PrintWork>(this.worker);
    this.running.set(true);
    this.percent.set(0);
    this.problem.set('');
    try {
      const scale = this.corners().length === 4 ? { scale: { corners: this.corners(), size: { width, height }, named: true } } : {};
      const settings = { ...scale, zones: scale.scale ? zones : [], strokes: this.strokes(), threshold: this.threshold() / 100 };
      const answer = await this.work.read(
        file,
        settings,
        proxy((done: number) => mine === this.tries && this.percent.set(Math.round(100 * done))),
      );
      if (mine !== this.tries) return;
      if ('problem' in answer) this.problem.set(answer.problem);
      else this.print.set(answer.print);
    } catch (error) {
      if (mine === this.tries) this.problem.set(`The photograph could not be read: ${(error as Error).message}`);
    } finally {
      if (mine === this.tries) this.running.set(false);
    }
  }

  /** The worker ends in the middle of what it does. */
  protected stop(): void {
    this.tries++;
    this.worker?.terminate();
    this.worker = this.work = undefined;
    this.running.set(false);
  }

  /** The photograph laid flat, with blue where blue was seen and grey where nothing counts. */
  private draw(overlay: Print['overlay'] | undefined, canvas: HTMLCanvasElement | undefined): void {
    if (!overlay || !canvas) return;
    [canvas.width, canvas.height] = [overlay.width, overlay.height];
    const image = new ImageData(overlay.width, overlay.height);
    for (let i = 0; i < overlay.kinds.length; i++) {
      const kind = overlay.kinds[i];
      for (let c = 0; c < 3; c++) image.data[4 * i + c] = kind === 2 ? 0.35 * overlay.rgb[3 * i + c] + 120 : overlay.rgb[3 * i + c];
      if (kind === 1) {
        image.data[4 * i] = 240;
        image.data[4 * i + 1] = 190;
        image.data[4 * i + 2] = 30;
      }
      image.data[4 * i + 3] = 255;
    }
    canvas.getContext('2d')?.putImageData(image, 0, 0);
  }

  protected readonly partProblem = computed(() => (this.part() ? '' : this.partFault()));
  private partFault(): string {
    const say = (mm: number) => bothUnits(mm, 'length', this.settings.shown()).large;
    const { width } = this.surface();
    return `The part that is photographed: must lie on the face, from 0 to ${say(width)}, and be ${say(LEAST_PART)} long at least. Example: 0 to ${say(Math.round(width / 2))}`;
  }

  protected touchZone(id: string, blue: string): void {
    this.touched.update((all) => ({ ...all, [id]: blue }));
  }

  private readonly filmSize = (text: string): string => exampleFor({ dimension: 'deviation', example: text }, this.settings.system());

  private filmOf(): number | null | undefined {
    const text = this.filmShown().trim();
    if (!text) return null;
    const parsed = parseQuantity(text, 'deviation');
    return parsed.ok && parsed.value > 0 && parsed.value <= 100 ? parsed.value : undefined;
  }

  /** The bite of a straightedge that does not reach all of the face; undefined where nobody said where it lay. */
  private bite(): Pick<PrintContent, 'bite'> | undefined {
    const part = this.part();
    if (this.file() && !this.byEye() && this.inPart()) {
      if (!part) this.problem.set(this.partFault());
      return part ? { bite: part } : undefined;
    }
    if (!this.short()) return {};
    const { width, reference } = this.surface();
    const parsed = this.lay().trim() ? parseQuantity(this.lay(), 'length') : undefined;
    if (!parsed?.ok || parsed.value < 0 || parsed.value + reference.length > width + 0.5) {
      const most = bothUnits(width - reference.length, 'length', this.settings.shown()).large;
      this.problem.set(`End A of the straightedge: must be from 0 to ${most}, along the face. Example: 0`);
      return undefined;
    }
    return { bite: { from: parsed.value, length: reference.length } };
  }

  private common(): Pick<PrintContent, 'film' | 'pressed' | 'bite'> | undefined {
    const film = this.filmOf();
    if (film === undefined) {
      this.problem.set(`Film: must be a thickness up to ${this.filmSize('100 um')}, or left empty. Example: ${this.filmSize('4 um')}`);
      return undefined;
    }
    const bite = this.bite();
    if (!bite) return undefined;
    const pressed = this.pressedNow();
    return { film, pressed: pressed === 'none' ? null : pressed, ...bite };
  }

  protected async keep(): Promise<void> {
    const [file, print, common] = [this.file(), this.print(), this.common()];
    if (!file || !print || !common) return;
    try {
      const picture = await this.pictures.keep(file);
      const { spots, spotsPerSquare, bearingShare, largestBare, zones } = print;
      const corners = this.corners().length === 4 ? [...this.corners()] : null;
      this.read.emit({
        ...common,
        picture,
        corners,
        threshold: this.threshold() / 100,
        result: { spots, spotsPerSquare, bearingShare, largestBare, zones: [...zones] },
      });
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  /** Told by eye: how blue each zone is, the spots of one square, or both. */
  protected keepCount(): void {
    const [typed, common] = [this.spots().trim(), this.common()];
    if (!common) return;
    const count = typed ? Number(typed) : 0;
    const zones = this.bearing().flatMap((zone) => {
      const blue = BLUES.find(({ value }) => value === this.touched()[zone.id]);
      return blue ? [{ id: zone.id, spots: 0, spotsPerSquare: 0, bearingShare: blue.share, area: areaOf(zone.outline) }] : [];
    });
    if (!typed && !zones.length)
      return this.problem.set('Where it is blue: touch each zone that you looked at, or count the spots in a square. Example: 12');
    if (!Number.isInteger(count) || count < 0 || count > 200)
      return this.problem.set('Spots in a square: must be a whole number. Example: 12');
    const result = { spots: count, spotsPerSquare: typed ? count : null, bearingShare: null, largestBare: null, zones };
    this.read.emit({ ...common, picture: null, corners: null, threshold: 0.5, result });
  }
}
