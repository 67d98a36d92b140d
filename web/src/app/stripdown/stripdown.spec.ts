import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Part, StoredStripDown } from '@isometra/contract';
import { Settings } from '../data/settings';
import { StripDowns } from '../data/strip-downs';
import { Undo } from '../data/undo';
import { FoundShims } from '../job/found-shims';
import { LATHE, openShop, refusal, show, until, type FakeServer } from '../testing/fake-shop';
import { NeededPage } from './needed-page';
import { StripDownPage } from './strip-down-page';
import { StripDownList } from './strip-downs';

const STRIP = '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8c001';
const idOf = (number: number): string => `0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8d${String(number).padStart(3, '0')}`;
const part = (number: number, details: Record<string, unknown> = {}, more: Partial<Part> = {}): Part => ({
  ...{ id: idOf(number), stripDownId: STRIP, number, place: number, pictures: [], need: null, fitted: null, version: 1 },
  details: { name: `Part ${number}`, ...details },
  ...more,
});
const stripDown = (parts: Part[], more: Partial<StoredStripDown> = {}): StoredStripDown => ({
  ...{ id: STRIP, machineId: LATHE, name: 'Headstock', begunAt: '2026-06-21T16:10:00.000Z', version: 1, parts },
  ...more,
});
const fitted = { by: 'HB', at: '2026-07-05T18:40:00.000Z', ticks: [] };

async function open(parts: Part[], inputs: Record<string, unknown> = {}) {
  const shop = await openShop([], { prepare: (server) => void (server.stripDowns = [stripDown(parts)]) });
  const page = await show(StripDownPage, { stripDownId: STRIP, ...inputs });
  await until(() => page.text().includes('Headstock'));
  const go = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
  return { ...shop, page, go };
}
const partsOf = (server: FakeServer): readonly Part[] => [...server.stripDowns[0].parts].sort((one, other) => one.number - other.number);

