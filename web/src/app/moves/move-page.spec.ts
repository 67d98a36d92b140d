import { planMove } from '@isometra/core';
import { openShop, show, until } from '../testing/fake-shop';
import { MovePage } from './move-page';
import { canBeTyped, openMove, WORKED } from './open-move';

const file = (value: object, name = 'a.json') => new File([JSON.stringify(value)], name);
const SHIMS = { format: 'isometra-move/1', move: 'shim-leaves', thickness: '0.1 mm', stock: [{ thickness: '0.05 mm', count: 4 }] };

describe('a move by itself', () => {
  const page = async () => {
    await openShop();
    return show(MovePage);
  };
  const answer = (shown: Awaited<ReturnType<typeof page>>) => shown.all('.answer dd').map((line) => line.textContent?.trim());
  async function give(shown: Awaited<ReturnType<typeof page>>, given: File): Promise<void> {
    const choose = shown.element.querySelector<HTMLInputElement>('input[type=file]') as HTMLInputElement;
    const held = new DataTransfer();
    held.items.add(given);
    choose.files = held.files;
    choose.dispatchEvent(new Event('change'));
    await until(() => shown.text().includes(given.name));
  }

  it('is worked out while it is typed, with the leaves that lie in the drawers', async () => {
    const shown = await page();
    expect(shown.text()).toContain('as soon as enough is given');
    await shown.type('Thickness', '0.1');
    expect(shown.text()).toContain('Shim stock is missing');
    await shown.press('Use the shims in the drawers');
    expect(answer(shown)[0]).toMatch(/^0\.\d+ mm/);
    expect(shown.text()).toContain('Shim edges cut: gloves.');
  });

  it('is kept while somebody looks elsewhere', async () => {
    const first = await page();
    await first.type('Thickness', '0.1');
    first.fixture.destroy();
    const again = await show(MovePage);
    expect(again.element.querySelector<HTMLInputElement>('iso-schema-form input')?.value).toBe('0.1 mm');
  });

  it('is opened from a file, what no field shows included, and a file that cannot be used says why and changes nothing', async () => {
    const shown = await page();
    await give(shown, file(SHIMS, 'shims.json'));
    expect(answer(shown)).toEqual(['0.050 mm, 0.050 mm', '0.100 mm', '0.000 mm']);
    await give(shown, file({ ...SHIMS, thickness: '5 apples' }, 'wrong.json'));
    expect(shown.text()).toContain('wrong.json was not opened: thickness');
    expect(answer(shown)).toEqual(['0.050 mm, 0.050 mm', '0.100 mm', '0.000 mm']);
    await give(shown, new File(['no json'], 'text.json'));
    expect(shown.text()).toContain('text.json was not opened: must be a move sheet');
    await give(shown, file({ format: 'isometra-move/1', move: 'pass-plan', depths: [12, 4], rough: '5 um', fine: '3 um' }, 'passes.json'));
    expect(shown.text()).toContain('depths: 2 entries');
    expect(shown.text()).toContain('Roughing passes');
  });

  it('takes a bare figure of a file in the unit of the file, also one that stands there as a text', async () => {
    const shown = await page();
    await give(shown, file({ ...SHIMS, thickness: '100', stock: [{ thickness: '50', count: 4 }] }, 'bare.json'));
    expect(answer(shown)).toEqual(['0.050 mm, 0.050 mm', '0.100 mm', '0.000 mm']);
  });

  it('is asked back about a figure that is a thousand times off', async () => {
    const shown = await page();
    await shown.pick('Kind of move', 'Turn the adjusting screws');
    await shown.type('Amount', '0.02 mm');
    await shown.type('Screw pitch', '1500');
    expect(shown.all('.answer').length).toBe(0);
  });

  it('offers every kind whose figures can all be typed, and every example of one is taken', () => {
    expect(WORKED.filter(canBeTyped).map(({ kind }) => kind)).toContain('gib');
    for (const { kind, example } of WORKED) {
      const raw = { ...example, format: 'isometra-move/1', move: kind };
      expect(() => planMove(raw))
        .withContext(kind)
        .not.toThrow();
      expect(openMove(raw))
        .withContext(kind)
        .toEqual(jasmine.objectContaining({ opened: jasmine.anything() }));
    }
  });
});
