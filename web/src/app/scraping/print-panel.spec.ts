import { photographPrint, strewn, type Camera } from '@isometra/core/practice';
import type { DeskEntry, Surface } from '@isometra/contract';
import { deskOf, entryWords, gridZones } from '@isometra/work';
import { openShop, show, until } from '../testing/fake-shop';
import { entry, face } from '../testing/faces';
import { PrintPanel } from './print-panel';

describe('a print', () => {
  const camera = {
    width: 400,
    height: 90,
    corners: [
      { x: 0, y: 0 },
      { x: 400, y: 0 },
      { x: 400, y: 90 },
      { x: 0, y: 90 },
    ],
  };
  const photo = async (blue = true) => {
    const made = {
      width: 400,
      height: 60,
      film: 4,
      bumps: strewn(400, 60, 3, { seed: 2, radius: 6 }),
      ...(!blue && { looks: { blue: [141, 142, 140] as const } }),
    };
    const taken = photographPrint(made, camera as unknown as Camera);
    const canvas = new OffscreenCanvas(taken.width, taken.height);
    canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(taken.data), taken.width), 0, 0);
    return { blob: await canvas.convertToBlob({ type: 'image/png' }), truth: taken.truth };
  };
  const open = async (part: Partial<Surface> = {}) => {
    await openShop([]);
    const page = await show(PrintPanel, { surface: face(part), film: 4 });
    const prints: Extract<DeskEntry, { kind: 'print' }>['content'][] = [];
    page.fixture.componentInstance.read.subscribe((content) => prints.push(content));
    const inside = page.fixture.componentInstance as unknown as { take(file: Blob): void };
    const give = async (blob: Blob) => {
      inside.take(blob);
      await page.fixture.whenStable();
    };
    return { page, prints, give };
  };

  it('is read in a worker by its corners, counted by zone, and kept with its photograph', async () => {
    const { page, prints, give } = await open();
    const { blob, truth } = await photo();
    await give(blob);
    await until(() => page.text().includes('Touch the corner at end A, above.'));
    await page.press('The photograph is the whole face');
    await until(() => page.text().includes('bears'), 8000);
    // A pixel to a millimetre: it is read, and said to be coarse.
    expect(page.text()).toMatch(/shows a millimetre by \d\.\d pixels/);
    await page.press('Save print');
    await until(() => prints.length === 1);
    expect(Math.abs(prints[0].result.spots - truth.spots)).toBeLessThanOrEqual(Math.max(1, 0.05 * truth.spots));
    expect(Math.abs((prints[0].result.bearingShare ?? 0) - truth.share)).toBeLessThan(0.03);
    expect(prints[0].picture).toMatch(/^[0-9a-f]{64}$/);
    expect(prints[0].result.zones.map(({ id }) => id)).toEqual(['1', '2', '3', '4']);
    expect(prints[0].result.zones.reduce((sum, { spots }) => sum + spots, 0)).toBe(prints[0].result.spots);
  });

  it('without blue, or no picture at all, gets a clear answer', async () => {
    const { page, give } = await open();
    await give((await photo(false)).blob);
    await until(() => page.text().includes('Touch the corner'));
    await page.press('The photograph is the whole face');
    await until(() => page.text().includes('No blue is seen in the photograph.'), 8000);
    await give(new Blob(['words']));
    await until(() => page.text().includes('The photograph is no picture that can be read.'), 8000);
  });

  it('of a straightedge that is shorter than the face says where it lay, before it tells of anything', async () => {
    const { page, prints } = await open({ reference: { kitId: null, name: 'short', length: 250 } });
    await page.press('Count by eye');
    await page.type('Spots in a square', '12');
    await page.press('Save count');
    expect(page.text()).toContain('End A of the straightedge: must be from 0 to 150 mm');
    await page.type('Where the end A of the straightedge lay', '200 mm');
    await page.press('Save count');
    expect(prints).toEqual([]);
    await page.type('Where the end A of the straightedge lay', '150 mm');
    await page.press('Save count');
    expect(prints[0].bite).toEqual({ from: 150, length: 250 });
  });

  it('is told by eye zone by zone: what was not looked at is left out', async () => {
    const { page, prints } = await open();
    const choose = async (group: string, label: string) => {
      const labels = [...page.element.querySelectorAll(`[aria-label="${group}"] label`)];
      labels
        .find((entry) => entry.textContent?.trim() === label)
        ?.querySelector('input')
        ?.click();
      await page.fixture.whenStable();
    };
    await page.press('Count by eye');
    await page.press('Save count');
    expect(page.text()).toContain('touch each zone that you looked at');
    await choose('Zone 1 is', 'bare');
    await choose('Zone 2 is', 'light');
    await choose('Zone 4 is', 'heavy');
    await page.press('Save count');
    expect(prints[0].result.zones.map(({ id, bearingShare, area }) => [id, bearingShare, area])).toEqual([
      ['1', 0, 6000],
      ['2', 0.08, 6000],
      ['4', 0.55, 6000],
    ]);
    expect(prints[0].result.spotsPerSquare).toBeNull();
    const surface = face({ aim: null });
    const desk = deskOf(surface, [entry('blue', { film: 4, dye: false, pressed: null }), entry('print', prints[0])]);
    // Zone 3 is unknown, not bare: it is asked for before anything comes off.
    expect([desk.step.code, desk.zones.map(({ left }) => left)]).toEqual(['next-bite', [0, 0, null, 1]]);
    expect(entryWords(entry('print', prints[0]), '', (mm) => String(mm))).toBe(
      'Print told by eye: zone 1 bare, zone 2 light, zone 4 heavy',
    );
  });

  it('of a part of the face is laid flat by its marks, and counts on the zones that it shows', async () => {
    const { page, prints, give } = await open({
      width: 800,
      zones: gridZones(800, 60, 8, 1),
      reference: { kitId: null, name: 'edge', length: 900 },
    });
    const { blob, truth } = await photo();
    await page.type('The photograph shows the face from', '400');
    await page.type('The photograph shows the face to', '1000');
    await give(blob);
    await until(() => page.text().includes('The part that is photographed: must lie on the face, from 0 to 800 mm'));
    await page.type('The photograph shows the face to', '800');
    await until(() => page.text().includes('Touch the mark at 400 mm from end A, above.'));
    await page.press('The photograph is the whole face');
    await until(() => page.text().includes('bears'), 8000);
    await page.press('Save print');
    await until(() => prints.length === 1);
    expect(prints[0].bite).toEqual({ from: 400, length: 400 });
    expect(prints[0].result.zones.map(({ id }) => id)).toEqual(['5', '6', '7', '8']);
    expect(Math.abs(prints[0].result.spots - truth.spots)).toBeLessThanOrEqual(Math.max(1, 0.05 * truth.spots));
  });

  it('is counted by eye, and a count that is none is refused', async () => {
    const { page, prints } = await open();
    await page.press('Count by eye');
    await page.type('Spots in a square', '12.5');
    await page.press('Save count');
    expect(page.text()).toContain('must be a whole number. Example: 12');
    await page.type('Spots in a square', '12');
    await page.type('Thickness of the film', 'thick');
    await page.press('Save count');
    expect(page.text()).toContain('Film: must be a thickness');
    await page.type('Thickness of the film', '3 um');
    await page.press('Save count');
    expect(prints[0]).toEqual(jasmine.objectContaining({ film: 3, picture: null }));
    expect(prints[0].result.spotsPerSquare).toBe(12);
  });
});
