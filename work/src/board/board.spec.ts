import { plateOf } from './board.js';
import type { RoundHead } from '@isometra/contract';
import { campaignOf, freshSurvey } from '../ladder/campaign.js';
import { DeskDiary, face } from '../testing/surface.js';
import { Diary, finding, quantity } from '../testing/heads.js';

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
    const rounds = [said('tailstock-traverse', 2), said('tailstock-test-cut', 30)];
    const plate = (all: typeof rounds) =>
      plateOf({ kind: 'engine-lathe', rounds: all, surveys: [survey], facts: { now: rounds[1].at } }).apart;
    expect(plate(rounds)).toEqual([{ one: 'Bar between centres', other: 'Test cut' }]);
    expect(plate(rounds.slice(0, 1))).toEqual([]);
    expect(plate([rounds[0], said('tailstock-test-cut', 4)])).toEqual([]);
    // A sweep speaks of the spindle, a bar of the carriage: apart they need not be wrong.
    expect(plate([rounds[0], said('tailstock-sweep', 30)])).toEqual([]);
  });

  it('names the round that was left half read, as long as it is the last of its check', () => {
    const half = { ...diary.round('bed-twist', null), finding: null, last: 3 };
    const plate = (rounds: readonly RoundHead[]) => plateOf({ kind: 'engine-lathe', rounds, surveys: [survey], facts: { now: NOW } }).begun;
    expect(plate([half])).toEqual([{ check: 'bed-twist', title: 'Bed twist', round: half.id, readings: 3 }]);
    expect(plate([{ ...half, last: 0 }])).toEqual([]);
    expect(plate([half, bed(3, 'in')])).toEqual([]);
  });

  it('names faces with passes left; not one that is put away or held back', () => {
    const desk = new DeskDiary(face());
    desk.write('plan', { depths: [0, 12, 24, 46].map((depth, i) => ({ zone: String(i + 1), depth })), from: 'hand', why: 'as it is' });
    const scraped = { ...desk.surface, entries: desk.entries };
    const plate = (more: object) =>
      plateOf({ kind: 'engine-lathe', rounds: [], surveys: [survey], surfaces: [{ ...scraped, ...more }], facts: { now: NOW } }).faces;
    expect(plate({})).toEqual([{ id: scraped.id, name: scraped.name, left: 10 }]);
    expect(plate({ putAway: true })).toEqual([]);
    expect(plate({ heldBack: true })).toEqual([]);
  });
});
