import { startingSheet } from '@isometra/core';
import { slantOf } from '@isometra/work';
import { lathe, openShop, show, toldHead } from '../testing/fake-shop.spec';
import { turningGhosts } from './ghosts';
import { Survey } from './survey';
import { bedUnder, offsetPixels, turningFittingFactor, turningHas } from './turning';
import { TurningPicture } from './turning-picture';

describe('a turning centre as drawn', () => {
  it('slants as its card says in words', () => {
    expect(slantOf({ rises: 'rear', degrees: 30 })).toBe(30);
    expect(slantOf({ rises: 'operator', degrees: 30 })).toBe(-30);
    expect(slantOf({ rises: 'flat', degrees: 30 })).toBe(0);
    expect(slantOf(undefined)).toBeUndefined();
    expect(slantOf({ rises: 'rear' })).toBeUndefined();
    expect(slantOf({ rises: 'operator', degrees: '45' })).toBe(-45);
  });

  it('draws the worst offset within its frame, and its limits as circles', () => {
    expect(turningFittingFactor({ turretH: 50 })).toBe(1000);
    expect(offsetPixels(50, turningFittingFactor({ turretH: 50 }))).toBe(50);
    expect(turningFittingFactor({})).toBe(5000);
    expect(turningGhosts(startingSheet('general'))).toEqual({ turret: [10], bush: [8], sub: [8] });
    expect(turningHas('turning-centre-tailstock')).toEqual({ sub: false, bush: false, tail: true });
  });

  it('lies on a bed as steep as its slide, whichever end is the higher; unknown it is not drawn', async () => {
    const corners = (slant: number) => [...bedUnder(slant).matchAll(/(\d+) (\d+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
    for (const slant of [15, 30, 45, 60]) {
      const [[x1, y1], [x2, y2]] = corners(slant);
      expect((y2 - y1) / (x2 - x1))
        .withContext(`${slant}, its rear the higher`)
        .toBeCloseTo(Math.tan((slant * Math.PI) / 180), 1);
      const [[a1, b1], [a2, b2]] = corners(-slant);
      expect((b2 - b1) / (a2 - a1)).toBeCloseTo(-Math.tan((slant * Math.PI) / 180), 1);
    }
    expect(corners(0)).toEqual([
      [60, 336],
      [430, 336],
    ]);
    await openShop();
    const none = await show(TurningPicture, { known: {}, factor: 1000 });
    expect(none.text()).toContain('how the slide leans is not on the card');
    expect(none.all('.slide')[0].getAttribute('d')).toBe('');
  });

  it('is what its survey shows: the slide at its slant, the pocket off the axis, no tailstock where it has none', async () => {
    await openShop([], {
      prepare: (server) => {
        server.told = [toldHead('turret-bore', { offsetHorizontal: 38, offsetVertical: -33 })];
        const card = { ...lathe().card, number: 'T-06', kind: 'turning-centre', slide: { rises: 'rear', degrees: '45' } };
        server.machines = [{ ...lathe(), card }];
      },
    });
    const page = await show(Survey);
    expect(page.all('iso-turning-picture svg').length).toBe(1);
    expect(page.all('iso-lathe-picture').length).toBe(0);
    expect(page.text()).toContain('Turret pocket: 0.038 mm toward you.');
    expect(page.text()).toContain('Turret pocket: 0.033 mm low.');
    expect(page.text()).not.toContain('Tailstock');
    const factor = Number(/errors drawn ×(\d+)/.exec(page.text())?.[1]);
    const ring = page.all('iso-turning-picture .ring')[0];
    // Toward the operator is to the right, low is down.
    expect(Number(ring.getAttribute('cx'))).toBeCloseTo(0.038 * factor, 2);
    expect(Number(ring.getAttribute('cy'))).toBeCloseTo(0.033 * factor, 2);
    expect(page.all('iso-turning-picture .slide')[0].getAttribute('d')).toBe('M-120 -120L120 120');
  });
});
