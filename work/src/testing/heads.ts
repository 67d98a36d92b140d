import type { FindingHead, MoveWrite, NoteHead, QuantityHead, RoundHead } from '@isometra/contract';

type Verdict = 'in' | 'out' | 'unsure';

/** Makes ids and times for one spec: days that follow one another. */
export class Diary {
  private day = 0;

  /** Time of a day after the first, as stored. */
  static at(day: number, hour = 8): string {
    return new Date(Date.UTC(2026, 1, day, hour)).toISOString();
  }

  /** The head of a round on the next day, with one quantity `q` or those that are given. */
  round(
    check: string,
    verdict: Verdict | null,
    more: Partial<RoundHead> & { moved?: number | null; place?: number; value?: number } = {},
  ): RoundHead {
    this.day += 1;
    const { moved, place, value = 1, ...rest } = more;
    const at = Diary.at(this.day);
    return {
      id: `${check}${this.day}`,
      machineId: 'm',
      surveyId: 's',
      number: this.day,
      check,
      instrumentName: null,
      mounting: null,
      sense: null,
      conditions: place === undefined ? {} : { place },
      by: 'HB',
      at,
      version: 1,
      last: 2,
      moves: moved === undefined ? [] : [move({ begunAt: Diary.at(this.day, 9), doneAt: moved === null ? null : Diary.at(moved, 10) })],
      finding: finding(verdict ? { q: quantity({ verdict, value }) } : {}),
      ...rest,
    };
  }

  /** A round on the next day that was moved an hour later. */
  moved(check: string, verdict: Verdict | null = 'out'): RoundHead {
    return this.round(check, verdict, { moved: this.day + 1 });
  }
}

export const quantity = (part: Partial<QuantityHead> = {}): QuantityHead => ({
  value: 1,
  unit: 'um',
  expanded: 1,
  direction: '',
  limit: [-5, 5],
  aim: 0,
  verdict: 'in',
  ...part,
});

export const finding = (quantities: FindingHead['quantities'], notes: readonly NoteHead[] = []): FindingHead => ({ quantities, notes });

export const move = (part: Partial<MoveWrite> = {}): MoveWrite => ({
  id: 'v',
  roundId: 'r',
  kind: 'adjuster',
  quantity: 'q',
  amount: -30,
  unit: 'um',
  direction: 'forward',
  plan: {},
  ticks: [],
  shift: null,
  by: 'HB',
  begunAt: Diary.at(1, 9),
  doneAt: Diary.at(1, 10),
  version: 1,
  ...part,
});