describe('the strip-down', () => {
  it('takes a part with its number, and goes on with the next one', async () => {
    const { server, page } = await open([part(4)]);
    expect(page.field('Number').value).toBe('5');
    await page.type('Name', 'Front cap');
    await page.press('Add part 5');
    await until(() => server.stripDowns[0].parts.length === 2);
    expect(partsOf(server)[1]).toEqual(jasmine.objectContaining({ number: 5, place: 5, details: { name: 'Front cap' }, fitted: null }));
    await page.fixture.whenStable();
    expect([page.field('Number').value, page.field('Name').value]).toEqual(['6', '']);
    expect(document.activeElement).toBe(page.field('Name'));
    // Ctrl Z takes it off the list again.
    TestBed.inject(Undo).takeBack();
    await until(() => partsOf(server)[1].removed === true);
  });

  it('refuses a part without a name, and a number that is on another', async () => {
    const { server, page } = await open([part(4)]);
    await page.press('Add part 5');
    expect(page.text()).toContain('Name is missing: give the part a name. Example: Front bearing cap');
    await page.type('Name', 'Quill');
    await page.type('Number', '4');
    await page.press('Add part 4');
    expect(page.text()).toContain('Number 4 is on Part 4 already. Free: 5');
    await page.type('Number', '1.5');
    await page.press('Add part 1.5');
    expect(page.text()).toContain('Number must be a whole number from 1 to 999. Example: 5');
    expect(server.sent).toEqual([]);
  });

  it('keeps what was typed and not saved, apart for every part', async () => {
    const { page } = await open([part(4)]);
    await page.type('Name', 'Half of it');
    page.fixture.componentRef.setInput('part', idOf(4));
    await page.fixture.whenStable();
    expect(page.field('Name').value).toBe('Part 4');
    page.fixture.componentRef.setInput('part', undefined);
    await page.fixture.whenStable();
    expect(page.field('Name').value).toBe('Half of it');
    await page.press('Discard changes');
    expect(page.field('Name').value).toBe('');
  });

  it('asks only of a gib which way its thick end points', async () => {
    const { page } = await open([]);
    expect(page.text()).not.toContain('Thick end points');
    await page.pick('It is', 'a gib or wedge');
    await page.type('Thick end points', 'left');
    expect(page.text()).toContain('Thick end points');
    await page.pick('It is', 'a bearing');
    expect(page.text()).not.toContain('Thick end points');
  });

  it('a shim in inches stays as it was typed', async () => {
    const { server, page } = await open([]);
    TestBed.inject(Settings).system.set('inch');
    await page.type('Name', 'Foot');
    const [shims] = page.all('fieldset');
    shims.querySelector('button')?.click();
    await page.fixture.whenStable();
    await page.pick('In the joint', 'headstock on the bed');
    await page.type('Thickness, all layers', '12 thou');
    await page.press('Add part 1');
    await until(() => server.stripDowns[0].parts.length === 1);
    expect(partsOf(server)[0].details['shims']).toEqual([{ joint: 'headstock', thickness: '12 thou' }]);
    expect(page.text()).toContain('1 shim, corner not known');
  });

  it('a part that came off earlier changes its place, not its number', async () => {
    const { server, page } = await open([part(1), part(2), part(3)], { part: idOf(3) });
    await page.press('Came off earlier');
    await until(() => partsOf(server)[2].place === 1.5);
    await until(() => /1 Part 1 3 Part 3 2 Part 2/.test(page.text()));
    await page.press('Came off earlier');
    await until(() => partsOf(server)[2].place === 0.5);
    // There is nothing before the first.
    await page.press('Came off earlier');
    expect(partsOf(server)[2].place).toBe(0.5);
  });

  it('a part whose number was taken elsewhere is not lost: it is sent again with the free one', async () => {
    const { server, page } = await open([part(4)]);
    server.refuse = { status: 409, faults: [{ path: 'number', message: '5 is on Quill already', example: '7' }] };
    await page.type('Name', 'Front cap');
    await page.press('Add part 5');
    await until(() => page.text().includes('Part 5, Front cap, is not saved: 5 is on Quill already'));
    await page.press('Give it number 7');
    await until(() => server.stripDowns[0].parts.length === 2);
    expect(partsOf(server)[1].number).toBe(7);
    await until(() => !page.text().includes('is not saved'));
  });

  it('a part that somebody else changed meanwhile: theirs stays, or mine goes over it', async () => {
    const { server, page } = await open([part(4)], { part: idOf(4) });
    const theirs = part(4, { box: 'box 9' }, { version: 5 });
    server.refuse = refusal(409, 'it was changed by someone else', theirs);
    await page.type('Kept in', 'box 1');
    await page.press('Save part');
    await until(() => page.text().includes('is not saved'));
    await page.press('Overwrite with mine');
    await until(() => partsOf(server)[0].details['box'] === 'box 1');
    expect(server.sent.at(-1)?.body.version).toBe(5);
    await until(() => !page.text().includes('is not saved'));
  });

  it('what is typed is not written over what somebody else changed meanwhile: the server is asked with what was read', async () => {
    const { server, page } = await open([part(4)], { part: idOf(4) });
    await page.type('Kept in', 'box 1');
    server.stripDowns = [stripDown([part(4, { seals: 'felt' }, { version: 2 })])];
    dispatchEvent(new Event('focus'));
    await TestBed.inject(StripDowns)
      .load(LATHE)
      .forEach(() => undefined);
    await page.fixture.whenStable();
    expect(page.field('Kept in').value).toBe('box 1');
    await page.press('Save part');
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body.version).toBe(1);
  });

  it('a part that somebody else changed is shown as it stands now, where nothing was typed', async () => {
    const { server, page } = await open([part(4)], { part: idOf(4) });
    server.stripDowns = [stripDown([part(4, { seals: 'felt' }, { version: 2 })])];
    await TestBed.inject(StripDowns)
      .load(LATHE)
      .forEach(() => undefined);
    await page.fixture.whenStable();
    expect(page.field('Seals and felts').value).toBe('felt');
    expect(page.all('button').some((button) => button.textContent?.includes('Discard changes'))).toBeFalse();
  });

  it('a removed part is in no list, and comes back with a number of its own', async () => {
    const { server, page } = await open([part(1, {}, { removed: true }), part(2, {}, { number: 1, id: idOf(9) })]);
    expect(page.all('iso-part-rows li').length).toBe(1);
    await page.press('put it back');
    await until(() => server.stripDowns[0].parts.some(({ id, removed, number }) => id === idOf(1) && !removed && number === 2));
  });

  it('warns while a heavy or a sprung part comes off', async () => {
    const { page } = await open([part(1, { lift: 'gear', load: 'spring' })], { part: idOf(1) });
    expect(page.text()).toContain('Lift it with rated gear, never by hand over an edge.');
    expect(page.text()).toContain('Let the spring down before you take the last screw out.');
  });
});

