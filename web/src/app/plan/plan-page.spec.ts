import { CdkDropList } from '@angular/cdk/drag-drop';
import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { Router } from '@angular/router';
import type { MachinePlan, PlanItem, PlanWrite, ShopPlan } from '@isometra/contract';
import { Keys } from '../data/keys';
import { LATHE, OTHER, openShop, show, until, type FakeServer } from '../testing/fake-shop';
import { BoardPage } from './board-page';
import { DuePage } from './due-page';
import { PlanPage } from './plan-page';
import { TonightPage } from './tonight-page';
import { WorthItPage } from './worth-it-page';

const item = (key: string, title: string, part: Partial<PlanItem> = {}): PlanItem => ({
  ...{ key, kind: 'read', title, why: 'Not measured yet.', minutes: [20, 40, 80], wait: null, people: 1, who: [], things: [], after: [] },
  ...{ notBefore: null, from: 'starting', timings: 0, cautions: [], path: null, told: null },
  ...part,
});
const machinePlan = (items: readonly PlanItem[], part: Partial<MachinePlan> = {}): MachinePlan => ({
  ...{ machineId: LATHE, number: 'L-14', items, leftOff: { text: 'Bed twist: round begun', by: 'EK', at: '2026-11-28T18:00:00.000Z' } },
  settled: { machineId: LATHE, changes: [], own: [], order: [], version: 0 },
  ...part,
});
const TWIST = item('read bed-twist', 'Read “Bed twist”', { things: ['Level'], path: ['/machines', LATHE, 'bench', 'bed-twist'] });
const SEAT = item('read seat', 'Read “Seat”', { after: ['read bed-twist'], from: 'learned', timings: 9 });
const LIFT = item('assemble p1', 'Put back part 1', { kind: 'assemble', people: 2, cautions: ['Two people lift it.'] });
const BELT = item('own 11111111-1111-4111-8111-111111111111', 'Order a belt', { kind: 'own', from: 'told' });
const PERSON = { id: 'EK', name: '', hours: { tue: 2, sat: 4 }, off: [], from: 'own' as const };
const plan = (items: readonly PlanItem[] = [TWIST, SEAT, LIFT], part: Partial<ShopPlan> = {}): ShopPlan => ({
  ...{ today: '2026-12-01', timeZone: null, people: [PERSON], machines: [machinePlan(items)], named: [], widen: 1 },
  ...part,
});
const settled = (server: FakeServer): PlanWrite | undefined =>
  server.sent.findLast(({ path }) => path.endsWith('/plan'))?.body as PlanWrite | undefined;

