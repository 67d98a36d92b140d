import { millFittingFactor, millGhosts, millPictureOf, TABLE_DEPTH } from '@isometra/work';
import { knownMill } from '@isometra/work';
import { startingSheet } from '@isometra/core';
import { openShop, lathe, show, toldHead } from '../testing/fake-shop';
import { Survey } from './survey';

const round = toldHead;

/** Where the top of something upright goes when it is turned: + is to the right in the drawing. */
const top = (degrees: number): number => Math.sin((degrees * Math.PI) / 180);

describe('a mill as drawn', () => {
  it('what leans right leans right from the front, what leans toward the operator leans left from the right side', () => {
    const { front, side } = millPictureOf({ leanX: 100, leanY: 50, tilt: -80, nod: 60 }, 1000);
    expect(top(front.column)).toBeCloseTo(0.1, 3);
    expect(top(side.column)).toBeCloseTo(-0.05, 3);
    expect(top(front.head)).toBeCloseTo(-0.08, 3);
    expect(top(side.head)).toBeCloseTo(-0.06, 3);
  });

  it('a table that rises to the right and to the column has those ends up', () => {
    const { front, side } = millPictureOf({ tableX: 40, tableY: 30 }, 1000);
    // The right end of what lies goes down when turned with the clock.
    expect(top(front.table)).toBeCloseTo(-0.04, 3);
    expect(top(side.table)).toBeCloseTo(-0.03, 3);
  });

  it('an obtuse angle takes the column’s end of the table to the left', () => {
    expect(millPictureOf({ squareness: 65 }, 1000).shear).toBeCloseTo(-0.065 * TABLE_DEPTH, 9);
  });

  it('its limits are ghosts on either side, one-sided ones too', () => {
    const ghosts = millGhosts(startingSheet('general'), 1000);
    expect(ghosts.tilt.map(({ front }) => top(front.head).toFixed(3))).toEqual(['-0.065', '0.065']);
    const narrow = millGhosts(startingSheet('toolroom'), 1000);
    expect(narrow.tableX.map(({ front }) => top(front.table).toFixed(3))).toEqual(['0.015', '-0.015']);
  });

  it('what is known is the latest word on each; the worst angle turns by about ten degrees', () => {
    const rounds = [
      round('head-tram', { tilt: 900, nod: 10 }),
      round('head-tram', { tilt: 40, nod: -20 }),
      round('axis-squareness', { squareness: 5 }),
    ];
    expect(knownMill(rounds)).toEqual({ tilt: 40, nod: -20, squareness: 5 });
    expect(millFittingFactor(knownMill(rounds.slice(0, 1)))).toBe(200);
    expect(millFittingFactor({})).toBe(5000);
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
