import { TestBed } from '@angular/core/testing';
import type { SurveyWrite } from '@isometra/contract';
import { barRound, openShop, show, survey, until, refusal } from '../testing/fake-shop';
import { MachineStore } from '../machine/machine-store';
import { Ladder } from '../machine/ladder';
import { Campaign } from './campaign';

describe('a survey as a campaign', () => {
  const open = async (rounds = [barRound(2, 5)]) => {
    const shop = await openShop(rounds);
    return { ...shop, page: await show(Campaign) };
  };
  const order = (body: unknown) => (body as SurveyWrite).order;
  const press = (element: Element | null, key: string) => element?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));

  it('a rung moves with the keys on its grip, and the keyboard stays on it', async () => {
    const { server, page } = await open();
    const grip = () => page.element.querySelector<HTMLElement>('[data-rung="bed-twist"] .grip');
    grip()?.focus();
    const before = survey().order.indexOf('bed-twist');
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    await until(() => server.sent.length === 2);
    expect(order(server.sent.at(-1)?.body).indexOf('bed-twist')).toBe(before - 2);
    expect(document.activeElement).toBe(grip());
    expect(page.text()).toContain('Bed twist is check 1 now.');
    expect((server.sent[1].body as SurveyWrite).version).toBe(2);
    press(grip(), 'ArrowUp');
    await page.fixture.whenStable();
    expect(server.sent.length).toBe(2);
  });

  it('an earlier survey goes into the archive and comes out again; the one that runs is not offered for it', async () => {
    const earlier = { ...survey(), id: crypto.randomUUID(), title: 'Spring', endedAt: '2026-02-01T08:00:00.000Z' };
    const shop = await openShop([], { prepare: (server) => void (server.surveys = [earlier, survey()]) });
    const page = await show(Campaign);
    expect(page.all('iso-archive').length).toBe(1);
    await page.press('Archive Spring');
    await until(() => shop.server.surveys[0].archived !== undefined);
    await until(() => page.text().includes('In the archive since'));
    expect(page.all('[aria-label="Resume Spring"]').length).toBe(0);
    await page.press('Restore Spring');
    await until(() => page.all('[aria-label="Resume Spring"]').length === 1);
  });

  it('is looked at as it stood, and put back as a new change', async () => {
    const { title, school, order, skipped, limits } = survey();
    const shop = await openShop([], {
      prepare: (server) => {
        server.surveys = [{ ...survey(), version: 2, title: 'Autumn' }];
        server.states = [
          { version: 2, by: 'SD', at: '2026-03-02T08:00:00.000Z', changes: [{ field: 'Title', from: title, to: 'Autumn' }], state: {} },
          { version: 1, by: null, at: null, changes: [], state: { title, school, order: order.slice(1), skipped, limits } },
        ];
      },
    });
    const page = await show(Campaign);
    page.all('iso-earlier details')[0].setAttribute('open', '');
    page.all('iso-earlier details')[0].dispatchEvent(new Event('toggle'));
    await until(() => page.text().includes('Title: As found to Autumn'));
    await page.press(/^Look at it as it stood/);
    await until(() => page.text().includes('This is how it stood before its first change.'));
    expect(page.all('[aria-label="Checks in order, as it stood"] li').length).toBe(order.length - 1);
    await page.press('Put this back');
    await until(() => shop.server.sent.length === 1);
    expect([
      (shop.server.sent[0].body as SurveyWrite).title,
      order.length - (shop.server.sent[0].body as SurveyWrite).order.length,
    ]).toEqual([title, 1]);
  });

  it('a rung put before what it hangs on says so, and the usual order can be had back', async () => {
    const { server, page } = await open();
    for (let i = 0; i < 20; i++) {
      page.element.querySelector<HTMLElement>('[data-rung="spindle-axis"] .up')?.click();
      await page.fixture.whenStable();
    }
    expect(page.text()).toContain('Spindle axis depends on “Bed twist”');
    await page.press('Back to the usual order');
    await until(() => JSON.stringify(server.surveys[0].order) === JSON.stringify(survey().order));
    expect(order(server.sent.at(-1)?.body)).toEqual(survey().order);
    expect(page.text()).not.toContain('depends on “');
  });

  it('a rung is left out with a reason, and taken up again', async () => {
    const { server, page, desk } = await open();
    await page.press('Leave out: Stiffness');
    // The hand is put where the answer goes; Escape leaves it.
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Why Stiffness is left out');
    document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    await page.fixture.whenStable();
    expect(page.element.querySelector('[aria-label="Why Stiffness is left out"]')).toBeNull();
    await page.press('Leave out: Stiffness');
    await page.press('Leave it out');
    expect(page.text()).toContain('A reason is required');
    const why = page.element.querySelector<HTMLInputElement>('[aria-label="Why Stiffness is left out"]') as HTMLInputElement;
    why.value = 'known to be stiff';
    why.dispatchEvent(new Event('input'));
    await page.press('Leave it out');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as SurveyWrite).skipped[0]).toEqual(
      jasmine.objectContaining({ check: 'stiffness', why: 'known to be stiff', by: 'HB' }),
    );
    expect(desk.rungs()[0].state).toBe('left');
    const ladder = await show(Ladder);
    expect(ladder.text()).toContain('left out: known to be stiff');
    await page.press('Include again: Stiffness');
    await until(() => server.sent.length === 2);
    expect((server.sent[1].body as SurveyWrite).skipped).toEqual([]);
  });

  it('school and limit sheet are chosen; a newer version is offered', async () => {
    const { server, page, desk } = await open();
    await page.choose('from the top');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as SurveyWrite).school).toBe('top');
    await page.pick('Limit sheet', 'Toolroom');
    await until(() => server.sent.length === 2);
    expect((server.sent[1].body as SurveyWrite).limits).toEqual({ sheet: 'toolroom', version: 1 });
    expect(desk.survey()?.limits.sheet).toBe('toolroom');
  });

  it('somebody else’s change is shown and told', async () => {
    const { server, page } = await open();
    server.refuse = refusal(409, 'changed', { ...survey(), title: 'Theirs', version: 9 });
    const title = page.element.querySelector<HTMLInputElement>('[aria-label="Title of the survey"]') as HTMLInputElement;
    title.value = 'Mine';
    title.dispatchEvent(new Event('change'));
    await until(() => page.text().includes('Somebody else'));
    expect(page.text()).toContain('Somebody else has changed this survey meanwhile');
    expect(TestBed.inject(MachineStore).survey()?.title).toBe('Theirs');
  });

  it('an ended survey goes on, the one that runs ends, and the other way round', async () => {
    const { server, page } = await open();
    const begun = server.surveys[0].title;
    const title = page.element.querySelector<HTMLInputElement>('[aria-label="Title of the new survey"]') as HTMLInputElement;
    title.value = 'After scraping';
    title.dispatchEvent(new Event('input'));
    await page.press('Start it');
    await until(() => page.text().includes('“After scraping” has begun'));
    await page.press(`Resume ${begun}`);
    await until(() => page.text().includes(`“${begun}” goes on; “After scraping” has ended.`));
    expect(server.surveys.map(({ title, endedAt }) => [title, endedAt === null])).toContain([begun, true]);
    await until(() => page.all('button').some((button) => button.getAttribute('aria-label') === 'Resume After scraping'));
  });

  it('another survey begins with every rung to be read anew', async () => {
    const { server, page, desk } = await open();
    await page.press('Start it');
    expect(page.text()).toContain('Title of the new survey is missing');
    const title = page.element.querySelector<HTMLInputElement>('[aria-label="Title of the new survey"]') as HTMLInputElement;
    title.value = 'After scraping';
    title.dispatchEvent(new Event('input'));
    await page.press('Start it');
    await until(() => desk.survey()?.title === 'After scraping');
    await page.fixture.whenStable();
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: '/surveys' }));
    expect(desk.survey()?.title).toBe('After scraping');
    expect(desk.rungs().every((rung) => rung.state === 'none')).toBeTrue();
    expect(page.text()).toMatch(/As found: .*2026.*, 1 round/);
  });
});
