import { solve } from '@isometra/core';
import { spindleAxisSheet } from '@isometra/core/practice';
import { openShop, show } from '../testing/fake-shop';
import { TargetPicture } from './target-picture';

const TARGET = { h: 'slopeH', v: 'slopeV', at: 300, what: 'Free end, 300 mm out' };

describe('both planes as one picture', () => {
  beforeEach(() => openShop());
  const open = async (slopeH: number, slopeV: number, bar = { diameter: 40, freeLength: 300 }) => {
    const finding = solve(
      spindleAxisSheet({ slopeH, slopeV }, { bar, places: [20, 290], dial: { kind: 'lever', graduation: 1, sense: 1 } }),
    );
    const picture = await show(TargetPicture, { target: TARGET, finding });
    return { picture, finding, drawn: picture.fixture.componentInstance.drawn() };
  };

  it('toward the operator is to the right and up is up, at the scale of the zone', async () => {
    const { drawn } = await open(80, -40);
    if (!drawn) throw new Error('not drawn');
    expect(drawn.at.x).toBeGreaterThan(drawn.zero.x);
    expect(drawn.at.y).toBeGreaterThan(drawn.zero.y);
    // The zone is 15 µm wide and 20 µm high at 300 mm; the end stands 24 µm out and 12 down.
    const perMicrometre = drawn.zone.width / 15;
    expect(drawn.zone.height / perMicrometre).toBeCloseTo(20.1, 6);
    expect((drawn.at.x - drawn.zero.x) / perMicrometre).toBeCloseTo(24, 4);
    expect((drawn.at.y - drawn.zero.y) / perMicrometre).toBeCloseTo(12, 1);
    expect(drawn.out).toBeTrue();
  });

  it('the droop is a ghost below where the end truly is, with its size', async () => {
    const { picture, drawn, finding } = await open(20, 20, { diameter: 12, freeLength: 300 });
    const droop = drawn?.ghosts.find((ghost) => ghost.name.includes('droop'));
    if (!drawn || !droop) throw new Error('no ghost');
    const perMicrometre = drawn.zone.width / 15;
    expect(droop.from.x).toBeCloseTo(drawn.at.x, 6);
    expect((droop.from.y - drawn.at.y) / perMicrometre).toBeCloseTo(finding.quantities['slopeV'].terms['sag'] * 0.3, 6);
    expect(picture.text()).toMatch(/without droop 0\.0\d+ mm/);
  });

  it('is told for those who cannot see it, and waits for both planes', async () => {
    const { picture } = await open(20, 20);
    expect(picture.element.querySelector('svg')?.getAttribute('aria-label')).toBe('Free end, 300 mm out: 0.006 mm toward you, 0.006 mm up');
    const { finding } = await open(1, 1);
    const { slopeV: _v, ...rest } = finding.quantities;
    const half = await show(TargetPicture, { target: TARGET, finding: { ...finding, quantities: rest } });
    expect(half.all('svg').length).toBe(0);
  });
});
