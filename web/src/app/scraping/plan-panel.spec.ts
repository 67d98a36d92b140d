import type { DeskEntry, Surface } from '@isometra/contract';
import { gridZones } from '@isometra/work';
import { openShop, show } from '../testing/fake-shop';
import { FACE, entry, face, stored } from '../testing/faces';
import { PlanPanel, type Planned } from './plan-panel';

describe('a plan of depths', () => {
  const open = async (part: Partial<Surface> = {}) => {
    await openShop([]);
    return panel({ surface: stored(face(part)) });
  };
  const panel = async (inputs: Readonly<Record<string, unknown>>) => {
    const page = await show(PlanPanel, { pass: { rough: 12, fine: 5 }, ...inputs });
    const plans: Extract<DeskEntry, { kind: 'plan' }>['content'][] = [];
    const others: Planned['other'][] = [];
    page.fixture.componentInstance.planned.subscribe(({ own, other }) => (plans.push(own), others.push(other)));
    const put = async (label: string, text: string) => {
      const field = page.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    };
    return { page, plans, others, put };
  };

  it('asks which end is high before anything comes off', async () => {
    const { page, plans } = await open();
    await page.press('Use this plan');
    expect(page.text()).toContain('How much higher it is');
    await page.type('Height of the wedge', '48 um');
    await page.press('Use this plan');
    expect(page.text()).toContain('Say which end is high.');
    expect(plans).toEqual([]);
    await page.choose('end B');
    expect(page.text()).toContain('Most comes off zone 4: 36.0 µm.');
    expect(page.text()).toContain(
      'Or in strips marked on the iron from end B: one pass each over 50 mm, 150 mm, 250 mm, 350 mm; leave the rest alone.',
    );
    await page.press('Use this plan');
    expect(plans[0].depths.map(({ depth }) => depth)).toEqual([0, 12, 24, 36]);
  });

  it('strips that are narrower than the blade are joined', async () => {
    await openShop([]);
    const wide = stored(face({ width: 100, zones: gridZones(100, 60, 2, 1), passes: { rough: 5, fine: 5, keepFine: 0 } }));
    const { page } = await panel({ surface: wide, pass: { rough: 5, fine: 5 }, blade: 20 });
    await page.type('Height of the wedge', '50 um');
    await page.choose('end B');
    // Ten passes of 5 µm over 100 mm are strips of 10 mm: two and two are joined.
    const marks =
      /one pass each over ([^;]*);/
        .exec(page.text())?.[1]
        .split(', ')
        .map((mark) => parseInt(mark, 10)) ?? [];
    expect(marks.length).toBe(10);
    expect(new Set(marks).size).toBe(5);
  });

  it('what is less than a pass is left', async () => {
    const { page } = await open();
    await page.type('Height of the wedge', '4 um');
    await page.choose('end B');
    expect(page.text()).toContain('Less than one pass anywhere: leave it');
  });

  it('takes thou as thou', async () => {
    const { page, plans } = await open();
    await page.type('Height of the wedge', '2 thou');
    await page.choose('end A');
    await page.press('Use this plan');
    expect(plans[0].depths[0].depth).toBeCloseTo(50.8 * 0.75, 6);
  });

  it('heights become depths down to the best plane', async () => {
    const { page, plans } = await open();
    await page.choose('heights read at each zone');
    await page.press('Use this plan');
    expect(page.text()).toContain('A plane needs heights at three zones or more.');
    for (const [zone, height] of [
      ['1', '0'],
      ['2', '14'],
      ['3', '0'],
      ['4', '0'],
    ] as const) {
      const field = page.element.querySelector<HTMLInputElement>(`[aria-label="Height of zone ${zone}"]`) as HTMLInputElement;
      field.value = `${height} um`;
      field.dispatchEvent(new Event('change'));
    }
    await page.fixture.whenStable();
    await page.press('Use this plan');
    expect(plans[0].from).toBe('plane');
    expect(plans[0].depths.find(({ zone }) => zone === '2')?.depth).toBeCloseTo(12, 0);
  });

  it('what was typed as heights is not taken for depths', async () => {
    const { page, plans, put } = await open();
    await page.choose('heights read at each zone');
    await put('Height of zone 1', '30 um');
    await page.choose('depths by hand');
    const fields = [...page.element.querySelectorAll<HTMLInputElement>('.cell input')];
    expect(fields.map(({ value }) => value)).toEqual(['', '', '', '']);
    await page.press('Use this plan');
    expect(page.text()).toContain('Give the depth of one zone at least');
    expect(plans).toEqual([]);
  });

  it('without tilt the high end comes down; free to lean nothing does', async () => {
    const { page, plans, put } = await open();
    await page.choose('heights read at each zone');
    for (const [zone, height] of Object.entries({ 1: 30, 2: 20, 3: 10, 4: 0 })) await put(`Height of zone ${zone}`, `${height} um`);
    await page.type('Doubt of a height', '0 um');
    expect(page.text()).toContain('Less than one pass anywhere');
    await page.choose('no tilt to what it was read from');
    await page.press('Use this plan');
    expect(plans[0].depths.map(({ depth }) => Math.round(depth))).toEqual([30, 20, 10, 0]);
    await page.choose('a tilt that alignment asks for');
    await page.press('Use this plan');
    expect(page.text()).toContain('How much higher it is: give more than 0');
    expect(plans.length).toBe(1);
  });

  it('heights of two bites of a short straightedge are joined by the zones that both have read', async () => {
    const { page, plans, put } = await open({ reference: { kitId: null, name: 'short', length: 250 } });
    await page.choose('heights read at each zone');
    await page.choose('no tilt to what it was read from');
    await page.type('Doubt of a height', '0 um');
    for (const [zone, height] of Object.entries({ 1: 0, 2: 0, 3: 0 })) await put(`Height of zone ${zone}, The first bite`, `${height} um`);
    await put('Height of zone 3, The second bite', '-30 um');
    await put('Height of zone 4, The second bite', '-18 um');
    await page.press('Use this plan');
    expect(page.text()).toContain('Two bites join by two zones at least that both have read.');
    await put('Height of zone 2, The second bite', '-20 um');
    await page.press('Use this plan');
    // It leaned by 10 µm a zone: zone 4 stands 22 µm over what that would have read.
    expect(plans[0].depths.map(({ depth }) => Math.round(depth))).toEqual([0, 0, 0, 22]);
  });

  it('tilted and brought down: both schools are priced, and the plan holds both', async () => {
    const { page, plans } = await open();
    await page.type('Height of the wedge', '48 um');
    await page.choose('end B');
    await page.type('All of it comes down by', '24 um');
    await page.press('Use this plan');
    expect(plans[0].depths.map(({ depth }) => depth)).toEqual([24, 36, 48, 60]);
    // 24: one and two; 36: two and two; 48: three and two; 60: four and two. Straight down first: four times three, then 0-2-3-4, then two more each.
    expect(page.text()).toContain('Tilted first, then straight down: 18 passes over zones, about 2 evenings.');
    expect(page.text()).toContain('Straight down first: 29 passes over zones, about 2 evenings');
  });

  describe('over pins', () => {
    const other = 'b1b0c4d2-0000-4000-8000-000000000002';
    const mate = { as: 'flank', surfaceId: other, angle: 55, apart: false } as const;
    const near = () => face({ mate, zones: gridZones(400, 60, 7, 1) });
    const hinge = (surfaceId: string, a: number, b: number) => ({ ...entry('hinge', { from: 0, length: 400, a, b }), surfaceId });
    const pins = { round: 4, doubt: 1.3, places: [0, 1, 3, 1, 0, 0, 0].map((tenths, i) => ({ at: 29 + 57 * i, over: 2.54 * tenths })) };
    const at = (here: [number, number] | null, there: [number, number] | null) => ({
      surface: stored(near(), ...(here ? [hinge(FACE, ...here)] : [])),
      mate: { other: stored(face({ id: other, name: 'Rear flank' }), ...(there ? [hinge(other, ...there)] : [])), mate },
      pins,
    });
    const even: [number, number] = [283, 117];
    const high: [number, number] = [150, 138];
    const open = async (...turns: Parameters<typeof at>) => {
      await openShop([]);
      const shown = await panel(at(...turns));
      await shown.page.choose('widths over pins');
      await shown.page.press('Use this plan');
      expect(shown.page.text()).toContain('Say which end the places are counted from.');
      await shown.page.choose('end A');
      await shown.page.press('Use this plan');
      return shown;
    };

    it('the other flank is guilty: this one is left alone', async () => {
      const { page, plans } = await open(even, high);
      expect(page.text()).toContain('Leave this one alone: scrape Rear flank.');
      expect(plans).toEqual([]);
    });

    it('this flank is guilty: all of it comes off here, square to the flank', async () => {
      const { page, plans } = await open(high, even);
      expect(page.text()).toContain('Rear flank bears evenly. All of it comes off this one.');
      expect(plans[0].from).toBe('pins');
      expect(plans[0].depths.map(({ depth }) => Math.round(10 * depth) / 10)).toEqual([0, 2.1, 6.2, 2.1, 0, 0, 0]);
    });

    for (const [name, here, there, words] of [
      ['one that was not tried', even, null, 'push the straightedge on Rear flank first, as it is now.'],
      ['two that were not tried', null, null, 'push the straightedge on this flank and on Rear flank first'],
      ['two that bear evenly', even, even, 'yet both flanks bear evenly'],
      ['one that is high somewhere else', [320, 310], even, 'no flank is named on that'],
    ] as const)
      it(`rather no flank than a wrong one: ${name}`, async () => {
        const { page, plans } = await open(here && [...here], there && [...there]);
        expect(page.text()).toContain(words);
        expect(plans).toEqual([]);
      });

    it('is not offered where no flank goes with the face, and asks for the reading where there is none', async () => {
      await openShop([]);
      const alone = await panel({ surface: stored(face()), pins });
      expect(alone.page.text()).not.toContain('widths over pins');
      const unread = await panel({ ...at(even, high), pins: null });
      await unread.page.choose('widths over pins');
      expect(unread.page.text()).toContain('Not yet read over pins at three places or more.');
    });
  });

  it('two faces that must be one plane are planned together', async () => {
    await openShop([]);
    const rear = 'b1b0c4d2-0000-4000-8000-000000000003';
    const pad = { width: 100, height: 100, zones: gridZones(100, 100, 2, 2) };
    const other = stored(face({ ...pad, id: rear, name: 'Rear pad' }));
    const mate = { as: 'plane', surfaceId: rear, x: 0, y: 300 } as const;
    const { page, plans, others, put } = await panel({ surface: stored(face({ ...pad, mate })), mate: { other, mate } });
    await page.choose('heights read at each zone');
    await page.type('Doubt of a height', '0 um');
    await page.choose('no tilt to what it was read from');
    for (const zone of [1, 2, 3, 4]) await put(`Height of zone ${zone}`, '20 um');
    await page.press('Use this plan');
    expect(page.text()).toContain('One plane needs heights of both faces');
    for (const zone of [1, 2, 3, 4]) await put(`Height of zone ${zone}, Rear pad`, '0 um');
    await page.press('Use this plan');
    expect(plans[0].depths.map(({ depth }) => Math.round(depth))).toEqual([20, 20, 20, 20]);
    expect(others[0]?.surface.id).toBe(rear);
    expect(others[0]?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([0, 0, 0, 0]);
  });

  it('an edge is named as the drawing shows it', async () => {
    const upside = await open({ turned: 180 });
    expect(upside.page.text()).toContain('the edge below on the drawing');
  });
});
