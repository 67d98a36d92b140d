import ICAL from 'ical.js';
import type { Due } from '@isometra/contract';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';
import { calendarText } from './calendar.js';
import { shopDue } from './due.js';

/** What an independent reader makes of a calendar. */
const eventsOf = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component);
    return { summary: event.summary, start: event.startDate, end: event.endDate, description: event.description, uid: event.uid };
  });

describe('the calendar of the shop', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async () => {
    const added = machine('L-1');
    await shop.http.post('/api/machines').send(added).expect(201);
    return added;
  };
  const hours = (day: string, from: string, to: string) =>
    shop.http
      .put('/api/shop/card')
      .send({ card: { hours: [{ day, from, to }] }, mark: null, version: 0, by: 'AB' })
      .expect(200);
  const text = (now: string) => calendarText(shop, new Date(now));

  it('sessions begin by the clock on the wall, also on the day on which it is put forward', async () => {
    await lathe();
    await shop.http.put('/api/shop').send({ timeZone: 'Europe/London', by: 'AB' }).expect(200);
    await hours('Sunday', '19:00', '21:00');
    const starts = eventsOf(await text('2026-03-21T12:00:00Z')).map(({ start }) => start.toJSDate().toISOString());
    // Before and after the clocks change on 29 March.
    expect(starts).toContain('2026-03-22T19:00:00.000Z');
    expect(starts).toContain('2026-03-29T18:00:00.000Z');
  });

  it('each session says at which machine, what, and how long, and no two of one person lie over one another', async () => {
    await lathe();
    await hours('Tuesday', '18:30', '20:30');
    const events = eventsOf(await text('2026-12-01T08:00:00Z')).filter(({ description }) => description?.startsWith('AB'));
    expect(events.length).toBeGreaterThan(2);
    expect(events[0].summary).toMatch(/^L-1: .+ and \d+ more$/);
    expect(events[0].description).toContain('25 min');
    const times = events
      .map(({ start, end }) => [start.toJSDate().getTime(), end.toJSDate().getTime()])
      .sort(([one], [other]) => one - other);
    times.slice(1).forEach(([start], i) => expect(start).toBeGreaterThanOrEqual(times[i][1]));
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
    // The same tomorrow: a calendar that reads it again moves an entry instead of doubling it.
    const again = eventsOf(await text('2026-12-01T09:00:00Z')).filter(({ description }) => description?.startsWith('AB'));
    expect(again.map(({ uid }) => uid)).toEqual(events.map(({ uid }) => uid));
  });

  it('what is due stands on its day, what was missed today; the list says when it was due', async () => {
    const { id } = await lathe();
    const kit = { kind: 'instrument', data: { kind: 'lever', graduation: '0.002 mm' }, photos: [], version: 1, by: 'AB' };
    await shop.http
      .post('/api/kit')
      .send({ ...kit, id: uuid(), name: 'Late dial', care: { due: '2026-11-01' } })
      .expect(201);
    await shop.http
      .post('/api/kit')
      .send({ ...kit, id: uuid(), name: 'Dial', care: { due: '2026-12-20' } })
      .expect(201);
    const days = eventsOf(await text('2026-12-01T08:00:00Z')).map(({ summary, start }) => `${start.toString()} ${summary}`);
    expect(days).toContain('2026-12-20 Have “Dial” certified');
    expect(days).toContain('2026-12-01 Have “Late dial” certified');
    const due: Due = await shopDue(shop.sequelize, shop.solver, '2026-12-01T08:00:00Z');
    expect(due.items.map(({ day, title }) => `${day} ${title}`)).toEqual([
      '2026-11-01 Have “Late dial” certified',
      '2026-12-20 Have “Dial” certified',
    ]);
    expect(id).toBeTruthy();
  });

  it('is fetched under an address of its own, until that is revoked', async () => {
    await lathe();
    const { body: made } = await shop.http.post('/api/calendars').send({ name: 'Kitchen', by: 'AB' }).expect(201);
    expect(made.address).toMatch(/^\/calendar\/[\w-]{32}\.ics$/);
    const answer = await shop.http.get(made.address).expect(200);
    expect(answer.headers['content-type']).toContain('text/calendar');
    expect(eventsOf(answer.text).length).toBeGreaterThan(0);
    const { body: listed } = await shop.http.get('/api/calendars').expect(200);
    expect(listed).toEqual([{ id: made.id, name: 'Kitchen', by: 'AB', at: made.at }]);
    await shop.http.get('/calendar/AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA.ics').expect(404);
    await shop.http.get('/calendar/x.ics').expect(404);
    await shop.http.delete(`/api/calendars/${made.id}?by=AB`).expect(200);
    await shop.http.get(made.address).expect(404);
    await shop.http.delete(`/api/calendars/${made.id}?by=AB`).expect(404);
    await shop.http.post('/api/calendars').send({ name: ' ', by: 'AB' }).expect(400);
    const { entries } = (await shop.http.get('/api/log?what=shop').expect(200)).body;
    expect(entries.map((entry: { text: string }) => entry.text)).toEqual([
      'Calendar address for Kitchen revoked',
      'Calendar address for Kitchen made',
    ]);
  });

  it('an empty shop has a calendar without entries', async () => {
    const { text: empty } = await shop.http.get('/api/calendar.ics').expect(200);
    expect(eventsOf(empty)).toEqual([]);
  });
});