describe('the plan of a machine', () => {
  const open = async (shown = plan()) => {
    const shop = await openShop([], { prepare: (server) => (server.plan = shown) });
    const page = await show(PlanPage);
    await until(() => page.text().includes(shown.machines[0].items[0]?.title ?? 'Plan'));
    return { ...shop, page };
  };
  const titles = (page: Awaited<ReturnType<typeof open>>['page']): string[] =>
    page.all('.list > ol .title').map((one) => one.textContent ?? '');

  it('names the day with its range, what decides it and what would help; and keeps what it named', async () => {
    const { page, server } = await open();
    await until(() => /Nine in ten: by \d+ \w+ 20\d\d/.test(page.text()));
    expect(page.text()).toContain('Last: Bed twist: round begun. EK');
    expect(page.text()).toContain('Planned with EK (Tue 2 h, Sat 4 h).');
    expect(page.all('.chain li').map((one) => one.textContent?.trim()).length).toBeGreaterThan(0);
    await until(() => page.text().includes('sooner') || page.text().includes('Nothing that is known here'));
    await until(() => server.sent.some(({ path }) => path.endsWith('/plan/named')));
    // Yellow is one thing.
    expect(page.all('li.next').length).toBe(1);
    expect(page.all('li.next')[0].textContent).toContain('Bed twist');
  });

  it('keeps the keys of a hand that is still on its way to the list; another screen keeps its own', async () => {
    const { page, server } = await open(plan([TWIST, LIFT, SEAT]));
    const press = (target: EventTarget, key: string, altKey = false) =>
      target.dispatchEvent(new KeyboardEvent('keydown', { key, altKey, bubbles: true, cancelable: true }));
    const field = document.createElement('input');
    document.body.append(field);
    press(field, 'ArrowUp', true);
    field.remove();
    expect(settled(server)).toBeUndefined();
    // Pressed one after the other, before the list is drawn anew: the hand is nowhere yet.
    page
      .named('Settle Put back part 1 otherwise')
      .closest('li')
      ?.dispatchEvent(new FocusEvent('focusin', { bubbles: true }));
    press(document.body, 'ArrowUp', true);
    await until(() => titles(page)[0] === 'Put back part 1');
  });

  it('an item is settled otherwise with a reason, and taken back', async () => {
    const { page, server } = await open();
    await page.press('Settle Read “Seat” otherwise');
    await page.type('Likely', '3 h');
    await page.press('Keep it');
    expect(page.text()).toContain('must rise');
    await page.type('Most', '4 h');
    await page.press('Keep it');
    expect(page.text()).toContain('Why?');
    await page.type('Reason', 'the long way round');
    await page.press('Keep it');
    await until(() => settled(server) !== undefined);
    expect(settled(server)?.changes).toEqual([
      jasmine.objectContaining({ key: 'read seat', minutes: [20, 180, 240], why: 'the long way round', by: 'HB' }),
    ]);
    await until(() => page.text().includes('HB: the long way round'));
    await page.press('Settle Read “Seat” otherwise');
    await page.press('As it follows from what is known');
    await until(() => settled(server)?.changes.length === 0);
  });

  it('what is not to be done stands apart with the reason, and is taken up again', async () => {
    const { page, server } = await open();
    await page.press('Settle Put back part 1 otherwise');
    await page.press('It is not to be done');
    expect(page.text()).toContain('Why is it not to be done?');
    await page.type('Reason', 'sold without it');
    await page.press('It is not to be done');
    await until(() => page.text().includes('HB: sold without it'));
    expect(titles(page)).not.toContain('Put back part 1');
    await page.press('Take it up again');
    await until(() => settled(server)?.changes.length === 0);
    await until(() => titles(page).includes('Put back part 1'));
  });

  it('goes up and down among what it does not depend on; a place that is barred says why', async () => {
    const { page, server } = await open();
    await page.press('Put back part 1: one place up');
    await until(() => settled(server) !== undefined);
    expect(settled(server)?.order).toEqual(['read bed-twist', 'assemble p1', 'read seat']);
    await until(() => titles(page)[1] === 'Put back part 1');
    await page.press('Read “Seat”: one place up');
    await until(() => titles(page)[1] === 'Read “Seat”');
    const before = server.sent.length;
    await page.press('Read “Seat”: one place up');
    expect(page.text()).toContain('“Read “Bed twist”” comes first: “Read “Seat”” cannot be done before it.');
    expect(server.sent.slice(before).some(({ path }) => path.endsWith('/plan'))).toBeFalse();
  });

  it('tells how late what is waited for may come before it moves the date', async () => {
    const part = item('part p1', 'Wait for part 1', { kind: 'part', minutes: null, wait: 0, people: 0 });
    const rest = ['a', 'b', 'c', 'd'].map((key) => item(`read ${key}`, `Read ${key}`, { minutes: [110, 120, 130] }));
    const fit = item('assemble p1', 'Put back part 1', { kind: 'assemble', minutes: [5, 5, 5], after: ['part p1'] });
    const { page } = await open(plan([part, ...rest, fit]));
    await until(() => page.text().includes('What may be late'));
    // Tuesdays and Saturdays: eight hours of other work are done on Saturday in a week; the part is fitted on the Tuesday after it.
    const told = page.all('[aria-label="What may be late"] li').map((one) => one.textContent?.replace(/\s+/g, ' ').trim());
    expect(told).toEqual([jasmine.stringMatching(/^Wait for part 1 ([5-9]|1\d) days late move nothing$/)]);
  });

  it('an item is dragged to another place; where it may not go it stays, with the reason', async () => {
    const { page, server } = await open();
    const drop = async (previousIndex: number, currentIndex: number): Promise<void> => {
      page.fixture.debugElement.query(By.directive(CdkDropList)).triggerEventHandler('cdkDropListDropped', { previousIndex, currentIndex });
      await page.fixture.whenStable();
    };
    await drop(2, 0);
    await until(() => titles(page)[0] === 'Put back part 1');
    expect(settled(server)?.order).toEqual(['assemble p1', 'read bed-twist', 'read seat']);
    await drop(2, 1);
    expect(page.text()).toContain('cannot be done before it');
    expect(titles(page)).toEqual(['Put back part 1', 'Read “Bed twist”', 'Read “Seat”']);
  });

  it('what comes round again stands apart until it has its turn, is done, changed and taken off', async () => {
    const { page, server } = await open();
    await page.press('Add an item');
    await page.type('What is to be done', 'Oil the ways');
    await page.type('Minutes of work', '20');
    await page.type('Comes round again every', 'now and then');
    await page.press('Add it');
    expect(page.text()).toContain('How often does it come round again? Example: 6 months');
    await page.type('Comes round again every', '2 weeks');
    await page.press('Add it');
    await until(() => titles(page).includes('Oil the ways'));
    expect(page.text()).toContain('every 2 weeks; it has its turn: it stands above');
    await page.press('Done');
    await until(() => !titles(page).includes('Oil the ways'));
    expect(settled(server)?.own[0]).toEqual(jasmine.objectContaining({ every: 14, doneAt: null, notBefore: '2026-12-15' }));
    expect(page.text()).toContain('every 2 weeks; next on 15 Dec 2026; last done');
    await page.press('Change');
    await page.type('What is to be done', 'Oil the ways and the screw');
    await page.type('Comes round again every', '3 weeks');
    await page.press('Keep it');
    await until(() => page.text().includes('every 3 weeks'));
    expect(settled(server)?.own[0]).toEqual(
      jasmine.objectContaining({ title: 'Oil the ways and the screw', every: 21, minutes: [11, 20, 36], lastAt: jasmine.any(String) }),
    );
    await page.press('Change');
    await page.press('Take it off the plan');
    await until(() => settled(server)?.own.length === 0);
  });

  it('something nobody could know of is added, before what has to wait for it, and is done', async () => {
    const { page, server } = await open();
    await page.press('Add an item');
    await page.press('Add it');
    expect(page.text()).toContain('What is to be done?');
    await page.type('What is to be done', 'Let the cement set');
    await page.type('Or hours by the clock', 'soon');
    await page.press('Add it');
    expect(page.text()).toContain('Hours by the clock? Example: 24');
    await page.type('Or hours by the clock', '24');
    await page.pick('What it comes before', 'Put back part 1');
    await page.press('Add it');
    await until(() => settled(server) !== undefined);
    const [own] = settled(server)?.own ?? [];
    expect(own).toEqual(jasmine.objectContaining({ title: 'Let the cement set', wait: 24, minutes: null }));
    expect(settled(server)?.changes[0]).toEqual(jasmine.objectContaining({ key: 'assemble p1', after: [`own ${own.id}`] }));
    await until(() => titles(page).includes('Let the cement set'));
    await page.press('Done');
    await until(() => settled(server)?.own[0].doneAt !== null);
    await until(() => !titles(page).includes('Let the cement set'));
  });

  it('letters that are typed after A, before the form is there, go into it', async () => {
    const { page } = await open();
    for (const key of ['a', 'B', 'o', 'x']) TestBed.inject(Keys).handle(new KeyboardEvent('keydown', { key }));
    await until(() => page.all('iso-own-item').length === 1);
    await until(() => page.field('What is to be done').value === 'Box');
    expect(page.text()).not.toContain('What happened');
  });

  it('somebody else has changed it meanwhile: it is shown as it stands, nothing is written over', async () => {
    const { page, server } = await open();
    server.refuse = { status: 409, errors: [{ path: '', message: 'was changed meanwhile', example: '' }], code: 'stale' } as never;
    await page.press('Put back part 1: one place up');
    await until(() => page.text().includes('Somebody else has changed this plan'));
    expect(titles(page)[2]).toBe('Put back part 1');
  });

  it('with the other jobs of the shop it is later, and what decides that is said', async () => {
    const busy = machinePlan([item('read other', 'Other work', { minutes: [1800, 1800, 1800] })], { machineId: OTHER, number: 'L-15' });
    const { page, server } = await open(plan([TWIST], { machines: [machinePlan([TWIST]), busy] }));
    const date = (): number => Date.parse(`${page.element.querySelector('.large')?.textContent ?? ''} UTC`);
    await until(() => date() > 0);
    const alone = date();
    // The other machine goes first.
    server.plan = { ...server.plan, machines: [...server.plan.machines].reverse() };
    await page.choose('With the other jobs');
    await until(() => date() > alone + 30 * 86_400_000);
    expect(page.all('.chain li').map((one) => one.textContent?.trim())).toEqual(['Work on another machine', 'Read “Bed twist”']);
    // What would help this machine: somebody else at the work of the other one as well.
    await until(() => /A second person at the same hours: \d+ weeks sooner\./.test(page.text()));
    await page.choose('Only this machine');
    await until(() => date() === alone);
  });

  it('a server that does not answer changes nothing, and what was typed stays to be sent again', async () => {
    const { page, server } = await open();
    await page.press('Settle Read “Seat” otherwise');
    await page.type('Reason', 'the long way round');
    await page.type('Most', '4 h');
    server.down = true;
    await page.press('Keep it');
    await until(() => page.text().includes('the plan was not changed'));
    expect(page.field('Most').value).toBe('4 h');
    expect(page.text()).not.toContain('HB: the long way round');
    server.down = false;
    await page.press('Keep it');
    await until(() => page.text().includes('HB: the long way round'));
    expect(page.text()).not.toContain('the plan was not changed');
    expect(page.all('iso-plan-edit').length).toBe(0);
  });

  it('with nobody’s hours no day is named; with nothing left it says so', async () => {
    const { page } = await open(plan([TWIST], { people: [{ ...PERSON, hours: {} }] }));
    await until(() => page.text().includes('Nobody has hours to work'));
    TestBed.resetTestingModule();
    const empty = await open(plan([]));
    await until(() => empty.page.text().includes('Nothing is left to do.'));
  });

  it('a crash is written down, and says before that what it opens again', async () => {
    const { page, server } = await open();
    await page.press('It crashed, was moved …');
    await page.press('Write it down');
    expect(page.text()).toContain('What happened? Choose one of these.');
    await page.choose('It crashed');
    expect(page.text()).toContain('Nothing has been read yet that it could upset.');
    await page.type('In your words', 'drill into the vice');
    await page.press('Write it down');
    await until(() => server.sent.some(({ path }) => path.endsWith('/notes')));
    expect(server.sent.find(({ path }) => path.endsWith('/notes'))?.body).toEqual(
      jasmine.objectContaining({ kind: 'event', content: { what: 'crashed', note: 'drill into the vice' } }),
    );
  });
});

