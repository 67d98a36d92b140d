import { TestBed } from '@angular/core/testing';
import { barRound, openShop, show, until } from '../testing/fake-shop';
import { BenchStore } from './bench-store';
import { TrialWork } from './trial-work';

describe('what is left of the work', () => {
  it('is the smallest pad of the last cut; warm work is stopped at more; kept with the round', async () => {
    const round = {
      ...barRound(0, 0),
      ...{ check: 'tailstock-test-cut', instrument: { kind: 'micrometer', graduation: '1 um' }, plan: {} },
      setup: { centreDistance: '420 mm', bar: { diameter: '50 mm' } },
    };
    const pad = (at: number, value: string, set: number) => ({ ...round.readings[0], id: crypto.randomUUID(), keys: { at }, value, set });
    const read = {
      ...round,
      readings: [pad(20, '50.800 mm', 1), pad(400, '50.790 mm', 1), pad(20, '50.420 mm', 2), pad(400, '50.400 mm', 2)],
    };
    await openShop([read], { providers: [BenchStore] });
    const store = TestBed.inject(BenchStore);
    store.open(read.id).subscribe();
    await until(() => store.round() !== null);
    const panel = await show(TrialWork);
    await panel.type('Must come to', '50');
    await panel.type('A trial cut takes', '0.1 mm');
    expect(panel.text()).toContain('0.400 mm is left on the diameter of the smallest pad: 4 more trial cuts.');
    await panel.type('Warmer now by', '20 C');
    // 50 mm, 20 degrees, 11.5 per million: 0.0115.
    expect(panel.text()).toContain('Stop at 50.011 mm while it is warm: it comes to 50.000 mm.');
    expect(panel.text()).toContain('3 more trial cuts');
    expect((await show(TrialWork)).text()).toContain('Stop at 50.011 mm');
    await panel.type('Must come to', '60 mm');
    expect(panel.text()).toContain('too small already');
  });
});
