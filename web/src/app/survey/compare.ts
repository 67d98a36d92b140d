import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { of, switchMap } from 'rxjs';
import { CHECKS } from '@isometra/core';
import type { RoundHead, WorkedHours } from '@isometra/contract';
import { compared, defaultPlan, type Compared, type Seen, type Side } from '@isometra/work';
import { Settings } from '../data/settings';
import { Worked } from '../data/worked';
import { dateWords } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { asking, orNothing } from '../ui/asking';
import { Glyph } from '../ui/glyph';
import { Pick } from '../ui/pick';
import { doubtTold, resultTold } from '../ui/result-told';
import { counted, moveWords, sizeOf } from '../ui/say';
import { Bent } from './bent';
import { hoursWords } from './hours-between';
import { bentBy } from '@isometra/work';
import { fittingOf } from '@isometra/work/pictures';

/** A side in the address: the survey's id, and "found" or "left". */
const sideText = ({ surveyId, when }: Side): string => `${surveyId}.${when}`;

function sideOf(text: string): Side | undefined {
  const [, surveyId, when] = /^(.+)\.(found|left)$/.exec(text) ?? [];
  return surveyId ? { surveyId, when: when as Side['when'] } : undefined;
}

/** Two surveys of a machine side by side, or one as found and as left: check by check, and as two pictures. */
@Component({
  selector: 'iso-compare',
  imports: [Bent, Glyph, Pick, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare.html',
  styleUrl: './compare.css',
})
export class Compare {
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);
  private readonly worked$ = inject(Worked);
  /** The sides, as they stand in the address. */
  readonly from = input('', { transform: orNothing });
  readonly to = input('', { transform: orNothing });

  private readonly machineId = computed(() => this.store.machine()?.id ?? '');
  private readonly hours = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.worked$.of(id) : of([])))), {
    initialValue: [] as readonly WorkedHours[],
  });

  constructor() {
    inject(AtHand).doing.set('Compare');
    this.store.refresh();
  }

  /** Surveys, the oldest first. */
  private readonly surveys = computed(() =>
    this.store
      .surveys()
      .filter(({ archived }) => !archived)
      .sort((one, other) => one.startedAt.localeCompare(other.startedAt)),
  );
  protected readonly options = computed(() =>
    this.surveys().flatMap(({ id, title }) => [
      { value: sideText({ surveyId: id, when: 'found' }), label: `${title}: as found` },
      { value: sideText({ surveyId: id, when: 'left' }), label: `${title}: as left` },
    ]),
  );

  private known(text: string): Side | undefined {
    const side = sideOf(text);
    return this.surveys().some(({ id }) => id === side?.surveyId) ? side : undefined;
  }

  /** What was asked for; else as the machine was found first, and as it was left last. */
  protected readonly one = computed(() => this.known(this.from()) ?? this.usual(this.surveys()[0]?.id, 'found'));
  protected readonly other = computed(() => this.known(this.to()) ?? this.usual(this.surveys().at(-1)?.id, 'left'));
  private usual(surveyId: string | undefined, when: Side['when']): Side | undefined {
    return surveyId === undefined ? undefined : { surveyId, when };
  }

  protected readonly picks = computed(() => [
    { asks: (from: string) => ({ from }), label: 'Before', value: this.one() ? sideText(this.one() as Side) : null },
    { asks: (to: string) => ({ to }), label: 'After', value: this.other() ? sideText(this.other() as Side) : null },
  ]);

  private readonly all = computed(() => {
    const [one, other] = [this.one(), this.other()];
    const order = this.store.survey()?.order ?? defaultPlan(this.store.kind()).order;
    return one && other ? compared(this.store.all(), one, other, order) : [];
  });

  /** What the rounds of each side said, for its picture. */
  protected readonly sides = computed(() => {
    const sides = [
      {
        name: 'Before',
        bending: bentBy(
          this.store.kind(),
          this.roundsOf(this.one(), ({ from }) => from),
        ),
      },
      {
        name: 'After',
        bending: bentBy(
          this.store.kind(),
          this.roundsOf(this.other(), ({ to }) => to),
        ),
      },
    ];
    const factor = Math.min(...sides.map(({ bending }) => fittingOf(bending)));
    return sides.map((side) => ({ ...side, factor }));
  });

  /** In a picture the last word counts: as left the newest stands last, as found the oldest, whichever method said it. */
  private roundsOf(side: Side | undefined, pick: (entry: Compared) => Seen | null): RoundHead[] {
    const rounds = [...new Set(this.all().flatMap((entry) => pick(entry)?.round ?? []))].sort((one, other) =>
      one.at.localeCompare(other.at),
    );
    return side?.when === 'found' ? rounds.reverse() : rounds;
  }

  protected readonly rows = computed(() =>
    this.all().map((entry) => {
      const { check, thing, name, from, to } = entry;
      const definition = CHECKS.get(check);
      return {
        key: [check, thing, name].join(' '),
        check,
        title: [definition?.title ?? check, thing].filter(Boolean).join(', '),
        label: definition?.quantities[name]?.label ?? name,
        from: this.cell(entry, from),
        to: this.cell(entry, to),
        once: from !== null && from.round.id === to?.round.id,
        change: this.changeWords(entry),
        between: this.between(entry),
        unlike: entry.unlike.join('; '),
        hours: hoursWords(this.worked().filter((one) => one.check === check)),
      };
    }),
  );

  /** Work that was timed in the surveys from the one to the other, whichever stands first. */
  private readonly worked = computed(() => {
    const order = this.surveys().map(({ id }) => id);
    const [from, to] = [this.one(), this.other()].map((side) => order.indexOf(side?.surveyId ?? '')).sort((one, other) => one - other);
    const among = new Set(order.slice(from, to + 1));
    return this.hours().filter(({ surveyId }) => surveyId !== null && among.has(surveyId));
  });
  /** Who worked how long in them. */
  protected readonly hoursIn = computed(() => {
    const words = hoursWords(this.worked());
    return words && `Hours in these surveys, as far as they were timed: ${words}.`;
  });

  /** How many quantities came in, went out, or are still out. */
  protected readonly sum = computed(() => {
    const both = this.all().filter(({ from, to }) => from && to);
    const many = (before: string, after: string): number =>
      both.filter(({ from, to }) => from?.quantity.verdict === before && to?.quantity.verdict === after).length;
    const parts = [
      [many('out', 'in'), 'came in'],
      [many('in', 'out'), 'went out'],
      [many('out', 'out'), 'still out'],
    ] as const;
    const told = parts.filter(([count]) => count).map(([count, words]) => `${count} ${words}`);
    return both.length ? [`${counted(both.length, 'result')} on both sides`, ...told].join(', ') : '';
  });

  private cell({ check, name }: Compared, seen: Seen | null) {
    const info = CHECKS.get(check)?.quantities[name];
    if (!seen || !info) return null;
    const { round, quantity } = seen;
    return {
      ...resultTold(quantity, info, this.settings.shown()),
      link: ['/machines', round.machineId, 'bench', round.check, round.id],
      round: `round ${round.number}, ${dateWords(round.at)}, ${round.by}`,
    };
  }

  private changeWords({ check, name, change, from }: Compared): string {
    const info = CHECKS.get(check)?.quantities[name];
    if (!change || !info) return '';
    const shown = this.settings.shown();
    const told = doubtTold(change.expanded, info, shown);
    const doubt = told && ` ${told}`;
    if (!change.sure)
      return `No change can be told${doubt && ` (${sizeOf(Math.abs(change.by), info, shown, change.expanded).large}${doubt})`}.`;
    const moved = moveWords(change.by, info, shown) || sizeOf(Math.abs(change.by), info, shown, from?.quantity.expanded).large;
    return `It went ${moved}${doubt}.`;
  }

  private between({ check, name, moves }: Compared): string {
    const info = CHECKS.get(check)?.quantities[name];
    const shown = this.settings.shown();
    return moves.map(({ amount, doneAt, by }) => `moved ${moveWords(amount, info, shown)}, ${dateWords(doneAt ?? '')}, ${by}`).join('; ');
  }

  protected readonly ask = asking();
}
