import { TestBed } from '@angular/core/testing';
import { openShop, show, until, type Shown, SURVEY, LATHE, type TestRound } from '../testing/fake-shop';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { Ladder } from '../machine/ladder';
import { ByHandStep } from './by-hand';

describe('a step by hand', () => {
  const open = async (stepId: string, rounds: TestRound[] = []) => {
    const shop = await openShop(rounds);
    return { ...shop, page: await show(ByHandStep, { stepId }) };
  };
  const tickAll = async (page: Shown<ByHandStep>) => {
    for (const box of page.all('.point input')) box.click();
    await page.fixture.whenStable();
  };
  const note = async (page: Shown<ByHandStep>, text: string) => {
    const field = page.element.querySelector<HTMLInputElement>('iso-field input') as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
  };

  it('is asked for point by point, or for a word why one was left', async () => {
    const { page, server } = await open('clean');
    expect(page.text()).toContain('Isolate and lock out the machine');
    await page.press('It is done');
    expect(page.text()).toContain('6 points are not ticked');
    expect(server.sent).toEqual([]);
    await note(page, 'chuck left on');
    await page.press('It is done');
    await until(() => server.sent.length === 1);
    const [{ body }] = server.sent;
    expect([body.kind, body.by, body.content]).toEqual(['by-hand', 'HB', { step: 'clean', note: 'chuck left on' }]);
    expect(page.text()).toContain('HB: chuck left on');
  });

  it('what was typed and ticked outlives a reload', async () => {
    const { page, server } = await open('clean');
    await tickAll(page);
    await note(page, 'a crack at the rear foot');
    page.fixture.destroy();
    const again = await show(ByHandStep, { stepId: 'clean' });
    expect((again.element.querySelector('iso-field input') as HTMLInputElement).value).toBe('a crack at the rear foot');
    await again.press('It is done');
    await until(() => server.sent.length === 1);
    await again.fixture.whenStable();
    expect((again.element.querySelector('iso-field input') as HTMLInputElement).value).toBe('');
  });

  it('cleaning is the first thing on the ladder, the proof cut the last', async () => {
    await openShop();
    const ladder = await show(Ladder);
    const rungs = () => ladder.all('li').map((rung) => rung.querySelector('.name')?.textContent);
    expect(rungs()[0]).toBe('Clean and inspect');
    expect(rungs().at(-1)).toBe('Proof cut');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Clean and inspect']);
    TestBed.inject(Settings).who.set('AB');
    TestBed.inject(Surveys).note({ id: SURVEY, machineId: LATHE }, { kind: 'by-hand', content: { step: 'clean', note: null } });
    await ladder.fixture.whenStable();
    expect(ladder.all('li')[0].textContent).toContain('done, AB');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Stiffness']);
  });

  it('an unknown step is said to be none', async () => {
    const { page } = await open('oil');
    expect(page.text()).toContain('There is no such step');
  });
});