describe('the assembly', () => {
  const shims = [{ joint: 'headstock', thickness: '0.3 mm', layers: 2 }];

  it('begins with the last part, and takes it as fitted once everything is ticked', async () => {
    const { server, page } = await open([part(1), part(2, { marks: 'dot up', condition: 'clean' })], { way: 'assembly' });
    expect(page.all('iso-part-rows li').map((row) => row.textContent?.trim().slice(0, 1))).toEqual(['2', '1']);
    await page.press('Part 2 is fitted');
    expect(page.text()).toContain('Tick what has been done first.');
    await page.tick('Clean it, and feel its edges for burrs.');
    await page.tick('Turn it the way it was marked: dot up.');
    await page.press('Part 2 is fitted');
    await until(() => partsOf(server)[1].fitted !== null);
    expect([partsOf(server)[1].fitted?.by, partsOf(server)[1].fitted?.ticks, partsOf(server)[1].need]).toEqual([
      'HB',
      ['ready', 'marks'],
      { state: 'done' },
    ]);
    await until(() => page.text().includes('Part 1 is fitted'));
  });

  it('asks for the corner of a shim that nobody wrote down, and keeps what it is told', async () => {
    const { server, page } = await open([part(1, { shims })], { way: 'assembly' });
    await page.press('Part 1 is fitted');
    expect(page.text()).toContain('Say first at which corner the shim was found.');
    expect(page.text()).not.toContain('Lay the shim in');
    await page.pick('Corner of the shim, 0.300 mm in 2 layers, headstock on the bed', 'left rear');
    await until(() => page.text().includes('Lay the shim in: 0.300 mm in 2 layers, headstock on the bed, left rear.'));
    await until(() => partsOf(server)[0].version === 2);
    expect(partsOf(server)[0].details['shims']).toEqual([{ ...shims[0], at: 'left rear' }]);
    await page.tick('Lay the shim in: 0.300 mm in 2 layers, headstock on the bed, left rear.');
    await page.press('Part 1 is fitted');
    await until(() => partsOf(server)[0].fitted !== null);
  });

  it('goes on where nobody knows the corner, and says that the alignment has to be measured', async () => {
    const { server, page } = await open([part(1, { shims })], { way: 'assembly' });
    await page.pick('Corner of the shim, 0.300 mm in 2 layers, headstock on the bed', 'nobody knows');
    await page.tick(/Its corner is not known: measure the alignment before you trust it/);
    await page.press('Part 1 is fitted');
    await until(() => partsOf(server)[0].fitted !== null);
    expect(partsOf(server)[0].details['shims']).toEqual(shims);
  });

  it('does not take a cap before the belt, nor a part that is still on order', async () => {
    const belt = part(1, { name: 'Drive belt', kind: 'belt' });
    const { server, page } = await open([belt, part(2, { kind: 'cap' })], { way: 'assembly' });
    expect(page.text()).toContain('Fit this first: part 1, Drive belt. A belt cannot go on after this.');
    await page.tick(/Check that the belt is on/);
    await page.press('Part 2 is fitted');
    expect(server.sent).toEqual([]);
  });

  it('does not take a part that is still on order', async () => {
    const { server, page } = await open([part(1, { condition: 'order' }, { need: { state: 'ordered', expected: '2026-12-12' } })], {
      way: 'assembly',
    });
    await page.tick(/Fit the new one/);
    await page.press('Part 1 is fitted');
    expect(page.text()).toContain('Not here yet: order a new one, ordered, expected 12 Dec 2026.');
    expect(server.sent).toEqual([]);
  });

  it('says what was fitted when and by whom, what comes first, and when all is done', async () => {
    const { server, page } = await open([part(1), part(2), part(3, {}, { fitted })], { way: 'assembly', part: idOf(1) });
    expect(page.text()).toContain('Part 2, Part 2, came off after this one: it goes back first.');
    page.fixture.componentRef.setInput('part', idOf(3));
    await page.fixture.whenStable();
    expect(page.text()).toContain('Fitted 5 Jul 2026');
    await page.press('It is not fitted');
    await until(() => partsOf(server)[2].fitted === null);
  });

  it('says when all is done, and what has to be measured then', async () => {
    const { page } = await open([part(1, {}, { fitted })], { way: 'assembly' });
    expect(page.text()).toContain('Every part is fitted. What was taken apart does not stand as it did before.');
  });

  it('keeps its ticks while another part is looked at', async () => {
    const { page } = await open([part(1, { marks: 'dot up', seals: 'felt' }), part(2)], { way: 'assembly', part: idOf(1) });
    await page.tick(/dot up/);
    page.fixture.componentRef.setInput('part', idOf(2));
    await page.fixture.whenStable();
    page.fixture.componentRef.setInput('part', idOf(1));
    await page.fixture.whenStable();
    const boxes = (): boolean[] => page.all('input[type=checkbox]').map((box) => (box as HTMLInputElement).checked);
    await until(() => boxes().join() === 'true,false');
  });
});

