import { slantOf } from '@isometra/work';
import { lathe, openShop, show, toldHead } from '../testing/fake-shop';
import { turningWords } from './known-words';
import { Survey } from './survey';
import { Bent } from './bent';

describe('a turning centre as drawn', () => {
  it('slants as its card says in words', () => {
    expect(slantOf({ rises: 'rear', degrees: 30 })).toBe(30);
    expect(slantOf({ rises: 'operator', degrees: 30 })).toBe(-30);
    expect(slantOf({ rises: 'flat', degrees: 30 })).toBe(0);
    expect(slantOf(undefined)).toBeUndefined();
    expect(slantOf({ rises: 'rear' })).toBeUndefined();
    expect(slantOf({ rises: 'operator', degrees: '45' })).toBe(-45);
  });

  it('of which the slant is unknown is drawn without its slide, and says so', async () => {
    await openShop();
    const none = await show(Bent, { kind: 'turning-centre', bending: { family: 'turning-centre', known: {} }, factor: 1000 });
    expect(none.text()).toContain('how the slide leans is not on the card');
    expect(none.all('.slide').length).toBe(0);
  });

  it('shows every station that was swept, the last as a ring, each under its own name', async () => {
    const pockets = [
      { name: 'station 3', h: 30, v: 0 },
      { name: 'station 5', h: -10, v: 20 },
    ];
    await openShop();
    const page = await show(Bent, {
      ...{ kind: 'turning-centre', bending: { family: 'turning-centre', known: { pockets } } },
      ...{ factor: 1000, slant: 45 },
    });
    const ring = page.all('.ring')[0];
    expect([ring.getAttribute('cx'), ring.getAttribute('cy')]).toEqual(['-10', '-20']);
    expect(page.text()).toContain('pocket, station 5');
    expect(page.all('.over').map((word) => word.textContent?.trim())).toEqual(['station 3']);
    expect(page.all('circle.axis')[0].getAttribute('transform')).toBe('matrix(1 0 0 1 280 236)');
    const words = turningWords({ pockets }, { sub: false, bush: false, tail: false }, { system: 'mm', fineness: 'coarse' });
    expect(words).toContain('Turret pocket, station 3: 0.030 mm toward you.');
    expect(words).toContain('Turret pocket, station 5: 0.020 mm high.');
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
    expect(page.all('iso-bent svg[data-family=turning-centre]').length).toBe(1);
    expect(page.all('svg[data-family=lathe]').length).toBe(0);
    expect(page.text()).toContain('Turret pocket: 0.038 mm toward you.');
    expect(page.text()).toContain('Turret pocket: 0.033 mm low.');
    expect(page.text()).not.toContain('Tailstock');
    const factor = Number(/errors drawn ×(\d+)/.exec(page.text())?.[1]);
    const ring = page.all('iso-bent .ring')[0];
    // Toward the operator is to the right, low is down.
    expect(Number(ring.getAttribute('cx'))).toBeCloseTo(0.038 * factor, 2);
    expect(Number(ring.getAttribute('cy'))).toBeCloseTo(0.033 * factor, 2);
    expect(page.all('iso-bent .slide')[0].getAttribute('d')).toBe('M-120 -120L120 120');
  });
});
