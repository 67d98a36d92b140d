import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { photographPrint, strewn, type Camera } from '@isometra/core/practice';
import type { DeskEntry, EntryKind, StoredSurface, Surface } from '@isometra/contract';
import { deskOf, gridZones } from '@isometra/work';
import { LATHE, openShop, show, until, type FakeServer } from '../testing/fake-shop.spec';
import { Keys } from '../data/keys';
import { Settings } from '../data/settings';
import { FaceDrawing } from './face-drawing';
import { FaceForm } from './face-form';
import { Faces } from './faces';
import { PlanPanel, type Planned } from './plan-panel';
import { PrintPanel } from './print-panel';
import { ScrapingDesk } from './scraping-desk';

const FACE = 'b1b0c4d2-0000-4000-8000-000000000001';
const face = (part: Partial<Surface> = {}): Surface => ({
  ...{ id: FACE, machineId: LATHE, name: 'Saddle, flat way', part: 'Saddle', use: 'general', target: null, material: 'iron', liner: null },
  ...{ width: 400, height: 60, turned: 0, mirrored: false, zones: gridZones(400, 60, 4, 1), version: 1 },
  reference: { kitId: null, name: 'edge', length: 500 },
  aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2.5 },
  passes: { rough: 12, fine: 5, keepFine: 2 },
  evening: { session: 150, setUp: 20, cycle: 25 },
  ...part,
});
let clock = Date.parse('2026-01-02T18:00:00.000Z');
const entry = <Kind extends EntryKind>(kind: Kind, content: Extract<DeskEntry, { kind: Kind }>['content']): DeskEntry =>
  ({
    id: crypto.randomUUID(),
    surfaceId: FACE,
    kind,
    content,
    supersedes: null,
    by: 'RM',
    at: new Date((clock += 60_000)).toISOString(),
  }) as DeskEntry;
const plan = (...depths: number[]) =>
  entry('plan', { depths: depths.map((depth, i) => ({ zone: String(i + 1), depth })), from: 'hand', why: 'so' });
const stored = (surface: Surface, ...entries: DeskEntry[]): StoredSurface => ({ ...surface, entries });