describe('tonight', () => {
  const open = async (items: readonly PlanItem[]) => {
    const shop = await openShop([], { prepare: (server) => (server.plan = plan(items)) });
    const page = await show(TonightPage);
    await until(() => page.all('ol li').length > 0);
    return { ...shop, page };
  };
  /** Type into a field and leave it. */
  const enter = async (page: Awaited<ReturnType<typeof open>>['page'], label: string, text: string): Promise<void> => {
    await page.type(label, text);
    page.field(label).dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
  };
  const listed = (page: Awaited<ReturnType<typeof open>>['page']): string[] =>
    page.all('ol .title').map((one) => one.textContent?.trim() ?? '');

  it('lists what fits, what to lay out, where it was left off; with two people the lift as well', async () => {
    const { page } = await open([TWIST, SEAT, LIFT]);
    await enter(page, 'How long the evening is', '45 min');
    expect(listed(page)).toEqual(['Read “Bed twist”']);
    expect(page.text()).toContain('Left off: Bed twist: round begun. EK');
    expect(page.text()).toContain('Lay out: Level');
    await enter(page, 'How long the evening is', '3 h');
    expect(listed(page)).toEqual(['Read “Bed twist”', 'Read “Seat”']);
    expect(page.text()).toContain('With 2 people “Put back part 1” could be done as well.');
    await enter(page, 'People here', '2');
    expect(listed(page)).toContain('Put back part 1');
    expect(page.text()).toContain('2 people are needed.');
    expect(page.text()).toContain('Two people lift it.');
    await enter(page, 'How long the evening is', 'soon');
    expect(page.text()).toContain('How long is the evening? Example: 2 h 30');
    await enter(page, 'People here', '0');
    expect(page.text()).toContain('How many people are here?');
  });

  it('names the job cards to print of what is to be corrected', async () => {
    const path = ['/machines', LATHE, 'move', 'r1', 'twist'];
    const { page } = await open([item('move bed-twist twist', 'Correct “Bed twist”', { kind: 'move', path }), SEAT]);
    await enter(page, 'How long the evening is', '3 h');
    const links = page.all('aside a').map((one) => [one.textContent?.trim(), one.getAttribute('href')]);
    expect(links).toEqual([['Job card: Correct “Bed twist”', path.join('/')]]);
    await page.tick('Correct “Bed twist”');
    expect(page.all('aside a').length).toBe(0);
  });

  it('at its end it writes down what was done and what was left open, and own items are done', async () => {
    const { page, server } = await open([TWIST, SEAT]);
    server.plan = plan([TWIST, SEAT, BELT]);
    await enter(page, 'How long the evening is', '3 h');
    await page.tick('Read “Bed twist”');
    await page.press('Done for tonight');
    await until(() => server.remarks.length > 0);
    expect(server.remarks[0].text).toMatch(/^Evening of \d+ \w+ \d{4}\.\nDone: Read “Bed twist”\.\nLeft open: Read “Seat”\.$/);
    expect(page.text()).toContain('Done for tonight.');
    await page.press('Go on after all');
    expect(listed(page)).toContain('Read “Seat”');
  });

  it('is there again after the page was loaded anew; what was written down meanwhile is done', async () => {
    const { page, server } = await open([TWIST, SEAT]);
    await enter(page, 'How long the evening is', '3 h');
    await page.tick('Read “Seat”');
    page.fixture.destroy();
    server.plan = plan([SEAT]);
    const again = await show(TonightPage);
    await until(() => again.text().includes('It is written down.'));
    expect(again.all('li.done').length).toBe(2);
    expect(again.field('How long the evening is').value).toBe('3 h');
  });
});

