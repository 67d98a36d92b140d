import { TestBed } from '@angular/core/testing';
import type { SurveyWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { barRound, openShop, show, survey } from '../testing/fake-shop.spec';
import { Desk } from '../tailstock/desk';
import { Ladder } from '../tailstock/ladder';
import { Campaign } from './campaign';

describe('a survey as a campaign', () => {
  const open = async (rounds = [barRound(2, 5)]) => {
    const shop = openShop(rounds);
    return { ...shop, page: await show(Campaign) };
  };
  const order = (body: unknown) => (body as SurveyWrite).order;
  const press = (element: Element | null, key: string) => element?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));

  it('a rung moves with the keys on its grip, and the keyboard stays on it', async () => {
    const { api, page } = await open();
    const grip = () => page.element.querySelector<HTMLElement>('[data-rung="bed-twist"] .grip');
    grip()?.focus();
    const before = survey().order.indexOf('bed-twist');
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    expect(order(api.sent.at(-1)?.body).indexOf('bed-twist')).toBe(before - 2);
    expect(document.activeElement).toBe(grip());
    expect(page.text()).toContain('Bed twist is rung 1 now.');
    expect((api.sent[1].body as SurveyWrite).version).toBe(2);
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    expect(api.sent.length).toBe(2);
  });

  it('a rung put before what it hangs on says so, and the usual order can be had back', async () => {
    const { api, page } = await open();
    for (let i = 0; i < 20; i++) {
      page.element.querySelector<HTMLElement>('[data-rung="spindle-axis"] .up')?.click();
      await page.fixture.whenStable();
    }
    expect(page.text()).toContain('Spindle axis hangs on “Bed twist”');
    await page.press('Back to the usual order');
    expect(order(api.sent.at(-1)?.body)).toEqual(survey().order);
    expect(page.text()).not.toContain('hangs on');
  });

  it('a rung is left out with a reason, and taken up again', async () => {
    const { api, page, desk } = await open();
    await page.press('Leave out: Stiffness');
    await page.press('Leave it out');
    expect(page.text()).toContain('Say why this rung is left out');
    const why = page.element.querySelector<HTMLInputElement>('[aria-label="Why Stiffness is left out"]') as HTMLInputElement;
    why.value = 'known to be stiff';
    why.dispatchEvent(new Event('input'));
    await page.press('Leave it out');
    expect((api.sent[0].body as SurveyWrite).skipped[0]).toEqual(
      jasmine.objectContaining({ check: 'stiffness', why: 'known to be stiff', by: 'HB' }),
    );
    expect(desk.rungs()[0].state).toBe('left');
    const ladder = await show(Ladder);
    expect(ladder.text()).toContain('left out: known to be stiff');
    await page.press('Take up again: Stiffness');
    expect((api.sent[1].body as SurveyWrite).skipped).toEqual([]);
  });

  it('school and limit sheet are chosen; a newer version is offered', async () => {
    const { api, page, desk } = await open();
    (page.named('from the top').querySelector('input') as HTMLInputElement).dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
    expect((api.sent[0].body as SurveyWrite).school).toBe('top');
    const select = page.element.querySelector<HTMLSelectElement>('[aria-label="Limit sheet"]') as HTMLSelectElement;
    select.value = 'toolroom';
    select.dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
    expect((api.sent[1].body as SurveyWrite).limits).toEqual({ sheet: 'toolroom', version: 1 });
    expect(desk.survey()?.limits.sheet).toBe('toolroom');
  });

  it('somebody else’s change is shown and told', async () => {
    const { api, page } = await open();
    api.refuse = new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], { ...survey(), title: 'Theirs', version: 9 });
    const title = page.element.querySelector<HTMLInputElement>('[aria-label="Title of the survey"]') as HTMLInputElement;
    title.value = 'Mine';
    title.dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('Somebody else has changed this survey meanwhile');
    expect(TestBed.inject(Desk).survey()?.title).toBe('Theirs');
  });

  it('another survey begins with every rung to be read anew', async () => {
    const { api, page, desk } = await open();
    await page.press('Begin it');
    expect(page.text()).toContain('Title of the new survey is missing');
    const title = page.element.querySelector<HTMLInputElement>('[aria-label="Title of the new survey"]') as HTMLInputElement;
    title.value = 'After scraping';
    title.dispatchEvent(new Event('input'));
    await page.press('Begin it');
    expect(api.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: '/surveys' }));
    expect(desk.survey()?.title).toBe('After scraping');
    expect(desk.rungs().every((rung) => rung.state === 'none')).toBeTrue();
    expect(page.text()).toMatch(/As found: .*2026.*, 1 round/);
  });
});
