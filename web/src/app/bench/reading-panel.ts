import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  linkedSignal,
  output,
  viewChild,
} from '@angular/core';
import {
  dialDivisions,
  parseQuantity,
  readingValue,
  showSize,
  type UnitSystem,
  type ValueKind,
  sentence,
  sizesIn,
  type Said,
} from '@isometra/core';
import { leadHand } from '../ui/lead-hand';
import { Settings } from '../data/settings';
import { alike, formFaults } from '../ui/form-model';
import { Dial } from '../ui/dial';
import { asRead, flipSign, nudged, readingUnit } from './as-read';
import { BenchStore } from './bench-store';
import { PastedColumn } from './pasted';
import { Button, TextField } from '../ui/controls';
import { Choices, type Choice } from '../ui/choices';
import { Notice } from '../ui/notice';
import { SchemaForm } from '../ui/schema-form';

const FIELD_NAMES: Readonly<Record<ValueKind, string>> = {
  indicator: 'The dial reads',
  size: 'The diameter is',
  level: 'The level reads',
  gap: 'Thickest feeler that goes in',
  none: 'It reads',
};
const HINTS: Readonly<Record<UnitSystem, Readonly<Record<ValueKind, string>>>> = {
  mm: {
    indicator: 'A unit may be typed: 12 um, 0.5 thou, 5 1/2 div',
    size: 'A unit may be typed: 38.24 mm, 1.5055 in',
    level: 'A unit may be typed: 40 um/m, 8 arcsec, 1 1/2 div',
    gap: 'A unit may be typed: 0.04 mm, 1.5 thou',
    none: '',
  },
  inch: {
    indicator: 'A unit may be typed: 0.5 thou, 3 tenths, 5 1/2 div',
    size: 'A unit may be typed: 1.5055 in',
    level: 'A unit may be typed: 0.5 thou/ft, 8 arcsec, 1 1/2 div',
    gap: 'A unit may be typed: 1.5 thou',
    none: '',
  },
};

