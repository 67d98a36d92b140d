import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { CHECKS, sentence, sizesIn } from '@isometra/core';
import { belowTheHand, factOf, methodsApart, tellingAfterEach, wayOfFinding } from '@isometra/work';
import { DrawingOut } from '../drawings/drawing-out';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { Glyph } from '../ui/glyph';
import { bothUnits } from '../ui/say';
import { latheWords, millWords, turningWords } from './known-words';
import { Bent } from './bent';
import { bentBy, withGhosts } from '@isometra/work';
import { fittingOf, turningHas } from '@isometra/work/pictures';
import { Pick } from '../ui/pick';
import { Slide } from '../ui/slide';
import { dateWords } from '../data/when';

const FACTORS = [100, 200, 500, 1000, 2000, 5000].map((value) => ({ value, label: `×${value}` }));

/** A day as it is written everywhere: "3 Mar 2026". */

/** The machine in plan and side view, bent by what is known about it, from as-found to now. */
@Component({
  selector: 'iso-survey',
  imports: [DrawingOut, Bent, RouterLink, Glyph, Pick, Slide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './survey.html',
  styleUrl: './survey.css',
})
export class Survey {
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);
  protected readonly factors = FACTORS;

  constructor() {
    inject(AtHand).doing.set('Survey');
    this.store.refresh();
  }

  /** Rounds that say something, in order of time: the stops of the slider. */
  protected readonly stops = computed(() =>
    [...this.store.all()]
      .filter((round) => Object.keys(round.finding?.quantities ?? {}).length > 0)
      .sort((a, b) => a.at.localeCompare(b.at)),
  );
  private readonly last = computed(() => this.stops().length);
  /** Stays where it was put until another round is known. */
  protected readonly stop = linkedSignal(() => this.last());
  private readonly sofar = computed(() => this.stops().slice(0, this.stop()));
  private readonly bending = computed(() => bentBy(this.store.kind(), this.sofar()));
  protected readonly chosen = signal<number | null>(null);
  /** One factor for all of time, so that what is put right is seen to shrink. */
  private readonly fitting = computed(() => {
    let factor = 5000;
    for (const rounds of tellingAfterEach(this.stops())) factor = Math.min(factor, fittingOf(bentBy(this.store.kind(), rounds)));
    return factor;
  });
  protected readonly factor = computed(() => this.chosen() ?? this.fitting());
  protected readonly drawn = computed(() => withGhosts(this.bending(), this.store.survey()?.judge, this.factor()));
  protected readonly when = computed(() => {
    const round = this.stops()[this.stop() - 1];
    return round ? dateWords(round.at) : 'before anything was measured';
  });
  protected readonly words = computed(() => {
    const [{ family, known }, shown] = [this.bending(), this.settings.shown()];
    if (family === 'turning-centre') return turningWords(known, turningHas(this.store.kind()), shown);
    if (family === 'mill') return millWords(known, shown);
    return [...latheWords(known, shown, this.toldBy()), ...this.disagreeing()];
  });

  /** The method that said it last, and when. */
  private readonly toldBy = computed(() => {
    const rounds = this.sofar();
    return (name: string): string => {
      const fact = factOf(rounds, name);
      return fact ? `${fact.check.title.toLowerCase()}, ${dateWords(fact.round.at)}` : '';
    };
  });
  /** Methods that answer the same question and do not agree, as they last spoke. */
  private readonly disagreeing = computed(() => {
    const rounds = this.sofar();
    const last = [...CHECKS.values()].flatMap((check) => {
      const round = rounds.findLast((entry) => entry.check === check.id && entry.finding && this.store.stale(entry.id) === undefined);
      return round?.finding ? [{ check, finding: round.finding }] : [];
    });
    return methodsApart(last).flatMap(({ text, byAxis }) => (byAxis ? [] : [sentence(text, sizesIn(this.settings.shown()))]));
  });

  protected readonly next = computed(() => {
    const step = this.store.nextStep();
    if (step)
      return { title: step.title, why: step.why, link: ['..', 'by-hand', step.id], state: 'none' as const, way: null, does: 'Open it' };
    const next = this.store.next();
    const rung = next && this.store.rungs().find((entry) => entry.check.id === next.checkId);
    return (
      rung && {
        title: rung.check.title,
        why: next.why,
        link: ['..', 'bench', rung.check.id, ...(next.roundId === null ? [] : [next.roundId])],
        state: rung.state,
        way: wayOfFinding({ quantities: rung.found }, rung.check),
        does: next.roundId === null ? 'To the bench' : 'To its move',
      }
    );
  });

  /** Limits that lie below what a hand moves: told once, here. */
  protected readonly soft = computed(() => {
    const judge = this.store.survey()?.judge;
    const found = judge && belowTheHand(this.store.rungs(), judge);
    if (!found?.below.length) return '';
    const shown = this.settings.shown();
    const names = found.below.map(({ check, quantity }) => check.quantities[quantity].label);
    return `A hand’s push of 100 N (22 lbf) moves it ${bothUnits(found.moved, 'deviation', shown, 1).large}: more than the whole zone of ${[...new Set(names)].join(', ')}. The machine will not hold these under a cut.`;
  });
}
