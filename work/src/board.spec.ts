import { plateOf } from './board.js';
import { campaignOf, freshSurvey } from './campaign.js';
import { Diary, finding, quantity } from './testing/heads.spec.js';

const NOW = '2026-06-01T08:00:00.000Z';

describe('a plate on the shop board', () => {
  const diary = new Diary();
  const survey = campaignOf(freshSurvey({ id: 'm', kind: 'engine-lathe' }, 's', 'As found', Diary.at(1)));
  const bed = (value: number, verdict: 'in' | 'out') =>
    diary.round('bed-twist', null, { finding: finding({ twistPerMetre: quantity({ value, limit: [-20, 20], verdict }) }) });

  it('of a machine that nobody has looked at asks for its first step, with nothing due and nothing known', () => {
    const plate = plateOf({ kind: 'engine-lathe', rounds: [], surveys: [], facts: { now: NOW } });
    expect(plate.next?.at).toBe('by-hand');
    expect(plate.strip.length).toBeGreaterThan(15);
    expect(new Set(plate.strip.map(({ state }) => state))).toEqual(new Set(['none']));
    expect([plate.due, plate.known]).toEqual([[], { facts: {} }]);
  });

  it('asks for what is out, with an arrow the way it is out', () => {
    const rounds = [bed(3, 'in'), bed(44, 'out')];
    const plate = plateOf({ kind: 'engine-lathe', rounds, surveys: [survey], facts: { now: Diary.at(4) } });
    expect(plate.survey).toBe('As found');
    expect(plate.next).toEqual(jasmine.objectContaining({ at: 'bench', id: 'bed-twist', round: rounds[1].id }));
    const rung = plate.strip.find(({ id }) => id === 'bed-twist');
    expect(rung?.state).toBe('out');
    expect(rung?.way).not.toBeNull();
    expect(plate.known).toEqual({ facts: { twistPerMetre: 44 } });
  });

  it('says what wants to be read again after a time, and by how much it is over it', () => {
    const facts = { kind: 'engine-lathe', rounds: [bed(3, 'in')], surveys: [survey], facts: { now: '2027-06-01T08:00:00.000Z' } };
    const [due] = plateOf(facts).due;
    expect(due.title).toBe('Bed twist');
    expect(due.days).toBeGreaterThan(100);
    const after = (days: number) => plateOf({ ...facts, facts: { ...facts.facts, again: [{ check: 'bed-twist', days }] } }).due;
    expect(after(3000)).toEqual([]);
    expect(after(1)[0].days).toBe(due.days + 29);
  });

  it('names two ways to the same answer that do not agree, once for the pair; not where one is no longer true', () => {
    const said = (check: string, value: number, more: object = {}) =>
      diary.round(check, null, {
        finding: finding({
          offsetHorizontal: quantity({ value, expanded: 4, verdict: 'in' }),
          offsetVertical: quantity({ value, expanded: 4, verdict: 'in' }),
        }),
        ...more,
      });
    const rounds = [said('tailstock-traverse', 2), said('tailstock-sweep', 30)];
    const plate = (all: typeof rounds) =>
      plateOf({ kind: 'engine-lathe', rounds: all, surveys: [survey], facts: { now: rounds[1].at } }).apart;
    expect(plate(rounds)).toEqual([{ one: 'Bar between centres', other: 'Sweep from the spindle' }]);
    expect(plate(rounds.slice(0, 1))).toEqual([]);
    expect(plate([rounds[0], said('tailstock-sweep', 4)])).toEqual([]);
  });
});
