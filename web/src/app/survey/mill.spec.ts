import { knownMill } from '@isometra/work';
import { openShop, lathe, show, toldHead } from '../testing/fake-shop';
import { Survey } from './survey';

const round = toldHead;

describe('a mill as drawn', () => {
  it('what is known is the latest word on each', () => {
    const rounds = [
      round('head-tram', { tilt: 900, nod: 10 }),
      round('head-tram', { tilt: 40, nod: -20 }),
      round('axis-squareness', { squareness: 5 }),
    ];
    expect(knownMill(rounds)).toEqual({ tilt: 40, nod: -20, squareness: 5 });
    expect(knownMill(rounds.slice(0, 1))).toEqual({ tilt: 900, nod: 10 });
  });

  it('is what the survey of a mill shows, in the drawing and in words', async () => {
    await openShop([], {
      prepare: (server) => {
        server.told = [round('head-tram', { tilt: 80, nod: -30 }), round('column-lean', { leanX: 20 })];
        server.machines = [{ ...lathe(), card: { ...lathe().card, number: 'M-03', kind: 'turret-mill' } }];
      },
    });
    const page = await show(Survey);
    expect(page.all('iso-bent svg[data-family=mill]').length).toBe(1);
    expect(page.all('svg[data-family=lathe]').length).toBe(0);
    expect(page.text()).toContain('Head: 0.024 mm in 300 mm leaning right.');
    expect(page.text()).toContain('Head: 0.009 mm in 300 mm nodding back.');
    expect(page.text()).toContain('The two motions: not measured.');
    const factor = Number(/errors drawn ×(\d+)/.exec(page.text())?.[1]);
    const head = page.all('iso-bent .head')[0].getAttribute('transform') ?? '';
    const [cosine, sine] = head.replace('matrix(', '').split(' ').map(Number);
    expect((Math.atan2(sine, cosine) * 180) / Math.PI).toBeCloseTo(((80e-6 * 180) / Math.PI) * factor, 6);
  });
});
