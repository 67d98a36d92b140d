import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { ShopStore } from '../data/shop';
import { dateWords, OWN_ZONE, shopZone } from '../data/when';
import { openShop, refusal, show, until } from '../testing/fake-shop';
import { ShopTime } from './shop-time';

describe('the time of the shop', () => {
  afterEach(() => shopZone.set(OWN_ZONE));

  it('is told by the first browser, and only where the server has none', async () => {
    const { server } = await openShop();
    await firstValueFrom(TestBed.inject(ShopStore).load());
    expect(server.shop).toEqual({ timeZone: OWN_ZONE, chosenBy: null });
    server.shop = { timeZone: 'Asia/Tokyo', chosenBy: null };
    await firstValueFrom(TestBed.inject(ShopStore).load());
    expect(shopZone()).toBe('Asia/Tokyo');
    expect(server.sent.length).toBe(1);
  });

  it('is chosen on the board; every date follows', async () => {
    const { server } = await openShop();
    server.shop = { timeZone: 'America/Chicago', chosenBy: null };
    await firstValueFrom(TestBed.inject(ShopStore).load());
    expect(dateWords('2026-03-03T00:30:00.000Z')).toBe('2 Mar 2026');
    const line = await show(ShopTime);
    expect(line.text()).toContain('Days and evenings are those of America/Chicago.');
    (line.fixture.componentInstance as unknown as { choose(zone: string): void }).choose('Asia/Tokyo');
    await until(() => shopZone() === 'Asia/Tokyo');
    await line.fixture.whenStable();
    expect(line.text()).toContain('those of Asia/Tokyo (chosen by');
    expect(dateWords('2026-03-03T00:30:00.000Z')).toBe('3 Mar 2026');
  });

  it('says what is wrong where it cannot be kept', async () => {
    const { server } = await openShop();
    const line = await show(ShopTime);
    await line.press('Change the time zone');
    await line.escape('.line button');
    expect(line.text()).withContext('Escape leaves it').toContain('Change the time zone');
    server.refuse = refusal(400, 'is no time zone that is known here', undefined, 'timeZone');
    (line.fixture.componentInstance as unknown as { choose(zone: string): void }).choose('Mars/Olympus');
    await until(() => line.text().includes('is no time zone'));
    expect(shopZone()).toBe(OWN_ZONE);
  });
});
