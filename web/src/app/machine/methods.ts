import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { CHECKS, COARSE_STEPS, taperEccentricity, type CheckDefinition, sentence, sizesIn, toYou } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { doneMoves, lastWords, methodsApart, staleWords, wayOfFinding } from '@isometra/work';
import { useKeys } from '../data/keys';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { AtHand } from '../shell/at-hand';
import { Button } from '../ui/controls';
import { Glyph } from '../ui/glyph';
import { bothUnits, callSentence, sideOf } from '../ui/say';
import { MachineStore } from './machine-store';
import { dateWords, timeWords } from '../data/when';

/** The ways to ask the same question, side by side, with what each last said. */
@Component({
  selector: 'iso-methods',
  imports: [RouterLink, Button, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './methods.html',
  styleUrl: './methods.css',
})
export class Methods {
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);
  private readonly surveys = inject(Surveys);
  protected readonly coarse = COARSE_STEPS;

  constructor() {
    inject(AtHand).doing.set('Which way to check');
    this.store.refresh();
    const router = inject(Router);
    // A machine without a tailstock has nothing to choose here: what is known of it comes first.
    effect(() => {
      const machine = this.store.machine();
      if (machine && this.tailstock().length === 0) void router.navigate(['/machines', machine.id, 'survey'], { replaceUrl: true });
    });
    useKeys([
      {
        shown: '1 … 3',
        does: 'measure that way',
        keys: ['1', '2', '3'],
        run: (event) => {
          const chosen = this.methods().at(Number(event.key) - 1);
          if (!chosen) return false;
          void router.navigate(['/machines', this.store.machine()?.id, 'bench', chosen.check.id]);
          return true;
        },
      },
    ]);
  }

  private readonly shown = this.settings.shown;

  /** What was seen at rough looks in this survey, newest first. */
  protected readonly looks = computed(() =>
    [...(this.store.survey()?.roughLooks ?? [])].reverse().map(({ id, step, seen, by, at }) => ({
      ...{ id, seen, by, when: timeWords(at) },
      title: COARSE_STEPS.find((entry) => entry.id === step)?.title ?? step,
    })),
  );
  protected saw(step: string, seen: string): void {
    const survey = this.store.survey();
    if (survey) this.surveys.note(survey, { kind: 'rough-look', content: { step, seen } });
  }
  protected takeBack(id: string): void {
    const survey = this.store.survey();
    if (survey) this.surveys.note(survey, { kind: 'withdrawn', content: {} }, id);
  }

  /** The ways that ask the same question about the tailstock. */
  private readonly tailstock = computed(() => this.store.rungs().filter((rung) => rung.check.sameQuestion === 'tailstock'));

  protected readonly howMany = computed(
    () => `${['One way', 'Two ways', 'Three ways'][this.tailstock().length - 1] ?? 'Several ways'} to check.`,
  );

  protected readonly methods = computed(() =>
    this.tailstock().map(({ check, state, round, stale }) => ({
      check,
      state,
      stale: stale && staleWords(stale),
      next: this.store.next()?.checkId === check.id,
      last: round && this.told(check, round),
      way: wayOfFinding(round?.finding, check),
      places: this.places(check),
    })),
  );

  private told(check: CheckDefinition, round: RoundHead) {
    const sentences = Object.entries(round.finding?.quantities ?? {})
      .filter(([, quantity]) => quantity.verdict !== null)
      .map(([name, quantity]) => callSentence(quantity, check.quantities[name], this.shown()));
    return { sentences, when: dateWords(round.at), by: round.by };
  }

  /** Places along the bed at which this check has been read. */
  private places(check: CheckDefinition): string[] {
    const places = new Set(
      this.store
        .of(check.id)
        .map((round) => round.conditions['place'])
        .filter((place) => place !== undefined),
    );
    return [...places].map((place) => bothUnits(Number(place), 'length', this.shown()).large);
  }

  protected readonly disagree = computed(() =>
    methodsApart(lastWords(this.store.rungs()))
      .filter(({ one }) => one.sameQuestion === 'tailstock')
      .map(({ text }) => ({ text: sentence(text, sizesIn(this.shown())) })),
  );

  /** Quill and centre both swept: the taper's eccentricity. */
  protected readonly eccentricity = computed(() => {
    // Only what has stood still between the two: later rounds of a survey, with no move after the first of them.
    const rounds = this.store.current();
    const swept = (what: string) => rounds.filter((round) => round.conditions['swept'] === what && round.finding).at(-1);
    const [quill, centre] = [swept('quill'), swept('centre')];
    if (!quill?.finding || !centre?.finding || quill.conditions['place'] !== centre.conditions['place']) return undefined;
    const [first, last] = [quill.at, centre.at].sort();
    const moved = doneMoves(rounds).some(({ check, doneAt }) => check.sameQuestion === 'tailstock' && doneAt >= first && doneAt <= last);
    const found = moved ? undefined : taperEccentricity(quill.finding, centre.finding);
    if (!found) return undefined;
    const { horizontal, vertical, radial } = found;
    const size = (um: number) => bothUnits(Math.abs(um), 'deviation', this.shown());
    if (radial !== null) return { ...size(radial), way: '' };
    const quantity = horizontal === null ? 'offsetVertical' : 'offsetHorizontal';
    const value = horizontal ?? vertical ?? 0;
    const way = toYou(sideOf(value, CHECKS.get(quill.check)?.quantities[quantity]));
    return { ...size(value), way: `${way}, by the ${horizontal === null ? 'heights' : 'sides'} alone` };
  });

  protected readonly twoAgree = computed(() => {
    const fresh = this.tailstock().filter((rung) => rung.round?.finding && rung.state !== 'stale');
    return fresh.length > 1 && this.disagree().length === 0;
  });
}
