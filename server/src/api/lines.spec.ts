import { paced } from './lines.js';

describe('how far something is', () => {
  beforeEach(() => jasmine.clock().install().mockDate(new Date('2026-12-02T08:00:00.000Z')));
  afterEach(() => jasmine.clock().uninstall());

  it('is told ten times a second at the most, but always where something else is begun, and at the end', () => {
    const told: string[] = [];
    const tell = paced(({ doing, done, of }) => told.push(`${doing} ${done}/${of}`));
    for (let done = 0; done < 10; done++) tell('rounds', done, 10);
    tell('printing', 0, 1);
    tell('printing', 1, 1);
    expect(told).toEqual(['rounds 0/10', 'printing 0/1', 'printing 1/1']);
    jasmine.clock().tick(100);
    tell('printing', 0, 4);
    tell('printing', 1, 4);
    jasmine.clock().tick(100);
    tell('printing', 2, 4);
    expect(told.slice(3)).toEqual(['printing 0/4', 'printing 2/4']);
  });
});
