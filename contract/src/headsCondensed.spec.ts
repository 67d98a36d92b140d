import type { RoundHead } from './round.js';
import { condense, condensedHeadsSchema, expand } from './headsCondensed.js';

const head = (number: number, value: number, more: Partial<RoundHead> = {}): RoundHead => ({
  ...{
    id: `round-${number}`,
    machineId: 'm',
    surveyId: 's',
    check: 'bed-twist',
    number,
    instrumentName: 'Level',
    conditions: { bedClamp: 'on' },
  },
  ...{
    by: 'HB',
    at: new Date(1_767_225_600_000 + 60_000 * number).toISOString(),
    version: 1,
    last: 4,
    mounting: null,
    sense: 1 as const,
    moves: [],
  },
  finding: {
    quantities: { twistPerMetre: { value, unit: 'um/m', expanded: 2.5, direction: 'up', limit: [-20, 20], aim: 0, verdict: 'in' } },
    notes: [],
  },
  ...more,
});

describe('rounds in short on their way', () => {
  it('come back as they were, whatever they have or lack', () => {
    const heads = [head(1, 3.25), head(2, -4.5), head(3, 0, { finding: null }), head(4, 1, { unread: 2, ahead: true }), head(5, 3.25)];
    const sent = condense(heads);
    expect(sent.shared.length).toBe(3);
    expect(expand(JSON.parse(JSON.stringify(sent)))).toEqual(heads);
    expect(condensedHeadsSchema.parse(JSON.parse(JSON.stringify(sent)))).toEqual(heads);
    expect(expand(condense([]))).toEqual([]);
  });

  it('keep seven digits of a figure, and nothing where no doubt is known', () => {
    const [back] = expand(condense([head(1, 1 / 3)]));
    expect(back.finding?.quantities['twistPerMetre'].value).toBe(0.3333333);
    const none = head(1, 2);
    const open = {
      ...none,
      finding: { notes: [], quantities: { twistPerMetre: { ...none.finding!.quantities['twistPerMetre'], expanded: null } } },
    };
    expect(expand(condense([open]))).toEqual([open]);
  });

  it('ten thousand take less than a megabyte, and what is torn is refused', () => {
    const heads = Array.from({ length: 10_000 }, (_, i) => head(i, i / 7, { id: crypto.randomUUID() }));
    const text = JSON.stringify(condense(heads));
    expect(text.length).toBeLessThan(1_000_000);
    expect(text.length).toBeGreaterThan(400_000);
    const sent = condense(heads.slice(0, 3));
    expect(condensedHeadsSchema.safeParse({ ...sent, shared: [] }).success).toBeFalse();
    expect(condensedHeadsSchema.safeParse({ ...sent, shared: [{ machineId: 'm' }] }).success).toBeFalse();
  });
});
