import { TestBed } from '@angular/core/testing';
import { Keys } from '../data/keys';
import { Outbox } from '../data/outbox';
import { Settings } from '../data/settings';
import { openShop, refusal, show, until, LATHE } from '../testing/fake-shop';
import { AtHand } from './at-hand';
import { KeyStrip } from './key-strip';
import { Plate } from './plate';
import { Root } from './root';

const key = (name: string) => new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true });

describe('the plate', () => {
  it('is stamped with the machine, what is being done and the instrument in hand', async () => {
    await openShop();
    const hand = TestBed.inject(AtHand);
    hand.machine.set({ id: LATHE, number: 'L-14', nickname: 'the long lathe' });
    hand.doing.set('Bed twist, round 2');
    hand.instrument.set('Level, 20 µm/m');
    const plate = await show(Plate);
    for (const words of ['L-14', 'the long lathe', 'Bed twist, round 2', 'Level, 20 µm/m', 'Survey']) expect(plate.text()).toContain(words);
  });

  it('without a machine there is nothing to survey', async () => {
    await openShop();
    expect((await show(Plate)).text()).not.toContain('Survey');
  });

  it('switches unit and fineness, and keeps the initials', async () => {
    await openShop();
    const plate = await show(Plate);
    const settings = TestBed.inject(Settings);
    await plate.press('inch');
    expect(settings.system()).toBe('inch');
    expect(plate.named('inch').getAttribute('aria-pressed')).toBe('true');
    await plate.press('tenths');
    expect(settings.fineness()).toBe('fine');
    const who = plate.element.querySelector<HTMLInputElement>('.who input') as HTMLInputElement;
    who.value = 'RM';
    who.dispatchEvent(new Event('input'));
    expect(settings.by()).toBe('RM');
    await plate.fixture.whenStable();
    const kept: unknown = JSON.parse(localStorage.getItem('isometra-settings') ?? '{}');
    expect(kept).toEqual(jasmine.objectContaining({ system: 'inch', fineness: 'fine', who: 'RM' }));
  });

  it('nobody’s initials are a question mark', async () => {
    await openShop();
    const settings = TestBed.inject(Settings);
    settings.who.set('  ');
    expect(settings.by()).toBe('?');
  });

  it('says what waits to be saved, and that nothing is lost when the server is away', async () => {
    const { server } = await openShop();
    const plate = await show(Plate);
    expect(plate.all('.waiting').length).toBe(0);
    const outbox = TestBed.inject(Outbox);
    server.down = true;
    outbox.put({ id: '1', what: 'reading', method: 'POST', path: '/x', body: {}, about: 'r', machineId: null });
    await until(() => outbox.away());
    await plate.fixture.whenStable();
    expect(plate.text()).toContain('1 saved in this browser: the server cannot be reached');
    expect(plate.all('.pair').length).toBe(0);
  });

  it('a device that is let in no more says so, and leads to its pairing', async () => {
    const { server } = await openShop();
    const plate = await show(Plate);
    const outbox = TestBed.inject(Outbox);
    server.refuse = refusal(401, 'This device is not let in any more.');
    void outbox.put({ id: '1', what: 'reading', method: 'POST', path: '/x', body: {}, about: 'r', machineId: null });
    await until(() => outbox.shutOut());
    await plate.fixture.whenStable();
    expect(plate.text()).toContain('1 saved in this browser: this device is not let in any more');
    expect(plate.all('a.pair').map((link) => link.getAttribute('href'))).toEqual(['/']);
    expect(outbox.refused$.value).withContext('it waits, and is not thrown out').toEqual([]);
  });
});

describe('the keys on the screen', () => {
  it('are shown in the strip and all of them in the list, which Escape closes', async () => {
    await openShop();
    const plate = await show(Plate);
    const strip = await show(KeyStrip);
    expect(strip.text()).toContain('U mm or inch');
    expect(strip.text()).not.toContain('Esc');
    const keys = TestBed.inject(Keys);
    keys.handle(key('?'));
    await until(() => plate.all('[role=dialog]').length === 1);
    expect(plate.text()).toContain('Esc');
    keys.handle(key('Escape'));
    await plate.fixture.whenStable();
    await until(() => plate.all('[role=dialog]').length === 0);
  });

  it('are heard anywhere on the page', async () => {
    await openShop();
    await show(Root);
    const settings = TestBed.inject(Settings);
    document.dispatchEvent(key('u'));
    expect(settings.system()).toBe('inch');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'u', ctrlKey: true }));
    expect(settings.system()).toBe('inch');
  });

  it('the page can be skipped to the work', async () => {
    await openShop();
    const root = await show(Root);
    expect(root.named('Skip to content').getAttribute('href')).toBe('#work');
    expect(root.element.querySelector('main#work')).not.toBeNull();
  });
});
