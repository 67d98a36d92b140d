import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import type { ListedPerson } from '@isometra/contract';
import { NewInitials } from '../data/new-initials';
import { People } from '../data/people';
import { Settings } from '../data/settings';
import { ShopStore } from '../data/shop';
import { Undo } from '../data/undo';
import { WhoAsked } from '../shell/who-asked';
import { openShop, refusal, show, until, type FakeServer } from '../testing/fake-shop';
import { PeopleList } from './people-list';
import { ShopPage } from './shop-page';

const person = (initials: string, more: Partial<ListedPerson> = {}): ListedPerson => ({
  ...{ initials, name: '', meant: null, entries: 3, added: true },
  ...more,
});

describe('the page of the shop', () => {
  const open = async (prepare?: (server: FakeServer) => void) => {
    const shop = await openShop([], { prepare: (server) => prepare?.(server) });
    const page = await show(ShopPage);
    await until(() => TestBed.inject(ShopStore).told() !== undefined);
    await page.fixture.whenStable();
    return { ...shop, page };
  };

  it('keeps its name, its paper and its hours; what is wrong is named at its field', async () => {
    const { server, page } = await open();
    await page.type('Name of the shop', 'Tarnside Works');
    await page.choose('Letter');
    page
      .all('fieldset')
      .find((set) => set.textContent?.includes('Hours of work'))
      ?.querySelector('button')
      ?.click();
    await page.fixture.whenStable();
    await page.pick('Day', 'Tuesday');
    await page.type('From', '19:00');
    await page.type('To', '18:00');
    await page.press('Save');
    expect(page.text()).toContain('To must be later than the beginning. Example: 22:00');
    await page.type('To', '22:00');
    await page.press('Save');
    await until(() => server.shopCard.version === 1);
    expect(server.shopCard.card).toEqual({
      name: 'Tarnside Works',
      paper: 'Letter',
      hours: [{ day: 'Tuesday', from: '19:00', to: '22:00' }],
    });
    await until(() => page.text().includes('Saved.'));
    expect(document.documentElement.dataset['paper']).toBe('Letter');
    delete document.documentElement.dataset['paper'];
  });

  it('loses nothing that was typed: not by leaving it, not by somebody else’s change', async () => {
    const { server, page } = await open();
    await page.type('Name of the shop', 'Mine');
    page.fixture.destroy();
    const again = await show(ShopPage);
    await until(() => again.field('Name of the shop').value === 'Mine');
    server.refuse = refusal(409, 'it was changed by someone else', { card: { name: 'Theirs' }, mark: null, version: 4 });
    await again.press('Save');
    await until(() => again.text().includes('Somebody else has changed it meanwhile.'));
    expect(again.field('Name of the shop').value).toBe('Mine');
    await again.press('Save');
    await until(() => server.shopCard.version === 5);
    expect(server.shopCard.card).toEqual({ name: 'Mine' });
  });
});

describe('the usual units of the shop', () => {
  const tell = async (card: Record<string, unknown>, kept?: object) => {
    await openShop([], {
      prepare: (server) => {
        server.shopCard = { card, mark: null, version: 1 };
        if (kept) localStorage.setItem('isometra-settings', JSON.stringify(kept));
      },
    });
    const settings = TestBed.inject(Settings);
    return { settings, load: () => firstValueFrom(TestBed.inject(ShopStore).loadCard()) };
  };
  afterEach(() => localStorage.removeItem('isometra-settings'));

  it('count on a device that nobody has set, and on one that was set not', async () => {
    const { settings, load } = await tell({ units: 'inch', fineness: 'fine' });
    settings.system.set('mm');
    await load();
    expect(settings.shown()).toEqual({ system: 'inch', fineness: 'fine' });
  });

  it('leave a device alone that was switched by hand', async () => {
    const { settings, load } = await tell({ units: 'inch' }, { system: 'mm', fineness: 'coarse', who: 'HB' });
    await load();
    expect(settings.shown()).toEqual({ system: 'mm', fineness: 'coarse' });
  });

  it('never change a unit under a hand that is typing: they count from the next start on', async () => {
    const { settings, load } = await tell({ units: 'inch' });
    settings.system.set('mm');
    dispatchEvent(new Event('input'));
    await load();
    expect(settings.system()).toBe('mm');
    TestBed.tick();
    expect(JSON.parse(localStorage.getItem('isometra-settings') ?? '{}').usual.system).toBe('inch');
  });
});

