import { CHECKS, type CheckDefinition } from '@isometra/core';
import { openShop, show, until } from '../testing/fake-shop';
import { Draws } from './draws';

const check = CHECKS.get('tailstock-traverse') as CheckDefinition;
const sheet = (readings: object[]) => ({
  format: 'isometra-sheet/1',
  check: check.id,
  instrument: { kind: 'lever', graduation: '2 um', sense: 1 },
  setup: { centreDistance: 400 },
  readings,
});
const inputs = (readings: object[]) => ({
  sheet: sheet(readings),
  quantity: 'offsetHorizontal',
  info: check.quantities['offsetHorizontal'],
});

describe('a hundred thousand draws', () => {
  it('run in a worker and tell the interval with its directions', async () => {
    await openShop();
    const draws = await show(
      Draws,
      inputs([
        { plane: 'h', at: 20, value: 0 },
        { plane: 'h', at: 380, value: -10 },
      ]),
    );
    await draws.press('Try it with 100 000 draws');
    await until(() => draws.text().includes('95 of 100'));
    await draws.fixture.whenStable();
    expect(draws.text()).toMatch(/95 of 100 draws of 100,000 lie between \d+(\.\d)? µm away from you and \d+(\.\d)? µm away from you/);
    expect(draws.named('Draw again')).toBeTruthy();
  });

  it('can be stopped', async () => {
    await openShop();
    const many = Array.from({ length: 400 }, (_, i) => ({ plane: 'h', at: i, value: (i % 5) / 2 }));
    const draws = await show(Draws, inputs(many));
    await draws.press('Try it with 100 000 draws');
    await until(() => draws.all('[role=progressbar]').length > 0);
    await draws.press('Stop');
    await until(() => draws.all('[role=progressbar]').length === 0);
    await draws.fixture.whenStable();
    const done = Number(/draws of ([\d,]+)/.exec(draws.text())?.[1].replace(',', ''));
    expect(done).toBeLessThan(100_000);
  });

  it('say what stands in the way of a sheet that makes no sense', async () => {
    await openShop();
    const draws = await show(Draws, inputs([{ plane: 'q', at: 20, value: 0 }]));
    await draws.press('Try it with 100 000 draws');
    await until(() => draws.all('[role=alert]').length > 0);
    expect(draws.text()).toContain('readings[0].plane');
  });
});
