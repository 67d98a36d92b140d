import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal, untracked } from '@angular/core';
import * as z from 'zod';
import { SHIM_SPOTS, type Part } from '@isometra/contract';
import { conditionWords, needOf, nextStep, shimWords, type AssemblyStep } from '@isometra/work';
import { Drafts } from '../data/drafts';
import { nowText } from '../data/clock';
import { useKeys } from '../data/keys';
import { Settings } from '../data/settings';
import { StripDowns } from '../data/strip-downs';
import { dayWords, timeWords } from '../data/when';
import { MarkedPicture } from '../notes/marked-picture';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Tick } from '../ui/tick';
import { lengthIn } from './part-words';

const ticksSchema = z.array(z.string());
const UNKNOWN = 'nobody knows';

/** One part going back: what it looked like, what to look out for, what must be seen to before it counts as fitted. */
@Component({
  selector: 'iso-assembly',
  imports: [Button, MarkedPicture, Notice, Pick, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './assembly.html',
  styleUrl: './assembly.css',
})
export class Assembly {
  private readonly store = inject(StripDowns);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);
  readonly machineId = input.required<string>();
  readonly steps = input.required<readonly AssemblyStep[]>();
  /** The part that is looked at; the next one where none is named. */
  readonly chosen = input<string | null>(null);
  readonly fitted = output();

  protected readonly when = timeWords;
  protected readonly spots = [...SHIM_SPOTS.map((value) => ({ value, label: value })), { value: UNKNOWN, label: UNKNOWN }];
  protected readonly next = computed(() => nextStep(this.steps()));
  protected readonly step = computed(() => this.steps().find(({ part }) => part.id === this.chosen()) ?? this.next());
  private readonly draftName = computed(() => `fitting ${this.step()?.part.id ?? ''}`);
  /** What is ticked of the part; kept until it is fitted. */
  private readonly ticked = linkedSignal({
    source: () => this.step()?.part.id,
    computation: () => untracked(() => this.drafts.read(this.draftName(), ticksSchema) ?? []),
  });
  protected readonly problem = linkedSignal({ source: () => this.step()?.part.id, computation: () => '' });
  /** Shims whose corner nobody knows, and that is settled. */
  private readonly given = signal<readonly string[]>([]);

  /** Shims of which the corner has to be told first. */
  protected readonly asked = computed(() => {
    const step = this.step();
    const length = lengthIn(this.settings.shown());
    return (step?.corners ?? []).flatMap((place) => {
      const shim = step?.details.shims?.[place];
      return step && shim ? [{ place, words: shimWords(shim, length), open: !this.given().includes(`${step.part.id} ${place}`) }] : [];
    });
  });
  /** What is ticked before it goes on; a shim only once its corner is told. */
  protected readonly checks = computed(() => {
    const open = new Set(this.asked().flatMap(({ place, open: is }) => (is ? [`shim ${place}`] : [])));
    return (this.step()?.checks ?? [])
      .filter(({ key }) => !open.has(key))
      .map((check) => ({ ...check, on: this.ticked().includes(check.key) }));
  });
  protected readonly missing = computed(() => {
    const step = this.step();
    if (!step) return '';
    if (this.asked().some(({ open }) => open)) return 'Say first at which corner the shim was found.';
    return this.checks().some(({ on }) => !on) ? 'Tick what has been done first.' : '';
  });
  protected readonly wanting = computed(() => {
    const part = this.step()?.part;
    const need = part && needOf(part);
    if (!part || !need || need.state === 'done' || part.fitted) return '';
    const expected = need.expected ? `, expected ${dayWords(need.expected)}` : '';
    return need.state === 'ordered' ? `Not here yet: ${conditionWords(part)}, ordered${expected}.` : '';
  });
  /** What comes before it in the order of assembly and is not fitted. */
  protected readonly before = computed(() => {
    const [step, next] = [this.step(), this.next()];
    if (!step || !next || step.part.fitted || step.part.id === next.part.id) return '';
    return `Part ${next.part.number}, ${next.details.name}, came off after this one: it goes back first.`;
  });

  constructor() {
    useKeys([
      { shown: 'Space', does: 'tick the next line', keys: [' '], run: () => this.tickNext() },
      { shown: 'Enter', does: 'part fitted', keys: ['Enter'], run: () => this.fit() },
    ]);
  }

  protected tick(key: string, on: boolean): void {
    const others = this.ticked().filter((entry) => entry !== key);
    this.ticked.set(on ? [...others, key] : others);
    this.drafts.keep(this.draftName(), this.ticked());
    this.problem.set('');
  }

  private tickNext(): boolean | void {
    const open = this.checks().find(({ on }) => !on);
    return open && !this.step()?.part.fitted ? this.tick(open.key, true) : false;
  }

  /** At which corner a shim was found: kept with the part, as if it had been written down then. */
  protected tellCorner(place: number, at: string): void {
    const step = this.step();
    if (!step) return;
    if (at === UNKNOWN) return this.given.update((known) => [...known, `${step.part.id} ${place}`]);
    const shims = (step.part.details['shims'] as readonly object[]).map((shim, i) => (i === place ? { ...shim, at } : shim));
    this.store.change(this.machineId(), step.part, { details: { ...step.part.details, shims } }, 'Corner of a shim');
  }

  protected fit(): boolean | void {
    const step = this.step();
    if (!step || step.part.fitted) return false;
    const why = step.first ?? (this.missing() || this.wanting());
    if (why) return this.problem.set(why);
    const ticks = this.checks().map(({ key }) => key);
    const need = needOf(step.part);
    this.store.change(
      this.machineId(),
      step.part,
      {
        fitted: { by: this.settings.by(), at: nowText(), ticks },
        // What had to be done to it was ticked: it is done.
        ...(need && { need: { ...need, state: 'done' } }),
      },
      `Part ${step.part.number} fitted`,
    );
    this.drafts.drop(this.draftName());
    this.fitted.emit();
  }

  protected takeOff({ number, ...part }: Part): void {
    this.store.change(this.machineId(), { number, ...part }, { fitted: null }, `Part ${number} not fitted after all`);
  }
}
