import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { COARSE_STEPS, taperEccentricity, type CheckDefinition, sentence, sizesIn } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { lastWords, methodsApart, staleWords, wayOfFinding } from '@isometra/work';
import { useKeys } from '../data/keys';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { Glyph } from '../ui/glyph';
import { bothUnits, callSentence } from '../ui/say';
import { MachineStore } from './machine-store';
import { dateWords } from '../data/when';

/** The ways to ask the same question, side by side, with what each last said. */
@Component({
  selector: 'iso-methods',
  imports: [RouterLink, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './methods.html',
  styleUrl: './methods.css',
})
export class Methods {
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);
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
    const swept = (what: string) =>
      this.store
        .all()
        .filter((round) => round.conditions['swept'] === what && round.finding)
        .pop();
    const [quill, centre] = [swept('quill')?.finding, swept('centre')?.finding];
    const found = quill && centre && taperEccentricity(quill, centre);
    return found && bothUnits(found.radial, 'deviation', this.shown());
  });

  protected readonly twoAgree = computed(() => {
    const fresh = this.tailstock().filter((rung) => rung.round?.finding && rung.state !== 'stale');
    return fresh.length > 1 && this.disagree().length === 0;
  });
}
