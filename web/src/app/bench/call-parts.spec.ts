import { TestBed } from '@angular/core/testing';
import type { SurveyNote } from '@isometra/contract';
import { barRound, openShop, practiceRound, show, until, SURVEY, type TestRound } from '../testing/fake-shop';
import { openTurning, withValue, swept } from '../testing/swept';
import { BenchStore } from './bench-store';
import { CallColumn } from './call-column';

describe('beside the call', () => {
  const open = async (offsetH: number, instrument: Record<string, unknown> = {}) => {
    const round = barRound(offsetH, 5, { instrument: { kind: 'lever', graduation: '0.01 mm', sense: 1, ...instrument } });
    const shop = await openShop([round], {
      providers: [BenchStore],
      prepare: ({ kit }) => kit.push({ ...kit[0], id: 'fine', name: 'Best dial', data: { kind: 'lever', graduation: '0.5 um' } }),
    });
    const store = TestBed.inject(BenchStore);
    store.open(round.id).subscribe();
    await until(() => store.round() !== null);
    return { ...shop, round, column: await show(CallColumn) };
  };

  it('says what would help most, out of the kit, with the doubt it would leave', async () => {
    const { column } = await open(60);
    await column.press('What makes the ±');
    expect(column.text()).toContain('What would help most: read it with “Best dial”, for ±');
    expect(column.text()).toContain('Or read each place 4 times: ± 9 µm.');
  });

  it('of height and side the height is first, because opening the joint loses the side', async () => {
    const round = barRound(60, 80, { instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1 } });
    await openShop([round], { providers: [BenchStore] });
    const store = TestBed.inject(BenchStore);
    store.open(round.id).subscribe();
    await until(() => store.round() !== null);
    const text = (await show(CallColumn)).text();
    expect(text).toContain('Second: the tailstock height comes first, and opening the joint for it loses this.');
    expect(text).toContain('First: the tailstock sideways comes after it, from a new round.');
  });

  const lastOf = async (rounds: TestRound[]) => {
    await openShop(rounds, { providers: [BenchStore] });
    const store = TestBed.inject(BenchStore);
    store.open(rounds[rounds.length - 1].id).subscribe();
    await until(() => store.round() !== null);
    return show(CallColumn);
  };

  it('what became of the move before it is told on the bench of the round that shows it', async () => {
    const wrong = await lastOf([barRound(60, 9, { moves: [{}] }), barRound(118, 9)]);
    expect(wrong.text()).toMatch(/^The last move went the wrong way: 0\.058 mm toward you instead of 0\.060 mm away from you/);
    expect(wrong.all('.worn.bad').length).toBe(1);
    TestBed.resetTestingModule();
    const short = await lastOf([barRound(60, 9, { moves: [{}] }), barRound(30, 9)]);
    expect(short.text()).toContain('The last move went 0.030 mm away from you, of 0.060 mm away from you that were planned.');
    TestBed.resetTestingModule();
    const between = await lastOf([
      barRound(60, -30, { moves: [{}, { quantity: 'offsetVertical', kind: 'shim-leaves', amount: 35 }] }),
      barRound(90, 5),
    ]);
    // Said once of both.
    expect(between.text().match(/Another move of this check was made before it was read again/g)?.length).toBe(1);
    TestBed.resetTestingModule();
    const shim = await lastOf([
      barRound(2, -40, { moves: [{ quantity: 'offsetVertical', kind: 'shim-leaves', amount: 45 }] }),
      barRound(2, -85),
    ]);
    expect(shim.text()).toContain('Take out what was put in first: see the job card.');
    expect(shim.text()).not.toContain('Shim it');
    TestBed.resetTestingModule();
    const differs = await lastOf([barRound(60, 9), barRound(90, 9)]);
    expect(differs.text()).toMatch(/said 0\.060 mm toward you, this one says 0\.090 mm toward you, and nothing was moved in between/);
  });

  /** The call on the last of some rounds of a turning centre. */
  const turning = async (rounds: TestRound[]) => {
    const shop = await openTurning(rounds, {}, [BenchStore]);
    const store = TestBed.inject(BenchStore);
    store.open(rounds[rounds.length - 1].id).subscribe();
    await until(() => store.round() !== null);
    return { ...shop, text: (await show(CallColumn)).text() };
  };

  it('a sign that turned although nobody moved anything is said before anything else; not after a move', async () => {
    const { text } = await turning([swept('sub-spindle', 20, 0), swept('sub-spindle', -20, 0)]);
    expect(text).toMatch(/^Round \d+ said 0\.020 mm toward you, this one says 0\.020 mm away from you, and nothing was moved in between/);
    const moved = withValue(swept('sub-spindle', 20, 0), 200.0198);
    TestBed.resetTestingModule();
    const { text: after } = await turning([moved, swept('sub-spindle', -20, 0)]);
    expect(after).not.toContain('nothing was moved in between');
  });

  it('a pair on one line has its own verdict: the two readings are shown, the limit said as radial and in all', async () => {
    const readings = [315, 135].map((angle, i) => ({ angle, value: `${i ? 20 : -20} um` }));
    const instrument = { kind: 'plunger', graduation: '1 um', sense: 1 };
    const { text } = await turning([
      practiceRound({ check: 'sub-spindle', setup: { slant: '45' }, instrument, readings }, { conditions: { homed: 'yes' } }),
    ]);
    expect(text).toContain('The sub-spindle along the slide is');
    expect(text).toContain('0.020 mm toward you');
    expect(text).toContain('at most 0.008 mm either way, 0.016 mm between the two readings');
    expect(text).toContain('The two readings differ by 0.040 mm: half of it counts.');
    expect(text).toContain('Only one line was read');
  });

  it('bolts come before the register: on them it is tapped over along the slide too', async () => {
    const { text } = await turning([swept('turret-bore', 40, 25)]);
    expect(text.indexOf('Bolts must. First.')).toBeGreaterThan(0);
    expect(text).toContain(
      'The control can cure this. Do the bolts first: tapping the part over on its bolts changes this direction too. Then sweep again.',
    );
    expect(text.indexOf('Job card: bolts')).toBeLessThan(text.indexOf('Job card: register'));
  });

  it('the re-check of a value is said with what the control still wants', async () => {
    const { text } = await turning([withValue(swept('sub-spindle', 40, -40), 199.9434), swept('sub-spindle', 40, -40)]);
    expect(text).toContain('home A: Nothing has changed');
    expect(text).toContain('By the change sheet the control still needs this: home it 2 times more, and switch it off and on once more.');
  });

  it('a value may be left as too small to matter: the work it does is told, a reason is asked, and the rung is left', async () => {
    const { column, server, desk, round } = await open(60, { graduation: '0.002 mm' });
    await column.press('Leave it as it is, with a reason');
    expect(column.text()).toMatch(/It leaves 0\.1\d+ mm taper on diameter from centre to centre\./);
    await column.press('Leave it alone');
    expect(column.text()).toContain('Say why it may stay');
    const why = column.element.querySelector<HTMLInputElement>('[aria-label="Why it may stay"]') as HTMLInputElement;
    why.value = 'only drills are used in it';
    why.dispatchEvent(new Event('input'));
    await column.fixture.whenStable();
    await column.press('Leave it alone');
    await until(() => server.sent.length === 1);
    const note: SurveyNote = server.sent[0].body;
    if (note.kind !== 'acceptance') throw new Error(`a ${note.kind} was written down`);
    expect([note.surveyId, note.by]).toEqual([SURVEY, 'HB']);
    expect(note.content).toEqual(
      jasmine.objectContaining({ check: 'tailstock-traverse', quantity: 'offsetHorizontal', roundId: round.id }),
    );
    expect(note.content.why).toMatch(/^only drills are used in it\. It leaves/);
    expect(desk.rungs().find((rung) => rung.check.id === 'tailstock-traverse')?.state).toBe('left');
    await column.press('undo');
    await until(() => server.sent.length === 2);
    expect(server.sent[1].body).toEqual(jasmine.objectContaining({ kind: 'withdrawn', supersedes: note.id }) as never);
    expect(desk.rungs().find((rung) => rung.check.id === 'tailstock-traverse')?.state).toBe('out');
  });

  it('what is in is not asked about', async () => {
    const { column } = await open(0, { graduation: '1 um' });
    expect(column.text()).not.toContain('Leave it as it is, with a reason');
  });
});
