import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { belowTheHand, machineFamily } from '@isometra/contract';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { Desk } from '../tailstock/desk';
import { Glyph } from '../ui/glyph';
import { bothUnits, isZero, type Shown } from '../ui/say';
import { ghostsOf } from './ghosts';
import { FRAME, fittingFactor, knownFrom, pictureOf, type KnownLathe } from './picture';

const FACTORS = [100, 200, 500, 1000, 2000, 5000];

/** The machine in plan and side view, bent by what is known about it, from as-found to now. */
@Component({
  selector: 'iso-survey',
  imports: [RouterLink, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './survey.html',
  styleUrl: './survey.css',
})
export class Survey {
  protected readonly desk = inject(Desk);
  private readonly settings = inject(Settings);
  protected readonly frame = FRAME;
  protected readonly factors = FACTORS;

  constructor() {
    inject(AtHand).doing.set('Survey');
    this.desk.refresh();
  }

  protected readonly lathe = computed(() => machineFamily(String(this.desk.machine()?.card.kind ?? '')) === 'lathe');
  /** Rounds that say something, in order of time: the stops of the slider. */
  protected readonly stops = computed(() =>
    [...this.desk.all()]
      .filter((round) => Object.keys(round.finding?.quantities ?? {}).length > 0)
      .sort((a, b) => a.at.localeCompare(b.at)),
  );
  private readonly last = computed(() => this.stops().length);
  /** Stays where it was put until another round is known. */
  protected readonly stop = linkedSignal(() => this.last());
  protected readonly known = computed(() => knownFrom(this.stops().slice(0, this.stop())));
  private readonly chosen = signal<number | null>(null);
  /** One factor for all of time, so that what is put right is seen to shrink. */
  private readonly fitting = computed(() =>
    Math.min(...this.stops().map((_, i) => fittingFactor(knownFrom(this.stops().slice(0, i + 1)))), 5000),
  );
  protected readonly factor = computed(() => this.chosen() ?? this.fitting());
  protected readonly picture = computed(() => pictureOf(this.known(), this.factor()));
  protected readonly when = computed(() => {
    const round = this.stops()[this.stop() - 1];
    return round ? new Date(round.at).toLocaleDateString(undefined, { dateStyle: 'medium' }) : 'before anything was measured';
  });
  /** Where things may stand by the survey's limits. */
  protected readonly ghosts = computed(() => ghostsOf(this.desk.survey()?.judge, this.factor()));

  protected readonly words = computed(() => {
    const known = this.known();
    const shown = { system: this.settings.system(), fineness: this.settings.fineness() };
    const say = (value: number | undefined, dimension: 'deviation' | 'slope' | 'twist', subject: string, plus: string, minus: string) => {
      if (value === undefined) return `${subject}: not measured.`;
      const { large } = bothUnits(value, dimension, shown);
      return isZero(large) ? `${subject}: nothing to be told from zero.` : `${subject}: ${large} ${value > 0 ? plus : minus}.`;
    };
    return [
      say(known.twistPerMetre, 'twist', 'Bed twist', 'your side rising toward the tailstock', 'your side falling toward the tailstock'),
      say(known.axisSlopeH, 'slope', 'Spindle axis', 'toward you', 'away from you'),
      say(known.axisSlopeV, 'slope', 'Spindle axis', 'up at its free end', 'down at its free end'),
      say(known.tailH, 'deviation', 'Tailstock', 'toward you', 'away from you'),
      say(known.tailV, 'deviation', 'Tailstock', 'high', 'low'),
      say(known.quillH, 'slope', 'Quill', 'toward you at its free end', 'away from you at its free end'),
      say(known.quillV, 'slope', 'Quill', 'up at its free end', 'down at its free end'),
      say(known.facing, 'slope', 'Cross slide', 'facing hollow', 'facing crowned'),
      this.wayWords(known.way, shown),
    ];
  });

  private wayWords(way: KnownLathe['way'], shown: Shown): string {
    if (!way?.length) return 'Carriage way: not measured.';
    const heights = way.map(({ height }) => height);
    return `Carriage way: within ${bothUnits(Math.max(...heights) - Math.min(...heights), 'deviation', shown).large} of its line, top to bottom.`;
  }

  protected readonly next = computed(() => {
    const step = this.desk.nextStep();
    if (step) return { title: step.title, why: step.why, link: ['..', 'by-hand', step.id], state: 'none' as const, does: 'Open it' };
    const next = this.desk.next();
    const rung = next && this.desk.rungs().find((entry) => entry.check.id === next.checkId);
    return (
      rung && { title: rung.check.title, why: next.why, link: ['..', 'bench', rung.check.id], state: rung.state, does: 'To the bench' }
    );
  });

  /** Limits that lie below what a hand moves: told once, here. */
  protected readonly soft = computed(() => {
    const judge = this.desk.survey()?.judge;
    const found = judge && belowTheHand(this.desk.rungs(), judge);
    if (!found?.below.length) return '';
    const shown = { system: this.settings.system(), fineness: this.settings.fineness() };
    const names = found.below.map(({ check, quantity }) => check.quantities[quantity].label);
    return `A hand’s push of 100 N moves it ${bothUnits(found.moved, 'deviation', shown, 1).large}: more than the whole zone of ${[...new Set(names)].join(', ')}. The machine will not hold these under a cut.`;
  });

  protected slide(text: string): void {
    this.stop.set(Number(text));
  }

  protected exaggerate(text: string): void {
    this.chosen.set(Number(text));
  }
}
