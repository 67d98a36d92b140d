import { TestBed } from '@angular/core/testing';
import type { SurveyWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { barRound, openShop, show, survey } from '../testing/fake-shop.spec';
import { BenchStore } from './bench-store';
import { CallColumn } from './call-column';

describe('beside the call', () => {
  const open = async (offsetH: number, instrument: Record<string, unknown> = {}) => {
    const round = barRound(offsetH, 5, { instrument: { kind: 'lever', graduation: '0.01 mm', sense: 1, ...instrument } });
    const shop = openShop([round], [BenchStore]);
    shop.api.kit = [...shop.api.kit, { ...shop.api.kit[0], id: 'fine', name: 'Best dial', data: { kind: 'lever', graduation: '0.5 um' } }];
    shop.desk.load('lathe').subscribe();
    TestBed.inject(BenchStore).open(round);
    return { ...shop, round, column: await show(CallColumn) };
  };

  it('says what would help most, out of the kit, with the doubt it would leave', async () => {
    const { column } = await open(60);
    await column.press('Where the doubt comes from');
    expect(column.text()).toContain('What would help most: read it with “Best dial”, for ±');
    expect(column.text()).toContain('Or read each place 4 times: ± 9 µm.');
  });

  it('a value may be left as too small to matter: the work it does is told, a reason is asked, and the rung is left', async () => {
    const { column, api, desk, round } = await open(60);
    await column.press('Too small to matter?');
    expect(column.text()).toMatch(/It leaves 0\.1\d+ mm taper on diameter from centre to centre\./);
    await column.press('Leave it alone');
    expect(column.text()).toContain('Say why it may stay');
    const why = column.element.querySelector<HTMLInputElement>('[aria-label="Why it may stay"]') as HTMLInputElement;
    why.value = 'only drills are used in it';
    why.dispatchEvent(new Event('input'));
    await column.fixture.whenStable();
    await column.press('Leave it alone');
    const [entry] = (api.sent[0].body as SurveyWrite).accepted;
    expect(entry).toEqual(
      jasmine.objectContaining({ check: 'tailstock-traverse', quantity: 'offsetHorizontal', roundId: round.id, by: 'HB' }),
    );
    expect(entry.why).toMatch(/^only drills are used in it\. It leaves/);
    expect(desk.rungs().find((rung) => rung.check.id === 'tailstock-traverse')?.state).toBe('left');
    await column.press('take that back');
    expect((api.sent[1].body as SurveyWrite).accepted).toEqual([]);
  });

  it('somebody else’s change of the survey keeps what was typed', async () => {
    const { column, api } = await open(60);
    await column.press('Too small to matter?');
    const why = column.element.querySelector<HTMLInputElement>('[aria-label="Why it may stay"]') as HTMLInputElement;
    why.value = 'short work';
    why.dispatchEvent(new Event('input'));
    await column.fixture.whenStable();
    api.refuse = new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], { ...survey(), version: 6 });
    await column.press('Leave it alone');
    expect(column.text()).toContain('What you typed is still here');
    await column.press('Leave it alone');
    expect((api.sent[0].body as SurveyWrite).version).toBe(6);
  });

  it('what is in is not asked about', async () => {
    const { column } = await open(0, { graduation: '1 um' });
    expect(column.text()).not.toContain('Too small to matter?');
  });
});
