import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Settings } from '../data/settings';
import { LATHE, openShop, show, until } from '../testing/fake-shop';
import { FACE, face, plan, stored } from '../testing/faces';
import { FaceForm } from './face-form';
import { Faces } from './faces';

describe('faces', () => {
  it('are listed with what comes next, and an empty list says what to do', async () => {
    await openShop([], { prepare: (server) => (server.surfaces = [stored(face(), plan(0, 0, 0, 30))]) });
    const page = await show(Faces);
    await until(() => page.text().includes('Saddle, flat way'));
    expect(page.text()).toContain('Zone 4: one roughing pass at 45°.');
    expect(page.text()).toContain('4 passes left');
    const tones = page.all('iso-face-small polygon').map((zone) => Number((zone as unknown as SVGElement).style.fillOpacity));
    expect(tones.length).toBe(4);
    expect(tones.indexOf(Math.max(...tones)))
      .withContext('the zone with passes left is the dark one')
      .toBe(3);
  });

  it('are drawn small as they lie on the desk: a face that is turned round shows its last zone first', async () => {
    const darkest = async (turned: 0 | 180) => {
      await openShop([], { prepare: (server) => (server.surfaces = [stored(face({ turned }), plan(0, 0, 0, 30))]) });
      const page = await show(Faces);
      await until(() => page.all('iso-face-small polygon').length === 4);
      const zones = page.all('iso-face-small polygon') as unknown as SVGPolygonElement[];
      const left = (zone: SVGPolygonElement) => Math.min(...[...zone.points].map(({ x }) => x));
      const dark = zones.reduce((most, zone) => (Number(zone.style.fillOpacity) > Number(most.style.fillOpacity) ? zone : most));
      return zones
        .map(left)
        .sort((a, b) => a - b)
        .indexOf(left(dark));
    };
    expect(await darkest(0)).toBe(3);
    TestBed.resetTestingModule();
    expect(await darkest(180)).toBe(0);
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
    expect(page.text()).toContain('Bore: is missing. Example: 80 mm');
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

  it('zones carry the numbers that stand on the part', async () => {
    const { server } = await openShop([]);
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm);
    await page.type('Name', 'Flat way');
    await page.type('Length, end A to end B', '400');
    await page.type('Width', '60');
    await page.type('Straightedge or plate, length', '500');
    for (const wrong of ['4 3 2', '4 3 2 2', '4 3 2 one']) {
      await page.type('Numbers on the part', wrong);
      await page.press('To the desk');
      expect(page.text()).toContain('Numbers on the part: must be 4 different ones from 1 to 99, or none. Example: 4 3 2 1');
    }
    await page.type('Numbers on the part', '4, 3, 2, 11');
    await page.press('To the desk');
    await until(() => server.surfaces.length === 1);
    expect(server.surfaces[0].zones.map(({ id, outline }) => [id, outline[0].x])).toEqual([
      ['4', 0],
      ['3', 100],
      ['2', 200],
      ['11', 300],
    ]);
    const again = await show(FaceForm, { surfaceId: server.surfaces[0].id });
    await until(() => again.element.querySelectorAll('.pad').length === 4);
    await again.press('Keep it');
    await until(() => server.surfaces[0].version === 2);
    expect(server.surfaces[0].zones.map(({ id }) => id)).toEqual(['4', '3', '2', '11']);
  });

  it('are looked at as they stood once, and put back as they were', async () => {
    const now = { ...face(), version: 2, name: 'Saddle, flat way' };
    const { id: _id, machineId: _machine, version: _version, ...was } = { ...now, name: 'Saddle, old way', height: 55 };
    const { server } = await openShop([], {
      prepare: (shop) => {
        shop.surfaces = [stored(now)];
        shop.states = [
          { version: 2, by: 'SD', at: '2026-05-12T16:00:00.000Z', changes: [{ field: 'height', from: '55', to: '60' }], state: now },
          { version: 1, by: 'HB', at: '2026-01-12T16:00:00.000Z', changes: [], state: was },
        ];
      },
    });
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(FaceForm, { surfaceId: FACE });
    await until(() => page.text().includes('Earlier states'));
    const details = [...page.element.querySelectorAll('details')].find((one) => one.textContent?.includes('Earlier states'));
    if (details) details.open = true;
    await until(() => page.text().includes('height: 55 to 60'));
    await page.press(/^Look at it as it stood 12 Jan/);
    await until(() => page.field('Name').value === 'Saddle, old way');
    expect(page.field('Width').value).toBe('55 mm');
    await page.press('Back to how it stands now');
    expect(page.field('Width').value).toBe('60 mm');
    await page.press(/^Look at it as it stood 12 Jan/);
    await until(() => page.text().includes('Put this back'));
    await page.press('Put this back');
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ id: FACE, name: 'Saddle, old way', height: 55, version: 2 }));
  });

  it('the lever of a width follows from the angle of its dovetail, until somebody types another', async () => {
    const rear = { ...stored(face()), id: 'b1b0c4d2-0000-4000-8000-000000000002', name: 'Rear flank' };
    await openShop([], { prepare: (server) => (server.surfaces = [rear]) });
    const page = await show(FaceForm, {});
    await until(() => page.text().includes('Goes with'));
    const lever = () => page.element.querySelector<HTMLInputElement>('[aria-label="it changes, for 1 µm of metal, by"]')?.value;
    await page.pick('Scraped true by', 'Dovetail over pins: Width along the dovetail');
    expect(lever()).toBe('');
    await page.pick('Goes with', 'Rear flank');
    expect(lever()).toBe('1.221');
    await page.type('Angle of the dovetail', '60');
    expect(lever()).toBe('1.155');
    await page.type('it changes, for 1 µm of metal, by', '2');
    await page.type('Angle of the dovetail', '55');
    expect(lever()).toBe('2');
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
    expect(page.text()).toContain('Name: is missing. Example: Saddle, flat way');
    await page.type('Name', 'Flat way');
    await page.type('Length, end A to end B', 'long');
    await page.press('To the desk');
    expect(page.text()).toContain('"long" cannot be read. Example: 400 mm');
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
