import { TestBed } from '@angular/core/testing';
import type { StoredSurface, Surface } from '@isometra/contract';
import { deskOf, gridZones } from '@isometra/work';
import { Keys } from '../data/keys';
import { LATHE, openShop, show, until, type FakeServer } from '../testing/fake-shop';
import { FACE, entry, face, plan, stored } from '../testing/faces';
import { FaceDrawing } from './face-drawing';
import { ShimPanel } from './shim-panel';
import { ScrapingDesk } from './scraping-desk';
import { Outbox } from '../data/outbox';

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
    TestBed.inject(Keys).handle(new KeyboardEvent('keydown', { key: name }));
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

  it('undo takes back the last thing, whatever it is; what somebody else wrote, or another evening, is asked about once', async () => {
    const old = { ...plan(0, 12, 24, 46), by: 'RM', at: '2020-03-01T18:00:00.000Z' };
    const { page, server } = await open(stored(face(), old));
    await key(page, 'Backspace');
    expect(kinds(server)).toEqual(['plan']);
    expect(page.text()).toMatch(/was written by RM, .*Undo it\? Press once more\./);
    await key(page, 'b');
    await until(() => server.surfaces[0].entries.length === 2);
    expect(page.text()).not.toContain('Press once more');
    // The blue is the last thing, and one's own of tonight: it goes at once.
    await key(page, 'Backspace');
    await until(() => server.surfaces[0].entries.length === 3);
    expect(server.surfaces[0].entries[2]).toEqual(
      jasmine.objectContaining({ kind: 'withdrawn', supersedes: server.surfaces[0].entries[1].id }),
    );
    await until(() => TestBed.inject(Outbox).waiting() === 0);
    await key(page, 'Backspace');
    await until(() => page.text().includes('Press once more'));
    expect(kinds(server).length).toBe(3);
    await key(page, 'Backspace');
    await until(() => server.surfaces[0].entries.length === 4);
    expect(server.surfaces[0].entries[3].supersedes).toBe(server.surfaces[0].entries[0].id);
  });

  it('a digit is a pass on its zone at once, a touch too, and nothing needs to be typed', async () => {
    const { page, server } = await open(stored(face(), plan(0, 12, 24, 46)));
    await key(page, '4');
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual({ zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    expect(figure(page)).toBe('4');
    page.element.querySelectorAll<SVGElement>('.pad')[2].dispatchEvent(new MouseEvent('click'));
    await until(() => server.surfaces[0].entries.length === 3);
    await page.press(/^Undo the last thing/);
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
    await page.press('Edit entries');
    await page.press('Undo: Zone 4: one roughing pass at 45°');
    await until(() => server.surfaces[0].entries.length === 4);
    await until(() => figure(page) === '4');
    await page.press('Undo: Planned: so');
    await until(() => page.text().includes('Blue it, or push the straightedge.'));
  });

  it('a pass that was forgotten is put in before what came after it', async () => {
    const planned = plan(0, 0, 0, 36);
    const blue = entry('blue', { film: 4, dye: false, pressed: null });
    const { page, server } = await open(stored(face(), planned, blue));
    expect(figure(page)).toBe('4');
    await page.press('Edit entries');
    await page.press('A pass was forgotten before: Blued, film 0.004 mm');
    await page.choose('4');
    await page.press('Put it in before');
    await until(() => server.surfaces[0].entries.length === 3);
    const put = server.surfaces[0].entries.find(({ kind }) => kind === 'pass');
    expect(put?.content).toEqual({ zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    expect(Date.parse(put?.at ?? '')).toBe(Date.parse(blue.at) - 1);
    await until(() => figure(page) === '3');
  });

  it('plan and straightedge disagree: one question, and what is answered is worked by', async () => {
    const { page, server } = await open(stored(face(), plan(0, 0, 48, 0), entry('hinge', { from: 0, length: 400, a: 60, b: 40 })));
    expect(page.text()).toContain('Plan and straightedge disagree: which is right?');
    expect(page.text()).toContain('By the plan the straightedge bears on zones 1, 3; it turns as if it bore about 50 mm.');
    expect(page.element.querySelector('.pad.now')).toBeNull();
    await key(page, ' ');
    expect(kinds(server)).toEqual(['plan', 'hinge']);
    await page.press('Go by the straightedge');
    await until(() => page.text().includes('Zone 1: one roughing pass'));
    await until(() => kinds(server).join() === 'plan,hinge,believed');
    await key(page, 'Backspace');
    await until(() => page.text().includes('which is right?'));
    await page.press('Go by the plan');
    await until(() => page.text().includes('Zone 3: one roughing pass'));
  });

  it('after two passes over a zone it is looked at, and the pedal does nothing until then', async () => {
    const pass = () => entry('pass', { zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    const { page, server } = await open(stored(face(), plan(0, 0, 0, 90), pass(), pass()));
    expect(page.text()).toContain('2 passes: look again, or measure.');
    await key(page, ' ');
    expect(page.text()).toContain('No zone is yellow.');
    await key(page, 'b');
    await until(() => page.text().includes('Zone 4: one roughing pass'));
    await until(() => kinds(server).at(-1) === 'blue');
  });

  it('a pass is roughing or finishing as the desk says, or as the hand does', async () => {
    const { page, server } = await open(stored(face(), plan(0, 0, 0, 46)));
    expect(page.text()).toContain('46.0 µm are still to come off where it is most, in zone 4.');
    await page.choose('finishing');
    await key(page, '4');
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual({ zone: '4', kind: 'whole', grade: 'fine', angle: 45 });
    await until(() => page.text().includes('41.0 µm are still to come off'));
  });

  it('its keys go with it: on the next screen Space is no pass', async () => {
    const { page, server } = await open(stored(face(), plan(0, 0, 0, 40)));
    const keys = TestBed.inject(Keys);
    expect(keys.all().some(({ keys: own }) => own.includes(' '))).toBeTrue();
    page.fixture.destroy();
    expect(keys.all()).toEqual([]);
    keys.handle(new KeyboardEvent('keydown', { key: '4' }));
    keys.handle(new KeyboardEvent('keydown', { key: ' ' }));
    await until(() => TestBed.inject(Outbox).waiting() === 0 && server.inFlight === 0);
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
    await page.press('Record pivot');
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual({ from: 0, length: 400, a: 283, b: 117 });
    await until(() => page.text().includes('Bears evenly, or on two bands, about 200 mm.'));
    expect(page.text()).toContain('It turns evenly: blue it now.');
  });

  for (const [lies, part, at] of [
    ['as drawn', {}, [250, 150]],
    ['mirrored', { mirrored: true }, [150, 250]],
    ['upside down', { turned: 180 }, [150, 250]],
    ['upside down and mirrored', { turned: 180, mirrored: true }, [250, 150]],
  ] as const)
    it(`the marks lie under the place where it turned, the face ${lies}`, async () => {
      const { page } = await open(stored(face(part), entry('hinge', { from: 0, length: 400, a: 250, b: 150 })));
      const marks = [...page.element.querySelectorAll('iso-edge-turns path')].map((mark) =>
        Math.round((Number(/M([\d.]+)/.exec(mark.getAttribute('d') ?? '')?.[1]) / 1000) * 400),
      );
      expect(marks).toEqual([...at]);
      // The slide goes the way of its mark.
      const slide = page.element.querySelector('[aria-label="Pushed at end A it turns at"]');
      expect(slide?.getAttribute('aria-valuenow') ?? (slide as HTMLInputElement | null)?.value).toBe(String(at[0]));
      expect(page.text()).toContain('pushed at A: 250 mm');
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
    expect(page.text()).toContain('Neither try shows where it is high.');
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
    expect(page.text()).toContain('Length of a stroke: must be more than 0 and at most 200 mm. Example: 12 mm');
    await page.type('Length of a stroke', '0.5 in');
    await submit();
    await until(() => server.surfaces[0].entries.length === 1);
    expect(server.surfaces[0].entries[0].content).toEqual({ name: 'carbide, 40 mm radius', stroke: 12.7 });
    await page.press('carbide, 40 mm radius');
    await page.type('Width of the blade', '0');
    await submit();
    expect(page.text()).toContain('Width of the blade: must be more than 0');
    await page.type('Width of the blade', '20 mm');
    await submit();
    await until(() => server.surfaces[0].entries.length === 2);
    expect(server.surfaces[0].entries[1].content).toEqual({ name: 'carbide, 40 mm radius', stroke: 12.7, width: 20 });
    await page.press('Bring in contact');
    await submit();
    expect(page.text()).toContain('Why: is missing');
    await page.type('Why', 'squareness 12, near enough');
    await submit();
    await until(() => server.surfaces[0].entries.length === 3);
    expect(server.surfaces[0].entries[2].content).toEqual({ state: 'contact', why: 'squareness 12, near enough' });
  });

  it('a bearing shell is blued on its spindle: no straightedge is asked for', async () => {
    const shell = face({ shell: { diameter: 80 } });
    const { page } = await open(stored(shell, entry('lock', { locks: true })));
    expect(page.text()).toContain('Blue the spindle, clamp the half, turn it.');
    expect(page.text()).not.toContain('Push the straightedge');
    expect(page.element.querySelector('iso-edge-turns')).toBeNull();
  });

  it('a bearing shell is locked first, and its blue says which half was clamped', async () => {
    const { page, server } = await open(stored(face({ shell: { diameter: 80 }, aim: null })));
    expect(page.text()).toContain('Clamp both without shim: does it lock?');
    await page.press('It does not lock');
    await until(() => page.text().includes('Joint faces are proud: bring them down.'));
    await page.press('It locks');
    await until(() => page.text().includes('Blue the spindle, clamp the half, turn it.'));
    await page.choose('upper half');
    await page.press('Blue');
    await until(() => server.surfaces[0].entries.length === 3);
    expect(server.surfaces[0].entries[2].content).toEqual({ film: null, dye: false, pressed: null, clamped: 'upper' });
  });

  it('what is typed of the shims stays when the desk hears the same once more', async () => {
    await openShop();
    const panel = await show(ShimPanel, { known: { lift: '96 um' } });
    await panel.type('one layer of it', '20 um');
    panel.fixture.componentRef.setInput('known', { lift: '96 um' });
    await panel.fixture.whenStable();
    expect((panel.all('[aria-label="one layer of it"]')[0] as HTMLInputElement).value).toBe('20 um');
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

  it('a face that is put away is written down at no more, whatever is pressed', async () => {
    const { page, server } = await open(stored(face({ putAway: true }), plan(0, 0, 0, 40)));
    expect(page.text()).toContain('Archived. You can restore it on its card.');
    await key(page, '4');
    expect(page.text()).toContain('Restore it on its card');
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
    expect(page.text()).toContain('and 2 full checks, 3 h');
    expect(page.text()).toContain('counted over 59 mm of its length');
  });

  it('measures in the unit of the aim, and refuses what is no figure', async () => {
    const { page, server } = await open(stored(face()));
    await page.press('Measure');
    expect(page.text()).toContain('Quick check between passes');
    await page.type('What it reads', 'a lot');
    await page.type('How surely', '4');
    page.element.ownerDocument.querySelector<HTMLFormElement>('.p-dialog form')?.dispatchEvent(new Event('submit'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('What it reads: must be a figure, bare in the unit beside it or with its own. Example: 43');
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