describe('what the parts need', () => {
  it('is one list for the machine: the state, the day and who supplies it can be set', async () => {
    const parts = [part(1, { condition: 'order' }), part(2, { condition: 'good' }), part(3, { condition: 'clean' })];
    const { server } = await openShop([], { prepare: (fresh) => void (fresh.stripDowns = [stripDown(parts)]) });
    const page = await show(StripDownList);
    await until(() => page.all('iso-needs-list .row').length === 2);
    page
      .all('[aria-label="State of Part 1"] label')
      .find((label) => label.textContent?.trim() === 'ordered')
      ?.querySelector('input')
      ?.click();
    await until(() => partsOf(server)[0].need?.state === 'ordered');
    const from = page.field('Who supplies Part 1');
    from.value = 'the felt works';
    from.dispatchEvent(new Event('change'));
    await until(() => partsOf(server)[0].need?.from === 'the felt works');
    expect(partsOf(server)[0].need?.state).toBe('ordered');
    const price = page.field('What Part 1 costs');
    for (const typed of ['cheap', '48,50']) {
      price.value = typed;
      price.dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    }
    await until(() => partsOf(server)[0].need?.price === 48.5);
    expect(partsOf(server)[0].need).toEqual({ state: 'ordered', from: 'the felt works', price: 48.5 });
    // What is cleaned is not ordered.
    expect(page.all('[aria-label="State of Part 3"] label').map((label) => label.textContent?.trim())).toEqual(['needed', 'done']);
  });

  it('is one list for the shop, what is overdue first', async () => {
    const late = part(2, { condition: 'make' }, { need: { state: 'ordered', expected: '2020-01-01' } });
    await openShop([], { prepare: (server) => void (server.stripDowns = [stripDown([part(1, { condition: 'clean' }), late])]) });
    const page = await show(NeededPage);
    await until(() => page.all('.row').length === 2);
    expect(page.all('.row')[0].textContent).toMatch(/Part 2.*L-14, Headstock.*overdue by \d+ days/s);
  });

  it('a strip-down is begun by its name, archived and restored', async () => {
    const { server } = await openShop();
    const page = await show(StripDownList);
    const go = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await page.press('Start a strip-down');
    expect(page.text()).toContain('What is taken apart? Example: Headstock');
    await page.type('What is taken apart', 'Apron');
    await page.press('Start a strip-down');
    await until(() => server.stripDowns.length === 1);
    await until(() => go.calls.count() === 1);
    await page.press('Archive Apron');
    await until(() => server.stripDowns[0].archived === true);
    await page.press('Restore Apron');
    await until(() => !server.stripDowns[0].archived);
  });
});

describe('shims that were found', () => {
  it('are told on the card of their joint, in the unit of the day, and nothing where none is known', async () => {
    const shims = [{ joint: 'headstock', at: 'left rear', thickness: '0.1 mm', layers: 2 }];
    await openShop([], { prepare: (server) => void (server.stripDowns = [stripDown([part(7, { shims })])]) });
    const card = await show(FoundShims, { machineId: LATHE, joint: 'headstock' });
    await until(() => card.text().includes('0.100 mm in 2 layers, headstock on the bed, left rear part 7, Part 7, 21 Jun 2026'));
    TestBed.inject(Settings).system.set('inch');
    await card.fixture.whenStable();
    expect(card.text()).toContain('3.9 thou');
    card.fixture.componentRef.setInput('joint', 'column');
    await card.fixture.whenStable();
    expect(card.text()).toBe('');
  });
});