describe('the board', () => {
  it('shows who does what on which day, by person and by machine, and what has slipped', async () => {
    const { server } = await openShop([], {
      prepare: (fake) =>
        (fake.plan = plan([TWIST, SEAT], {
          named: [{ machineId: LATHE, at: '2026-11-01', p10: '2026-11-10', p50: '2026-11-12', p90: '2026-11-20', came: null }],
        })),
    });
    const page = await show(BoardPage);
    await until(() => page.all('.piece').length > 0);
    expect(page.all('tbody th').map((one) => one.textContent?.trim())).toEqual([jasmine.stringMatching(/^EK/)]);
    expect(page.all('thead th')[0].textContent).toContain('Tue 1 Dec');
    expect(page.all('.piece').map((one) => one.textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      'L-14 Read “Bed twist” 40 min',
      'L-14 Read “Seat” 40 min',
    ]);
    expect(page.all('.piece.next').length).toBe(1);
    await page.choose('By machine');
    await until(() => page.text().includes('later than was thought'));
    expect(page.text()).toContain('11 days later than was thought on 1 Nov 2026');
    expect(server.asked.filter((path) => path.endsWith('/plans')).length).toBe(1);
  });

  it('what is waited for is a band over its days: named once, in a lane of its own where lanes are people', async () => {
    const glue = item('own 22222222-2222-4222-8222-222222222222', 'Let the cement set', {
      kind: 'own',
      minutes: null,
      wait: 100,
      people: 0,
    });
    const rest = ['a', 'b', 'c', 'd'].map((key) => item(`read ${key}`, `Read ${key}`, { minutes: [110, 120, 130] }));
    await openShop([], { prepare: (fake) => (fake.plan = plan([glue, ...rest])) });
    const page = await show(BoardPage);
    await until(() => page.all('.piece.wait').length > 0);
    expect(page.all('tbody th').map((one) => one.textContent?.trim())).toEqual([
      jasmine.stringMatching(/^Waits.*by the clock/),
      jasmine.stringMatching(/^EK/),
    ]);
    const words = page.all('.piece.wait').map((one) => one.textContent?.replace(/\s+/g, ' ').trim());
    expect(words[0]).toMatch(/^L-14 Let the cement set, until \d+ Dec 2026$/);
    expect(words.slice(1).every((one) => one === '')).toBeTrue();
    await page.choose('By machine');
    await until(() => page.all('tbody th').length === 1);
    expect(page.all('.piece.wait')[0].textContent?.trim()).toMatch(/^Let the cement set/);
  });

  it('of a shop with nothing left to do says so', async () => {
    await openShop([], { prepare: (server) => (server.plan = plan([])) });
    const page = await show(BoardPage);
    await until(() => page.text().includes('Nothing is left to do on any machine.'));
  });
});

