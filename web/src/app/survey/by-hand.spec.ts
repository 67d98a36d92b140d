import type { SurveyWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { type barRound, openShop, show, survey, until, type Shown } from '../testing/fake-shop.spec';
import { Ladder } from '../tailstock/ladder';
import { ByHandStep } from './by-hand';

describe('a step by hand', () => {
  const open = async (stepId: string, rounds = [] as ReturnType<typeof barRound>[]) => {
    const shop = openShop(rounds);
    return { ...shop, page: await show(ByHandStep, { stepId }) };
  };
  const tickAll = async (page: Shown<ByHandStep>) => {
    for (const box of page.all('.point input') as HTMLInputElement[]) {
      box.checked = true;
      box.dispatchEvent(new Event('change'));
    }
    await page.fixture.whenStable();
  };
  const note = async (page: Shown<ByHandStep>, text: string) => {
    const field = page.element.querySelector<HTMLInputElement>('.note input') as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
  };

  it('is asked for point by point, or for a word why one was left', async () => {
    const { page, api } = await open('clean');
    expect(page.text()).toContain('Isolate and lock out the machine');
    await page.press('It is done');
    expect(page.text()).toContain('6 points are not ticked');
    expect(api.sent).toEqual([]);
    await note(page, 'chuck left on');
    await page.press('It is done');
    const [{ body }] = api.sent;
    expect((body as SurveyWrite).byHand).toEqual([
      { step: 'clean', note: 'chuck left on', by: 'HB', at: jasmine.any(String) as unknown as string },
    ]);
    expect(page.text()).toContain('HB: chuck left on');
  });

  it('what was typed and ticked outlives a refusal and a reload', async () => {
    const { page, api } = await open('clean');
    await tickAll(page);
    await note(page, 'a crack at the rear foot');
    api.refuse = new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], { ...survey(), version: 6 });
    await page.press('It is done');
    expect(page.text()).toContain('Somebody else has changed this survey meanwhile');
    const again = await show(ByHandStep, { stepId: 'clean' });
    expect((again.element.querySelector('.note input') as HTMLInputElement).value).toBe('a crack at the rear foot');
    await again.press('It is done');
    await until(() => api.sent.length === 1);
    await again.fixture.whenStable();
    expect((again.element.querySelector('.note input') as HTMLInputElement).value).toBe('');
  });

  it('cleaning is the first thing on the ladder, the proof cut the last', async () => {
    const { desk } = openShop();
    const ladder = await show(Ladder);
    const rungs = () => ladder.all('li').map((rung) => rung.querySelector('.name')?.textContent);
    expect(rungs()[0]).toBe('Clean and inspect');
    expect(rungs().at(-1)).toBe('Proof cut');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Clean and inspect']);
    desk.keep({ ...survey(), byHand: [{ step: 'clean', note: null, by: 'AB', at: '2026-01-02T08:00:00.000Z' }] });
    await ladder.fixture.whenStable();
    expect(ladder.all('li')[0].textContent).toContain('done, AB');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Stiffness']);
  });

  it('an unknown step is said to be none', async () => {
    const { page } = await open('oil');
    expect(page.text()).toContain('There is no such step');
  });
});
