import { TestBed } from '@angular/core/testing';
import type { SurveyNote } from '@isometra/contract';
import { barRound, openShop, show, until, SURVEY } from '../testing/fake-shop.spec';
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
    await column.press('Where the doubt comes from');
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

  it('a value may be left as too small to matter: the work it does is told, a reason is asked, and the rung is left', async () => {
    const { column, server, desk, round } = await open(60, { graduation: '0.002 mm' });
    await column.press('Too small to matter?');
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
    await column.press('take that back');
    await until(() => server.sent.length === 2);
    expect(server.sent[1].body).toEqual(jasmine.objectContaining({ kind: 'withdrawn', supersedes: note.id }) as never);
    expect(desk.rungs().find((rung) => rung.check.id === 'tailstock-traverse')?.state).toBe('out');
  });

  it('what is in is not asked about', async () => {
    const { column } = await open(0, { graduation: '1 um' });
    expect(column.text()).not.toContain('Too small to matter?');
  });
});