describe('the people of the shop', () => {
  it('are named, added, and put right where initials were a typing mistake; that is taken back', async () => {
    const { server } = await openShop([], {
      prepare: (fresh) => void (fresh.people = [person('HB', { name: 'Hanna' }), person('HBB', { entries: 1, added: false })]),
    });
    const list = await show(PeopleList);
    await until(() => list.all('.row').length === 2);
    expect(list.text()).toContain('1 entry');
    await list.pick('What HBB stands for', 'a mistake for HB');
    await until(() => server.people.some(({ initials, meant }) => initials === 'HBB' && meant === 'HB'));
    await until(() => list.text().includes('A typing mistake for HB'));
    TestBed.inject(Undo).takeBack();
    await until(() => server.people.every(({ meant }) => meant === null));
    await list.press('Add a person');
    expect(list.text()).toContain('Initials? Example: HB');
    await list.type('Initials', 'RM');
    await list.press('Add a person');
    await until(() => server.people.some(({ initials }) => initials === 'RM'));
  });
});

describe('initials that are new to the shop', () => {
  const open = async (people: ListedPerson[]) => {
    localStorage.removeItem('isometra-asked-initials');
    const shop = await openShop([], { prepare: (server) => void (server.people = people) });
    const line = await show(WhoAsked);
    const settings = TestBed.inject(Settings);
    const type = async (initials: string) => {
      settings.who.set(initials);
      TestBed.inject(NewInitials).ask(initials);
      await until(() => shop.server.inFlight === 0 && shop.server.asked.some((path) => path.includes('/people')));
      await line.fixture.whenStable();
    };
    return { ...shop, line, settings, type };
  };
  afterEach(() => localStorage.removeItem('isometra-asked-initials'));

  it('are asked about once: they may be somebody’s own', async () => {
    const { server, line, type } = await open([person('HB')]);
    await type('HB');
    expect(line.text()).toBe('');
    await type('QX');
    expect(line.text()).toContain('Nobody in this shop has used the initials QX before.');
    await line.press('Add QX to the people');
    await until(() => server.people.some(({ initials }) => initials === 'QX'));
    await type('QX');
    expect(line.text()).toBe('');
  });

  it('or a typing mistake: then the hand goes on under the right ones, and what was written counts as theirs', async () => {
    const { server, line, settings, type } = await open([person('HB')]);
    await type('HBB');
    await line.press('I meant HB');
    await until(() => server.people.some(({ initials, meant }) => initials === 'HBB' && meant === 'HB'));
    expect(settings.by()).toBe('HB');
    // Typed again they are put right at once.
    await type('HBB');
    await until(() => settings.by() === 'HB');
    expect(TestBed.inject(Undo).told()).toBe('HBB counts as HB in this shop.');
  });

  it('left as they are they are not asked about again; the first one in a shop is not asked at all', async () => {
    const { line, type } = await open([person('HB')]);
    await type('QX');
    await line.press('Leave it');
    await type('QX');
    expect(line.text()).toBe('');
  });

  it('of the first one in a shop nobody asks', async () => {
    const { line, type } = await open([]);
    await type('HB');
    expect(line.text()).toBe('');
  });

  it('hours of a person: typed by the day, with days away; what is wrong is named, and what was typed stays when people are asked for again', async () => {
    const { server } = await openShop([], { prepare: (fake) => (fake.people = [person('EK'), person('HB')]) });
    const page = await show(PeopleList);
    await until(() => page.text().includes('EK'));
    expect(page.text()).toContain('the hours of the shop');
    await page.press('Hours of EK');
    await page.type('Hours of EK on Monday', '25');
    await page.press('Keep the hours');
    expect(page.text()).toContain('How many hours on Monday?');
    await page.type('Hours of EK on Monday', '2,5');
    await page.type('Days on which EK is away', '2026-12-24, soon');
    await page.press('Keep the hours');
    expect(page.text()).toContain('“soon” is no day.');
    await firstValueFrom(TestBed.inject(People).load(), { defaultValue: undefined });
    expect(page.field('Hours of EK on Monday').value).toBe('2,5');
    await page.type('Days on which EK is away', '2026-12-24 2026-12-25');
    await page.press('Keep the hours');
    await until(() => page.text().includes('Mon 2.5 h, away on 2 days'));
    expect(server.people.find(({ initials }) => initials === 'EK')?.working).toEqual({
      hours: { mon: 2.5 },
      off: ['2026-12-24', '2026-12-25'],
    });
    await page.press('Hours of EK');
    await page.press('Hours of the shop');
    await until(() => server.people.find(({ initials }) => initials === 'EK')?.working === null);
  });
});