describe('the scraping desk', () => {
  const open = async (surface: StoredSurface, prepare: (server: FakeServer) => void = () => undefined) => {
    const shop = await openShop([], {
      prepare: (server) => {
        server.surfaces = [surface];
        prepare(server);
      },
    });
    const page = await show(ScrapingDesk, { machineId: LATHE, surfaceId: FACE });
    await until(() => page.text().includes('end A'));
    return { ...shop, page };
  };
  type Page = Awaited<ReturnType<typeof open>>['page'];
  const key = async (page: Page, name: string) => {
    dispatchEvent(new KeyboardEvent('keydown', { key: name }));
    document.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: false }));
    await page.fixture.whenStable();
    page.fixture.detectChanges();
  };
  const kinds = (server: FakeServer) => server.surfaces[0].entries.map(({ kind }) => kind);
  const figure = (page: Page) => page.element.querySelector('.figure b')?.textContent?.trim();

  it('says what comes now, how much is left here and when it will be done', async () => {
    const { page } = await open(stored(face(), plan(0, 12, 24, 46)));
    expect(figure(page)).toBe('5');
    expect(page.text()).toContain('Zone 4: one roughing pass at 45°.');
    expect(page.text()).toContain('1 evening left (1 to 2), about 3 h');
    expect(page.element.querySelector('.pad.now')?.getAttribute('aria-label')).toBe('Zone 4, 5 passes left');
    expect(page.text()).toContain('not measured yet, at most 20 µm/m either way');
  });

  it('a digit is a pass on its zone at once, a touch too, and nothing needs to be typed', async () => {
    const { page, server } = await open(stored(face(), plan(0, 12, 24, 46)));
    await key(page, '4');
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual({ zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    expect(figure(page)).toBe('4');
    page.element.querySelectorAll<SVGElement>('.pad')[2].dispatchEvent(new MouseEvent('click'));
    await until(() => server.surfaces[0].entries.length === 3);
    await page.press('Take the last back');
    await until(() => server.surfaces[0].entries.length === 4);
    expect(kinds(server)).toEqual(['plan', 'pass', 'pass', 'withdrawn']);
    await key(page, '9');
    expect(page.text()).toContain('There is no zone 9 on this face.');
  });

  it('anything can be put right the next day: an older entry is taken back, and what hangs on it follows', async () => {
    const { page, server } = await open(
      stored(face(), plan(0, 0, 0, 36), entry('pass', { zone: '4', kind: 'whole', grade: 'rough', angle: 45 }), entry('done', {})),
    );
    expect(figure(page)).toBe('3');
    await page.press('Put right');
    await page.press('Take back: Zone 4: one roughing pass at 45°');
    await until(() => server.surfaces[0].entries.length === 4);
    await until(() => figure(page) === '4');
    await page.press('Take back: Planned: so');
    await until(() => page.text().includes('Blue it, or push the straightedge.'));
  });

  it('its keys go with it: on the next screen Space is no pass', async () => {
    const { page, server } = await open(stored(face(), plan(0, 0, 0, 40)));
    const keys = TestBed.inject(Keys);
    expect(keys.all().some(({ keys: own }) => own.includes(' '))).toBeTrue();
    page.fixture.destroy();
    expect(keys.all()).toEqual([]);
    dispatchEvent(new KeyboardEvent('keydown', { key: '4' }));
    keys.handle(new KeyboardEvent('keydown', { key: ' ' }));
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(kinds(server)).toEqual(['plan']);
  });

  it('of more than nine zones the second digit is waited for', async () => {
    const { page, server } = await open(stored(face({ zones: gridZones(400, 60, 12, 1) })));
    await key(page, '1');
    await key(page, '2');
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual(jasmine.objectContaining({ zone: '12' }));
    await key(page, '1');
    expect(server.surfaces[0].entries.length).toBe(1);
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual(jasmine.objectContaining({ zone: '1' }));
  });

  it('what is left out is not scraped, what is kept low is relieved', async () => {
    const zones = gridZones(400, 60, 4, 1).map((zone, i) => ({ ...zone, use: (['bear', 'relieve', 'ignore', 'bear'] as const)[i] }));
    const { page, server } = await open(stored(face({ zones })));
    await key(page, '3');
    expect(page.text()).toContain('Zone 3 is left out: nothing comes off it.');
    await key(page, '2');
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual(jasmine.objectContaining({ zone: '2', kind: 'relief' }));
  });

  it('the straightedge is put where it turned, and said in words', async () => {
    const { page, server } = await open(stored(face()));
    expect(page.text()).toContain('Push the straightedge at both ends');
    await page.press('It turned there');
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual({ from: 0, length: 400, a: 283, b: 117 });
    await until(() => page.text().includes('Bears evenly, or on two bands, about 200 mm.'));
    expect(page.text()).toContain('It turns evenly: blue it now.');
  });

  it('a second try of the straightedge stands with the first, and only while nothing was done since', async () => {
    const { page, server } = await open(stored(face(), entry('hinge', { from: 0, length: 400, a: 230, b: 220 })));
    const slide = page.element.querySelector<HTMLInputElement>('[aria-label="Pushed at end A it turns at"]');
    expect(slide).not.toBeNull();
    await page.press('once more: there');
    await until(() => server.surfaces[0].entries.length === 2);
    const [first, second] = server.surfaces[0].entries;
    expect(second.supersedes).toBe(first.id);
    expect(second.content).toEqual({ from: 0, length: 400, a: 230, b: 220, again: { a: 230, b: 220 } });
    await until(() => !page.text().includes('once more: there'));
  });

  it('a straightedge that rocks tells nothing, and says so', async () => {
    const rocks = entry('hinge', { from: 0, length: 400, a: 230, b: 220, again: { a: 290, b: 220 } });
    const { page } = await open(stored(face(), rocks));
    expect(page.text()).toContain('It rocks: stone, wipe, push again.');
    expect(page.text()).toContain('Neither try tells where it is high.');
  });

  it('a blade has a name and a stroke, a state a reason', async () => {
    const { page, server } = await open(stored(face()));
    const submit = async () => {
      page.element.ownerDocument.querySelector<HTMLFormElement>('.p-dialog form')?.dispatchEvent(new Event('submit'));
      await page.fixture.whenStable();
    };
    await page.press('fresh blade');
    await page.type('Blade', 'carbide, 40 mm radius');
    await page.type('Length of a stroke', 'long');
    await submit();
    expect(page.text()).toContain('Length of a stroke: must be above nothing and at most 200 mm. Try: 12 mm');
    await page.type('Length of a stroke', '0.5 in');
    await submit();
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual({ name: 'carbide, 40 mm radius', stroke: 12.7 });
    await page.press('Bring in contact');
    await submit();
    expect(page.text()).toContain('Why: is missing');
    await page.type('Why', 'squareness 12, near enough');
    await submit();
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual({ state: 'contact', why: 'squareness 12, near enough' });
  });

  it('a bearing shell is locked first, and its blue says which half was clamped', async () => {
    const { page, server } = await open(stored(face({ shell: { diameter: 80 }, aim: null })));
    expect(page.text()).toContain('Clamp both without shim: does it lock?');
    await page.press('It does not lock');
    await until(() => page.text().includes('Joint faces are proud: bring them down.'));
    await page.press('It locks');
    await until(() => page.text().includes('Blue it, or push the straightedge.'));
    await page.choose('upper half');
    await page.press('Blue');
    await until(() => server.surfaces[0].entries.length === 3);
    expect(server.surfaces[0].entries[2].content).toEqual({ film: null, dye: false, pressed: null, clamped: 'upper' });
  });

  it('layers come out whole: 0.62 to 0.54 in layers of 20 µm, and what one more would leave', async () => {
    const aim = { check: 'spindle-play', quantity: 'liftFront', unit: 'um', wanted: 12, room: 10, lever: 1 };
    const read = entry('measure', { value: 96, doubt: 3, roundId: null });
    const { page } = await open(stored(face({ shell: { diameter: 80 }, aim }), read));
    await page.press('Peel shims');
    await page.type('shim under the cap now', '0.62 mm');
    await page.type('one layer of it', 'thin');
    expect(page.text()).toContain('one layer of it:');
    await page.type('one layer of it', '20 um');
    // 96 − 12 = 84: four whole layers of 20, never five.
    expect(page.text()).toContain('4 layers come out: 0.540 mm of shim is left, and 16.0 µm of lift.');
    expect(page.text()).toContain('One layer more would leave 0.0 µm of lift.');
    await page.type('shim under the cap now', '0.07 mm');
    expect(page.text()).toContain('the joint faces come down first');
  });

  it('a face that is held back takes no pass, by touch or by pedal', async () => {
    const { page, server } = await open(stored(face({ heldBack: true }), plan(0, 0, 0, 40)));
    expect(page.text()).toContain('Held back: compare with it, scrape nothing.');
    await key(page, '4');
    expect(page.text()).toContain('nothing comes off it. Its card can lift that.');
    await key(page, ' ');
    expect(server.surfaces[0].entries.length).toBe(1);
  });

  it('the full check is priced apart, and a narrow way says over how much of it a square is counted', async () => {
    const print = {
      ...{ picture: null, film: 4, pressed: null, corners: null, threshold: 0.5 },
      result: { spots: 60, spotsPerSquare: 12, bearingShare: 0.2, largestBare: 9, zones: [] },
    };
    const evening = { session: 150, setUp: 20, cycle: 25, check: 90 };
    const narrow = face({ height: 11, zones: gridZones(400, 11, 4, 1), evening });
    const { page } = await open(stored(narrow, entry('print', print), plan(0, 0, 0, 46)));
    expect(page.text()).toContain('and 2 full checks, 3.0 h');
    expect(page.text()).toContain('counted over 59 mm of its length');
  });

  it('measures in the unit of the aim, and refuses what is no figure', async () => {
    const { page, server } = await open(stored(face()));
    await page.press('Measure');
    await page.type('What it reads', 'a lot');
    await page.type('How surely', '4');
    page.element.ownerDocument.querySelector<HTMLFormElement>('.p-dialog form')?.dispatchEvent(new Event('submit'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('What it reads: must be a figure in um/m, or with its unit. Try: 43');
    await page.type('What it reads', '−43,5');
    page.element.ownerDocument.querySelector<HTMLFormElement>('.p-dialog form')?.dispatchEvent(new Event('submit'));
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual({ value: -43.5, doubt: 4, roundId: null });
    await page.press('Measure');
    await page.type('What it reads', '1 thou/ft');
    await page.type('How surely', '2');
    page.element.ownerDocument.querySelector<HTMLFormElement>('.p-dialog form')?.dispatchEvent(new Event('submit'));
    await until(() => server.surfaces[0].entries.length === 2);
    expect((server.surfaces[0].entries[1].content as { value: number }).value).toBeCloseTo(83.333, 2);
  });

  it('a face without an aim is scraped by its contact alone', async () => {
    const { page } = await open(stored(face({ aim: null })));
    await page.press('Measure');
    expect(page.text()).toContain('This face is scraped by its contact alone');
  });

  it('a face that is not there says so', async () => {
    await openShop([]);
    const page = await show(ScrapingDesk, { machineId: LATHE, surfaceId: FACE });
    await until(() => page.text().includes('There is no such face'));
    expect(page.text()).toContain('All faces of this machine');
  });
});

describe('a face as it lies on the bench', () => {
  const drawn = async (part: Partial<Surface>) => {
    await openShop([]);
    const surface = face(part);
    const page = await show(FaceDrawing, { surface, zones: deskOf(surface, []).zones });
    const at = (text: string) => {
      const found = page.all('text').find((node) => node.textContent?.trim() === text);
      return [Number(found?.getAttribute('x')), Number(found?.getAttribute('y'))];
    };
    return { page, at };
  };

  it('as drawn end A is at the left, with zone 1 beside it', async () => {
    const { at } = await drawn({});
    expect(at('end A')[0]).toBeLessThan(at('end B')[0]);
    expect(at('1')[0]).toBeLessThan(at('4')[0]);
  });

  it('mirrored, or upside down, end A is at the right, and zone 1 goes with it', async () => {
    const { at } = await drawn({ mirrored: true });
    expect(at('end A')[0]).toBeGreaterThan(at('end B')[0]);
    expect(at('1')[0]).toBeGreaterThan(at('4')[0]);
  });

  it('turned to the right end A is above, turned to the left below', async () => {
    const right = await drawn({ turned: 90 });
    expect(right.at('end A')[1]).toBeLessThan(right.at('end B')[1]);
    expect(right.at('1')[1]).toBeLessThan(right.at('4')[1]);
  });

  it('turned to the left end A is below, and zone 1 with it', async () => {
    const { at } = await drawn({ turned: 270 });
    expect(at('end A')[1]).toBeGreaterThan(at('end B')[1]);
    expect(at('1')[1]).toBeGreaterThan(at('4')[1]);
  });
});

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
    await page.press('Work to this');
    expect(page.text()).toContain('How much higher it is');
    await page.type('Height of the wedge', '48 um');
    await page.press('Work to this');
    expect(page.text()).toContain('Say which end stands high.');
    expect(plans).toEqual([]);
    await page.choose('end B');
    expect(page.text()).toContain('Most comes off zone 4: 36.0 µm.');
    expect(page.text()).toContain(
      'Or in strips marked on the iron from end B: one pass each over 50 mm, 150 mm, 250 mm, 350 mm; what lies beyond is left alone.',
    );
    await page.press('Work to this');
    expect(plans[0].depths.map(({ depth }) => depth)).toEqual([0, 12, 24, 36]);
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
    await page.press('Work to this');
    expect(plans[0].depths[0].depth).toBeCloseTo(50.8 * 0.75, 6);
  });

  it('heights become depths down to the best plane', async () => {
    const { page, plans } = await open();
    await page.choose('heights read at each zone');
    await page.press('Work to this');
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
    await page.press('Work to this');
    expect(plans[0].from).toBe('plane');
    expect(plans[0].depths.find(({ zone }) => zone === '2')?.depth).toBeCloseTo(12, 0);
  });

  it('what was typed as heights is not taken for depths', async () => {
    const { page, plans, put } = await open();
    await page.choose('heights read at each zone');
    await put('Height of zone 1', '30 um');
    await page.choose('depths by hand');
    await page.press('Work to this');
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
    await page.press('Work to this');
    expect(plans[0].depths.map(({ depth }) => Math.round(depth))).toEqual([30, 20, 10, 0]);
    await page.choose('a tilt that alignment asks for');
    await page.press('Work to this');
    expect(page.text()).toContain('How much higher it is: give it above nothing');
    expect(plans.length).toBe(1);
  });

  it('tilted and brought down: both schools are priced, and the plan holds both', async () => {
    const { page, plans } = await open();
    await page.type('Height of the wedge', '48 um');
    await page.choose('end B');
    await page.type('All of it comes down by', '24 um');
    await page.press('Work to this');
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
      await shown.page.press('Work to this');
      expect(shown.page.text()).toContain('Say which end the places are counted from.');
      await shown.page.choose('end A');
      await shown.page.press('Work to this');
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
      expect(unread.page.text()).toContain('Nobody has read it over pins at three places or more.');
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
    await page.press('Work to this');
    expect(page.text()).toContain('One plane needs heights of both faces');
    for (const zone of [1, 2, 3, 4]) await put(`Height of zone ${zone}, Rear pad`, '0 um');
    await page.press('Work to this');
    expect(plans[0].depths.map(({ depth }) => Math.round(depth))).toEqual([20, 20, 20, 20]);
    expect(others[0]?.surface.id).toBe(rear);
    expect(others[0]?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([0, 0, 0, 0]);
  });

  it('an edge is named as the drawing shows it', async () => {
    const upside = await open({ turned: 180 });
    expect(upside.page.text()).toContain('the edge below on the drawing');
  });
});

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
  const open = async () => {
    await openShop([]);
    const page = await show(PrintPanel, { surface: face(), film: 4 });
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
    await page.press('Keep this print');
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

  it('is counted by eye, and a count that is none is refused', async () => {
    const { page, prints } = await open();
    await page.press('Count by eye');
    await page.type('Spots in a square', '12.5');
    await page.press('Keep the count');
    expect(page.text()).toContain('must be a whole number. Try: 12');
    await page.type('Spots in a square', '12');
    await page.type('Thickness of the film', 'thick');
    await page.press('Keep the count');
    expect(page.text()).toContain('Film: must be a thickness');
    await page.type('Thickness of the film', '3 um');
    await page.press('Keep the count');
    expect(prints[0]).toEqual(jasmine.objectContaining({ film: 3, picture: null }));
    expect(prints[0].result.spotsPerSquare).toBe(12);
  });
});