describe('whether it is worth it', () => {
  it('takes a rough look of what is not measured: kept with its unit, listed with what stays out, or looks right', async () => {
    const { server } = await openShop([], { prepare: (one) => (one.plan = plan()) });
    const page = await show(WorthItPage);
    const field = 'Spindle axis: Spindle axis sideways: about how far out';
    await until(() => page.text().includes('A rough look'));
    const type = async (text: string) => {
      await page.type(field, text);
      page.field(field).dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    };
    await type('0.1');
    expect(page.text()).toContain('"0.1" does not say its unit; 0.1 mm in 300 mm would do.');
    expect(settled(server)).toBeUndefined();
    server.down = true;
    await type('0.1 mm in 300 mm');
    await until(() => page.text().includes('the plan was not changed'));
    expect(page.field(field).value).withContext('what was typed stays').toBe('0.1 mm in 300 mm');
    server.down = false;
    page.field(field).dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await until(() => settled(server)?.looks?.length === 1);
    expect(settled(server)?.looks).toEqual([
      jasmine.objectContaining({ check: 'spindle-axis', quantity: 'slopeH', out: '0.1 mm in 300 mm', by: 'HB' }),
    ]);
    await until(() => page.text().includes('about 0.1 mm in 300 mm out'));
    await type('');
    await until(() => settled(server)?.looks?.length === 0);
  });
});

