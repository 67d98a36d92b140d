import type { StoredSurvey, SurveyNote } from '@isometra/contract';
import { roundSchema, roundWriteOf, surveySchema } from '@isometra/contract';
import { campaignOf, freshSurvey, judgingKey, pendingOf, running, surveyWriteOf } from './campaign.js';

const machine = { id: 'f3c2a5b0-8d0b-4a39-9a53-0a4a6b0f7c11', kind: 'bench-lathe' };
const fresh = freshSurvey(machine, '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2', 'As found', '2026-01-01T08:00:00.000Z');

describe('a survey', () => {
  it('begins with the ladder of its machine, cascade and its usual limits', () => {
    expect(fresh.order[0]).toBe('stiffness');
    expect(fresh.school).toBe('cascade');
    expect(fresh.judge.name).toBe('Light bench machine');
    expect(surveySchema.parse(surveyWriteOf(fresh))).toEqual(surveyWriteOf(fresh));
  });

  it('names what is wrong with it', () => {
    const bad = surveySchema.safeParse({
      ...surveyWriteOf(fresh),
      title: ' ',
      school: 'both',
      limits: { sheet: 'mine', version: 1 },
      skipped: [{ check: 'seat', by: 'HB', at: fresh.startedAt }],
    });
    expect(bad.error?.issues.map((issue) => issue.path.join('.'))).toEqual(['title', 'school', 'skipped.0.why', 'limits.sheet']);
  });

  it('the one that runs is the last that was not ended, or the last of all', () => {
    const ended = { ...fresh, endedAt: '2026-02-01T08:00:00.000Z' };
    expect(running([ended, fresh])).toBe(fresh);
    expect(running([fresh, ended])).toBe(fresh);
    expect(running([{ ...ended, title: 'first' }, ended])).toBe(ended);
    expect(running([])).toBeUndefined();
  });
});

describe('what is written down in a survey', () => {
  let count = 0;
  const note = (part: Pick<SurveyNote, 'kind' | 'content'> & { supersedes?: string }): SurveyNote =>
    ({ id: `n${++count}`, surveyId: fresh.id, supersedes: null, by: 'HB', at: `2026-01-02T08:00:0${count}.000Z`, ...part }) as SurveyNote;
  const written = (...notes: SurveyNote[]): StoredSurvey => ({ ...fresh, notes });
  beforeEach(() => (count = 0));

  it('is told apart by kind, signed and in its order', () => {
    const campaign = campaignOf(
      written(
        note({ kind: 'by-hand', content: { step: 'clean', note: null } }),
        note({ kind: 'acceptance', content: { check: 'seat', quantity: 'rock', roundId: 'r', why: 'small' } }),
        note({ kind: 'bearing', content: { endFloat: '5 um', drag: [], note: null } }),
      ),
    );
    expect(campaign.byHand).toEqual([{ id: 'n1', by: 'HB', at: '2026-01-02T08:00:01.000Z', step: 'clean', note: null }]);
    expect(campaign.accepted.map(({ why }) => why)).toEqual(['small']);
    expect(campaign.bearings.map(({ endFloat }) => endFloat)).toEqual(['5 um']);
  });

  it('gives way to what supersedes it, and a withdrawal leaves nothing', () => {
    const first = note({ kind: 'bearing', content: { endFloat: '5 um', drag: [], note: null } });
    const second = note({ kind: 'bearing', content: { endFloat: '7 um', drag: [], note: null }, supersedes: first.id });
    expect(campaignOf(written(first, second)).bearings.map(({ endFloat }) => endFloat)).toEqual(['7 um']);
    const gone = note({ kind: 'withdrawn', content: {}, supersedes: second.id });
    expect(campaignOf(written(first, second, gone)).bearings).toEqual([]);
  });

  it('a stand-in has the readings that were tied to it', () => {
    const standIn = note({ kind: 'stand-in', content: { check: 'spindle-axis', quantity: 'slopeV', where: 'nose' } });
    const tie = note({ kind: 'tie', content: { standIn: standIn.id, reading: '12 um', roundId: null, value: null } });
    const [log] = campaignOf(written(standIn, tie)).standIns;
    expect(log.where).toBe('nose');
    expect(log.entries.map(({ reading }) => reading)).toEqual(['12 um']);
  });

  it('a planned change shifts the judging until it is done, and another key is judged by', () => {
    const planned = note({ kind: 'planned', content: { change: { kind: 'weight', fields: { slope: '10 um/m' } } } });
    const before = campaignOf(written(planned));
    expect(pendingOf(before).slopeV).toBeCloseTo(10, 9);
    const after = campaignOf(written(planned, note({ kind: 'planned-done', content: { planned: planned.id } })));
    expect(after.planned[0].doneAt).toBe('2026-01-02T08:00:02.000Z');
    expect(pendingOf(after).slopeV).toBe(0);
    expect(judgingKey(before)).not.toBe(judgingKey(after));
    expect(judgingKey(after)).toBe(judgingKey(campaignOf(fresh)));
  });
});

describe('a round sent again', () => {
  it('leaves off all that was kept beside what was sent', () => {
    const sent = {
      ...{ id: crypto.randomUUID(), machineId: crypto.randomUUID(), check: 'bed-twist', setup: {}, plan: {}, instrument: null },
      ...{ instrumentName: null, conditions: {}, purpose: null, by: 'AB', at: '2026-01-01T08:00:00.000Z', version: 2 },
    };
    const shown = { ...sent, surveyId: 's', number: 4, readings: [], moves: [], finding: null, coreVersion: '1' };
    expect(roundWriteOf(shown)).toEqual(sent);
    expect(roundSchema.safeParse(roundWriteOf(shown)).success).toBeTrue();
    expect(roundSchema.safeParse(shown).success).toBeFalse();
  });
});