/** The one large field, the place it is for, and a dial that shows what the needle should look like. */
@Component({
  selector: 'iso-reading-panel',
  imports: [Dial, Button, TextField, Choices, Notice, SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reading-panel.html',
  styleUrl: './reading-panel.css',
})
export class ReadingPanel {
  readonly take = output<void>();
  protected readonly store = inject(BenchStore);
  private readonly settings = inject(Settings);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');

  protected readonly kind = computed(() => this.store.valueKind());
  protected readonly unit = computed(() => readingUnit(this.kind(), this.store.instrument(), this.settings.system()));
  protected readonly hasNeedle = computed(() => this.kind() === 'indicator' && this.store.instrument() !== undefined);
  private readonly parsed = computed(() =>
    readingValue(
      asRead(this.store.typed(), this.kind(), this.store.instrument(), this.settings.system()),
      this.kind(),
      this.store.instrument(),
    ),
  );
  /** Where the needle would stand for what is typed. */
  protected readonly needle = computed(() => {
    const [parsed, instrument] = [this.parsed(), this.store.instrument()];
    return parsed.ok && instrument && this.store.typed().trim() ? dialDivisions(parsed.value, instrument) : null;
  });
  protected readonly where = computed(() => {
    const at = this.store.current()?.keys['at'];
    return typeof at === 'number' ? showSize(at, 'length', this.settings.system(), 'coarse') : '';
  });
  /** Whether the place in hand may be moved: it is one of the user's own. */
  protected readonly movable = computed(() => this.store.current()?.movable !== undefined && this.where() !== '');

  /** The first place of another direction: the dial is set over for it, and its needle may count the other way now. */
  protected readonly setOver = computed(() => {
    const plane = this.store.current()?.keys['plane'];
    if (!this.hasNeedle() || plane === undefined) return false;
    const read = this.store.slots().filter(({ readings }) => readings.length > 0);
    return read.length > 0 && read.every(({ keys }) => keys['plane'] !== plane);
  });
  /** Which way it counts there, as somebody tried: as before, or the other way. */
  protected readonly countsAsBefore = linkedSignal<boolean, boolean | null>({ source: this.setOver, computation: () => null });
  protected readonly nudged: readonly Choice<boolean>[] = [
    { value: true, label: 'as before' },
    { value: false, label: 'the other way' },
  ];

  /** The place as typed; a bare figure is in the shown unit. What is no place stays as it is typed. */
  protected putAt(field: HTMLInputElement): void {
    const [slot, text] = [this.store.current(), field.value.trim()];
    if (!slot || text === '') return;
    const parsed = parseQuantity(text, 'length', this.settings.system() === 'mm' ? 'mm' : 'in');
    if (!parsed.ok) {
      this.store.fault.set(`The place "${text}" ${parsed.message}. Example: ${this.settings.system() === 'mm' ? '380 mm' : '15 in'}`);
      return;
    }
    this.store.placeAt(slot, Number(parsed.value.toFixed(3)));
    if (!this.store.fault()) field.value = '';
  }

  protected readonly reads = computed(() => this.store.current()?.readings.map((reading) => this.store.toldBy(reading)) ?? []);
  /** From the lowest to the highest of the readings of this place, as they would be read. */
  protected readonly spread = computed(() => {
    const [kind, instrument] = [this.kind(), this.store.instrument()];
    const values = (this.store.current()?.readings ?? []).flatMap((reading) => {
      const parsed = readingValue(reading.value, kind, instrument);
      return parsed.ok ? [parsed.value] : [];
    });
    if (values.length < 2) return '';
    return showSize(Math.max(...values) - Math.min(...values), kind === 'level' ? 'slope' : 'deviation', this.settings.system(), 'fine');
  });
  /** The needle was moved, not a text typed: Space (or a foot pedal that sends it) takes what it shows. */
  private live = false;
  protected readonly FIELD_NAMES = FIELD_NAMES;
  /** What a lever that stands at an angle does to what the dial shows; empty where it lies along the surface. */
  protected readonly lever = computed(() => {
    const { leverAngle = 0 } = this.store.instrument() ?? {};
    if (!this.hasNeedle() || Math.abs(leverAngle) < 1) return '';
    const part = Math.cos((leverAngle * Math.PI) / 180);
    return `Lever at ${Number(leverAngle.toFixed(1))}°: each division counts ${part.toFixed(2)}. Type what the dial shows.`;
  });
  protected readonly hint = computed(() => HINTS[this.settings.system()][this.kind()]);
  /** What is wrong with what is asked beside the figure. */
  protected readonly besideFaults = computed(() => {
    const { schema, typed } = this.store.besides;
    const asked = schema();
    return asked ? formFaults(asked, alike(asked, typed()), this.settings.system()) : [];
  });
  /** A place in the reader's units. */
  protected readonly said = (words: Said): string => sentence(words, sizesIn(this.settings.shown()));
  protected readonly whys = computed(() =>
    ['misread', 'typed wrong', ...(this.hasNeedle() ? ['needle was knocked', 'stylus slipped'] : ['part slipped'])].map((value) => ({
      value,
      label: value,
    })),
  );

  constructor() {
    afterNextRender(() => this.focus());
    // A reading that is put right: the hand is in the field, its figure ready to be typed over.
    const correcting = computed(() => this.store.correction()?.reading.id ?? null);
    effect(() => {
      if (correcting() === null) return;
      leadHand(this.injector, () => {
        this.field()?.nativeElement.select();
        return this.hand();
      });
    });
  }

  focus(): void {
    this.hand()?.focus();
  }

  /** Where the figure is typed. What is felt has none: the hand goes to what stands for it. */
  private hand(): HTMLInputElement | null {
    return this.field()?.nativeElement ?? this.host.nativeElement.querySelector<HTMLInputElement>('.beside input');
  }

  protected key(event: KeyboardEvent): void {
    const text = this.store.typed();
    // A hyphen in a figure joins a whole number and a fraction, 5-1/2: it is no sign. The arrows move a needle, in a text they move the cursor.
    if (event.key === '±') {
      event.preventDefault();
      this.store.type(flipSign(text));
    } else if ((event.key === 'ArrowLeft' || event.key === 'ArrowRight') && this.hasNeedle() && (text === '' || this.live)) {
      event.preventDefault();
      this.store.type(nudged(text, event.key === 'ArrowLeft' ? -1 : 1, this.store.instrument()?.readTo ?? 0.5));
      this.live = true;
    } else if (event.key === ' ' && this.live && text !== '') {
      this.submit(event);
    } else if (event.key === 'Escape' && this.store.correction()) {
      event.preventDefault();
      this.store.correction.set(null);
      this.store.type('');
    }
  }

  /** Which of several was meant is said: it is taken. */
  protected mean(choice: string): void {
    this.store.type(choice);
    this.take.emit();
    this.focus();
  }

  /** Two readings of one place that do not agree: the first goes, or both stay. */
  protected settle(how: 'replace' | 'keep'): void {
    if (how === 'replace') this.store.replaceFirst();
    else this.store.keepBoth();
    this.focus();
  }

  protected flip(): void {
    this.store.type(flipSign(this.store.typed()));
    this.focus();
  }

  protected write(text: string): void {
    this.live = false;
    this.store.type(text);
  }

  /** A column that was pasted, on its way into the round. */
  protected readonly column = new PastedColumn(this.store, {
    // The needle may count the other way from here on: only a hand can tell.
    stopped: () => this.setOver() && this.countsAsBefore() !== true,
    done: () => this.focus(),
  });

  protected paste(event: ClipboardEvent): void {
    const text = this.store.correction() ? '' : (event.clipboardData?.getData('text') ?? '');
    if (this.column.paste(text)) event.preventDefault();
  }

  protected submit(event: Event): void {
    event.preventDefault();
    this.live = false;
    this.column.told.set('');
    this.take.emit();
    // A reading typed and taken between two renderings leaves the binding as it was: empty the field here.
    const field = this.field()?.nativeElement;
    if (field) field.value = this.store.typed();
  }

  protected why(text: string): void {
    this.store.correction.update((correction) => correction && { ...correction, why: text });
  }

  protected readonly inOther = computed(() => {
    const parsed = this.parsed();
    if (!parsed.ok || !this.store.typed().trim() || this.kind() === 'level') return '';
    if (this.kind() === 'size') {
      const size = parseQuantity(parsed.value / 1000, 'length');
      return size.ok ? showSize(size.value, 'length', this.settings.system() === 'mm' ? 'inch' : 'mm', 'fine') : '';
    }
    const way = parsed.value === 0 ? '' : parsed.value > 0 ? ' toward the stylus' : ' away from the stylus';
    return showSize(parsed.value, 'deviation', this.settings.system(), 'fine') + way;
  });
}
