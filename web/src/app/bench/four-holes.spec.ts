import { openShop, show } from '../testing/fake-shop';
import { FourHoles } from './four-holes';

describe('four holes drilled with motions that are not square', () => {
  it('differ along their diagonals, which one by the way it is out: by corners as drawn', async () => {
    await openShop([]);
    const holes = await show(FourHoles, { squareness: 500 });
    await holes.type('Holes apart, left to right', '300');
    await holes.type('Holes apart, front to rear', '400 mm');
    // The far holes run off to the left by 0.2 mm: from the front right √(300.2² + 400²), from the front left √(299.8² + 400²).
    const longer = Math.hypot(300.2, 400) - Math.hypot(299.8, 400);
    expect(longer).toBeCloseTo(0.24, 3);
    expect(holes.text()).toContain('differ by 0.240 mm, the one from the front right to the rear left is the longer');
    holes.fixture.componentRef.setInput('squareness', -500);
    await holes.fixture.whenStable();
    expect(holes.text()).toContain('the one from the front left to the rear right');
    holes.fixture.componentRef.setInput('squareness', 0);
    await holes.fixture.whenStable();
    expect(holes.text()).toContain('comes out true');
  });
});