describe('what is due', () => {
  const due = (day: string, title: string, what: 'check' | 'kit' = 'check') => ({
    ...{ day, title, what, machineId: what === 'kit' ? null : LATHE, number: what === 'kit' ? null : 'L-14', path: ['/kit'] },
  });
  const open = async () => {
    const shop = await openShop([], {
      prepare: (server) =>
        (server.due = {
          today: '2026-12-01',
          items: [
            due('2026-11-20', 'Read “Bed twist” again'),
            due('2026-12-03', 'Have “Dial” certified', 'kit'),
            due('2026-12-09', 'Seat'),
          ],
        }),
    });
    const page = await show(DuePage);
    await until(() => page.all('section').length > 0);
    return { ...shop, page };
  };

  it('stands by week, what was missed first', async () => {
    const { page } = await open();
    expect(page.all('section h2').map((one) => one.textContent)).toEqual(['Overdue', 'This week', 'Next week']);
    expect(page.text()).toContain('overdue by 11 days');
    await page.choose('Certificates');
    expect(page.all('section h2').map((one) => one.textContent)).toEqual(['This week']);
  });

  it('an address for another calendar is made, shown once, and revoked', async () => {
    const { page, server } = await open();
    await page.press('Make an address');
    expect(page.text()).toContain('Whose calendar is it?');
    await page.type('Whose calendar', 'Kitchen');
    await page.press('Make an address');
    await until(() => page.text().includes('It is shown this once'));
    expect(page.element.querySelector<HTMLInputElement>('#calendar-address')?.value).toMatch(/\/calendar\/s{32}\.ics$/);
    await page.press('Revoke the address of Kitchen');
    await until(() => server.calendars.length === 0);
    await until(() => !page.text().includes('Kitchen tablet') && !page.text().includes('shown this once'));
    expect(TestBed.inject(Router)).toBeTruthy();
  });
});
