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
const CORNERS = [
  'the corner at end A, above',
  'the corner at end B, above',
  'the corner at end B, below',
  'the corner at end A, below',
] as const;
/** px to a mm that a spot wants. */
const LEAST_PER_MM = 3;
const STROKE = 0.025;

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

  protected readonly asks = computed(() => (this.natural() ? (CORNERS[this.corners().length] ?? null) : null));
  /** So few pixels to a millimetre that spots run together; by the side that is shown smallest. */
  protected readonly coarse = computed(() => {
    const [corners, { width, height }] = [this.corners(), this.surface()];
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
    const { width, height, zones } = this.surface();
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

  private readonly filmSize = (text: string): string => exampleFor({ dimension: 'deviation', example: text }, this.settings.system());

  private filmOf(): number | null | undefined {
    const text = this.filmShown().trim();
    if (!text) return null;
    const parsed = parseQuantity(text, 'deviation');
    return parsed.ok && parsed.value > 0 && parsed.value <= 100 ? parsed.value : undefined;
  }

  /** The bite of a straightedge that does not reach all of the face; undefined where nobody said where it lay. */
  private bite(): Pick<PrintContent, 'bite'> | undefined {
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

  /** Counted over one square by eye. */
  protected keepCount(): void {
    const [count, common] = [Number(this.spots().trim()), this.common()];
    if (!common) return;
    if (!this.spots().trim() || !Number.isInteger(count) || count < 0 || count > 200)
      return this.problem.set('Spots in a square: must be a whole number. Example: 12');
    const result = { spots: count, spotsPerSquare: count, bearingShare: null, largestBare: null, zones: [] };
    this.read.emit({ ...common, picture: null, corners: null, threshold: 0.5, result });
  }
}