describe('faces', () => {
  it('are listed with what comes next, and an empty list says what to do', async () => {
    await openShop([], { prepare: (server) => (server.surfaces = [stored(face(), plan(0, 0, 0, 30))]) });
    const page = await show(Faces);
    await until(() => page.text().includes('Saddle, flat way'));
    expect(page.text()).toContain('Zone 4: one roughing pass at 45°.');
    expect(page.text()).toContain('4 passes left');
  });

  it('a bearing shell is unrolled: half way round its bore', async () => {
    const { server } = await openShop([]);
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm);
    await page.choose('a bearing shell, unrolled');
    await page.type('Name', 'Front bearing, lower');
    await page.type('Length, end A to end B', '90');
    await page.type('Straightedge or plate, length', '90');
    await page.press('To the desk');
    expect(page.text()).toContain('Bore: is missing. Try: 80 mm');
    await page.type('Bore', '80');
    await page.press('To the desk');
    await until(() => server.surfaces.length === 1);
    expect(server.surfaces[0].height).toBeCloseTo((Math.PI * 80) / 2, 9);
    expect(server.surfaces[0].shell).toEqual({ diameter: 80 });
    await until(() => went.calls.count() === 1);
  });

  it('zones are drawn with a stroke, on what is laid out, and a face that goes with another says how', async () => {
    const { server } = await openShop([], { prepare: (shop) => (shop.surfaces = [stored(face({ name: 'Front flank' }))]) });
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm);
    await page.type('Name', 'Rear flank');
    await page.type('Length, end A to end B', '400');
    await page.type('Width', '60');
    await page.type('Straightedge or plate, length', '500');
    await page.type('Zones along', '2');
    const svg = page.element.querySelector<SVGSVGElement>('iso-face-drawing svg') as SVGSVGElement;
    const { left, top, width, height } = svg.getBoundingClientRect();
    const at = (x: number, y: number, type: string) =>
      svg.dispatchEvent(new PointerEvent(type, { clientX: left + x * width, clientY: top + y * height, isPrimary: true, bubbles: true }));
    at(0.25, 0.2, 'pointerdown');
    for (const [x, y] of [
      [0.5, 0.2],
      [0.75, 0.2],
      [0.75, 0.6],
      [0.25, 0.6],
    ] as const)
      at(x, y, 'pointermove');
    at(0.25, 0.3, 'pointerup');
    await page.fixture.whenStable();
    const pads = () => [...page.element.querySelectorAll<SVGElement>('.pad')];
    expect(pads().length).toBe(3);
    // The click that ends a stroke is no touch.
    pads()[0].dispatchEvent(new MouseEvent('click'));
    await page.fixture.whenStable();
    expect(page.text()).not.toContain('zone 1: kept low');
    // A touch is none of a zone's strokes: it goes through its uses.
    for (let i = 0; i < 2; i++) {
      at(0.5, 0.4, 'pointerdown');
      at(0.5, 0.4, 'pointerup');
      pads()[2].dispatchEvent(new MouseEvent('click'));
    }
    await page.fixture.whenStable();
    expect(page.text()).toContain('zone 3: left out');
    await page.pick('Goes with', 'Front flank');
    await page.press('To the desk');
    expect(page.text()).toContain('say whether they lie together or apart');
    await page.choose('at opposite ends');
    await page.press('To the desk');
    await until(() => server.surfaces.length === 2);
    const { zones, mate } = server.surfaces[1];
    expect(mate).toEqual({ as: 'flank', surfaceId: FACE, angle: 55, apart: true });
    expect(zones.map(({ use }) => use)).toEqual(['bear', 'bear', 'ignore']);
    const xs = zones[2].outline.map(({ x }) => x);
    expect(Math.min(...xs)).toBeCloseTo(100, -1);
    expect(Math.max(...xs)).toBeCloseTo(300, -1);
    // As it was kept it comes back: drawn zones are not laid out anew.
    const again = await show(FaceForm, { surfaceId: server.surfaces[1].id });
    await until(() => again.element.querySelectorAll('.pad').length === 3);
    await again.press('Keep it');
    await until(() => server.surfaces[1].version === 2);
    expect(server.surfaces[1].zones).toEqual(zones);
  });

  it('what a plan of a casting asks of a face is the first plan at its desk', async () => {
    const { server } = await openShop([]);
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm, { name: 'Headstock, vee front', part: 'headstock', depth: '24.5' });
    expect(page.element.querySelector<HTMLInputElement>('input')?.value).toBe('Headstock, vee front');
    await page.type('Length, end A to end B', '300');
    await page.type('Width', '40');
    await page.type('Straightedge or plate, length', '500');
    await page.press('To the desk');
    await until(() => server.surfaces.length === 1 && server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].part).toBe('headstock');
    expect(server.surfaces[0].entries[0].content).toEqual(
      jasmine.objectContaining({ from: 'headstock', depths: ['1', '2', '3', '4'].map((zone) => ({ zone, depth: 24.5 })) }),
    );
    await until(() => went.calls.count() === 1);
  });

  it('are described, with what is missing named; what was typed is kept', async () => {
    const { server } = await openShop([]);
    TestBed.inject(Settings).who.set('RM');
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm);
    await page.press('To the desk');
    expect(page.text()).toContain('Name: is missing. Try: Saddle, flat way');
    await page.type('Name', 'Flat way');
    await page.type('Length, end A to end B', 'long');
    await page.press('To the desk');
    expect(page.text()).toContain('"long" cannot be read. Try: 400 mm');
    await page.type('Length, end A to end B', '16 in');
    await page.type('Width', '60');
    await page.type('Straightedge or plate, length', '500');
    page.element.querySelectorAll<SVGElement>('.pad')[1].dispatchEvent(new MouseEvent('click'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('zone 2: kept low');
    const again = await show(FaceForm);
    expect(again.element.querySelector<HTMLInputElement>('[aria-label="Name"], input')?.value).toBe('Flat way');
    await again.press('To the desk');
    await until(() => server.surfaces.length === 1);
    expect(server.surfaces[0].width).toBeCloseTo(406.4, 6);
    expect(server.surfaces[0].zones.map(({ use }) => use)).toEqual(['bear', 'relieve', 'bear', 'bear']);
    expect(server.surfaces[0].version).toBe(1);
    await until(() => went.calls.count() === 1);
    expect(went.calls.argsFor(0)[0]).toEqual(['/machines', LATHE, 'scraping', server.surfaces[0].id]);
  });
});
