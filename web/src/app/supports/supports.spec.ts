import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { fieldInfo, footprint } from '@isometra/core';
import type * as z from 'zod';
import { spindleAxisSheet } from '@isometra/core/practice';
import type { Casting, MachineCardText, MoveWrite } from '@isometra/contract';
import {
  barRound,
  lathe,
  openShop,
  practiceRound,
  show,
  until,
  refusal,
  LATHE,
  type FakeServer,
  type TestRound,
} from '../testing/fake-shop';
import { Rounds } from '../data/rounds';
import { MachineStore } from '../machine/machine-store';
import { JobCard } from '../job/job-card';
import { File as FileButton } from '../ui/file';
import { Slide } from '../ui/slide';
import { FaceTable } from './face-table';
import { Footprint } from './footprint';
import { castingFrom, footCasting, presetOf } from './seat-facts';
import { seatPlanOutdated } from './seat-basis';
import { SeatPlan } from './seat-plan';
import { poseWords } from './seat-words';

const headstock = (): Casting => ({
  id: 'headstock',
  name: 'Headstock',
  frame: 'lathe',
  origin: [0, 200, 0],
  supports: footprint('vee-flat', { near: 40, length: 300, width: 220, angle: 90 }),
  watch: [{ id: 'nose', at: [0, 200, 0] }],
});
/** A reading on the other side of zero. */
const turnedOver = (value: string | number | null): string => (`${value}`.startsWith('-') ? `${value}`.slice(1) : `-${value}`);
const mm = { system: 'mm', fineness: 'coarse' } as const;

/** A round of the spindle axis that found it pointing so, µm/m. */
const axisRound = (slopeH: number, slopeV: number): TestRound =>
  practiceRound(
    spindleAxisSheet(
      { slopeH, slopeV },
      { bar: { diameter: 40, freeLength: 300 }, places: [20, 290], dial: { kind: 'lever', graduation: 1, sense: 1 } },
    ),
  );

describe('the footprint of a casting', () => {
  const draw = async (amounts: Record<string, number> = {}) => {
    await openShop();
    return show(Footprint, { casting: headstock(), amounts });
  };

  it('is seen from above: the operator below, the tailstock to the right', async () => {
    const drawn = await draw();
    const at = (name: string) => {
      const face = drawn.all('.face').find((entry) => entry.getAttribute('aria-label')?.startsWith(name));
      const [, x, y] = /translate\(([\d.-]+) ([\d.-]+)\)/.exec(face?.getAttribute('transform') ?? '') ?? [];
      return { x: Number(x), y: Number(y) };
    };
    expect(at('front vee near, outer').y).toBeGreaterThan(at('rear flat near').y);
    expect(at('front vee near, outer').x).toBeGreaterThan(at('front vee far, outer').x);
    expect(at('front vee near, outer').y).toBeGreaterThan(at('front vee near, inner').y);
  });

  it('shows what is done to each face as a bar and in figures', async () => {
    const drawn = await draw({ 'rear flat near': -20, 'rear flat far': 10, 'front vee near, outer': 0 });
    expect(drawn.text()).toContain('scrape 0.020 mm');
    expect(drawn.text()).toContain('shim 0.010 mm');
    expect(drawn.text()).toContain('leave');
    const height = (selector: string) => Number(drawn.all(selector)[0].getAttribute('height'));
    expect(height('.cut')).toBeCloseTo(2 * height('.shim'), 6);
  });

  it('a face is moved with the arrow keys and by dragging', async () => {
    const drawn = await draw();
    const moves: { id: string; at: readonly number[] }[] = [];
    drawn.fixture.componentInstance.moved.subscribe((move) => moves.push(move));
    const face = drawn.all('.face')[0];
    face.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
    const before = headstock().supports[0].at;
    expect(moves[0]).toEqual({ id: headstock().supports[0].id, at: [before[0], before[1], before[2] + 5] });
    const pointer = (type: string, x: number, y: number) =>
      face.dispatchEvent(new PointerEvent(type, { clientX: x, clientY: y, pointerId: 1, bubbles: true }));
    pointer('pointerdown', 100, 100);
    pointer('pointermove', 100, 100);
    expect(moves[1].at).toEqual(before.map(Math.round));
    pointer('pointermove', 140, 100);
    expect(moves[2].at[0]).toBeGreaterThan(before[0]);
    pointer('pointerup', 140, 100);
    pointer('pointermove', 200, 100);
    expect(moves.length).toBe(3);
  });
});

describe('the faces in figures', () => {
  it('places, means and limits are typed; what makes no sense is named', async () => {
    await openShop();
    const table = await show(FaceTable, { casting: headstock(), amounts: { 'rear flat near': -20 } });
    const changes: { id: string; part: Partial<Casting['supports'][number]> }[] = [];
    table.fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    const put = async (label: string, text: string) => {
      const field = table.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await table.fixture.whenStable();
    };
    expect(table.text()).toContain('scrape 0.020 mm');
    // In one press to the desk, with what it is called, how deep, and what it is to be true by.
    table.fixture.componentRef.setInput('aim', 'spindle-axis/slopeV');
    // 50 µm/m go with 20 µm off this face: 2.5 for 1.
    table.fixture.componentRef.setInput('aimGoes', -50);
    await table.fixture.whenStable();
    const link = new URL(table.named(/^scrape 0.020 mm/).getAttribute('href') ?? '', 'http://x');
    expect(link.pathname).toBe(`/machines/${LATHE}/scraping/new`);
    expect(Object.fromEntries(link.searchParams)).toEqual({
      ...{ name: 'Headstock, rear flat near', part: headstock().id, depth: '20', aim: 'spindle-axis/slopeV', lever: '2.5' },
    });
    await put('along of rear flat near', '-2 in');
    expect(changes.at(-1)?.part.at?.[0]).toBeCloseTo(-50.8, 9);
    await put('Most for rear flat near', '0.05');
    expect(changes.at(-1)?.part.max).toBe(50);
    await table.pick('What may be done to rear flat near', 'either');
    expect(changes.at(-1)?.part.allow).toBe('either');
    await put('Area of rear flat near', '42,5');
    expect(changes.at(-1)?.part.area).toBe(4250);
    await put('Area of rear flat near', 'wide');
    expect(table.text()).toContain('Area of rear flat near must be a number of cm² more than 0');
    await put('Area of rear flat near', '');
    expect(changes.at(-1)?.part).toEqual({ area: undefined });
    await put('along of rear flat near', 'there');
    expect(table.text()).toContain('along of rear flat near "there" is not a length');
    await put('Most for rear flat near', 'deep');
    expect(table.text()).toContain('Most for rear flat near "deep" is not a small distance');
  });
});

describe('the plan of a casting', () => {
  const open = async (rounds: TestRound[] = [axisRound(-42, -28), barRound(2, 10)], castings: Casting[] | undefined = [headstock()]) => {
    const card: MachineCardText = { ...lathe().card, ...(castings && { castings }) };
    const prepare = (server: FakeServer): void => void (server.machines = [{ ...lathe(), card }]);
    const shop = await openShop(rounds, { prepare });
    return { ...shop, page: await show(SeatPlan, { castingId: 'headstock' }) };
  };

  it('asks for aim less what was found, and says what it does to everything else', async () => {
    const { page } = await open();
    expect(page.text()).toContain('From round');
    expect(page.text()).toMatch(/6\d µm\/m toward you at the free end/);
    // The far end goes down and the nose, in front of the near faces, comes up a little.
    expect(page.text()).toMatch(/The spindle centre comes up 0\.00\d mm\./);
    expect(page.text()).toMatch(/The tailstock is then 0\.0\d+ mm high\./);
    expect(page.text()).toContain('“Seat of a casting” has not been read yet, and this plan depends on it.');
    expect(page.text()).toContain('The tailstock plan that follows');
  });

  it('opens a move file: its faces and what is wanted of them; another machine’s or a broken one changes nothing', async () => {
    const { page, server } = await open();
    const { supports: faces, frame, origin } = headstock();
    const file = (part: Record<string, unknown>) =>
      new File(
        [JSON.stringify({ format: 'isometra-move/1', move: 'supports', frame, origin, supports: faces, ...part })],
        'from-the-shop.json',
      );
    const choose = async (chosen: File): Promise<void> => {
      page.fixture.debugElement.query(By.directive(FileButton)).triggerEventHandler('chosen', chosen);
      await new Promise((resolve) => setTimeout(resolve));
      await page.fixture.whenStable();
    };
    await choose(file({ want: { slopeV: 'steep' } }));
    await until(() => page.text().includes('from-the-shop.json was not opened: want.slopeV'));
    await choose(file({ frame: 'mill', want: { leanX: 20 } }));
    await until(() => page.text().includes('is of a mill: it was not opened.'));
    expect(page.text()).not.toContain('Save these faces on the machine card');
    const moved = faces.map((face, i) => (i === 0 ? { ...face, at: [face.at[0] + 25, face.at[1], face.at[2]] } : face));
    await choose(file({ supports: moved, want: { slopeV: '-30 um/m' }, prefer: 'least-depth' }));
    await until(() => page.text().includes('from-the-shop.json is open.'));
    expect(page.text()).toMatch(/It turns and moves: .*30 µm\/m/);
    await page.press('Save these faces on the machine card');
    await until(() => server.sent.some(({ method }) => method === 'PUT'));
    const { card } = server.sent.findLast(({ method }) => method === 'PUT')?.body as { card: { castings: Casting[] } };
    expect(card.castings[0].supports[0].at[0]).toBe(faces[0].at[0] + 25);
  });

  it('is planned again at every slide, and what cannot be had names its obstacle', async () => {
    const { page } = await open();
    const slide = async (label: string, value: number) => {
      const slider = page.fixture.debugElement.queryAll(By.directive(Slide)).find((entry) => entry.componentInstance.label() === label);
      slider?.componentInstance.moved.emit(value);
      await page.fixture.whenStable();
    };
    await slide('Axis in height', 0);
    await slide('Axis sideways', 0);
    expect(page.text()).toContain('It turns and moves: not at all.');
    await page.tick('Height');
    await slide('Height', 40);
    expect(page.text()).toContain('Height is not possible with these settings');
    await page.choose('shim');
    expect(page.text()).not.toContain('is not possible');
    expect(page.text()).toContain('0.040 mm up');
  });

  it('the height between the centres may be made good at the head', async () => {
    const { page } = await open([axisRound(20, 30), barRound(2, -40)]);
    await page.choose('at the head');
    expect(page.text()).toContain('The spindle centre comes down 0.045 mm.');
    expect(page.text()).toContain('Nothing: it stays in its zone.');
  });

  it('its job card has a step for each face', async () => {
    const { server, page } = await open();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await page.press('Job card for this');
    await until(() => server.sent.length === 1);
    const sent: MoveWrite = server.sent[0].body;
    expect([sent.kind, sent.quantity]).toEqual(['supports', 'slopeH']);
    expect(navigate.calls.mostRecent().args[0][4]).toBe('slopeH');
    expect(Object.values(sent.plan['supports'] as Record<string, number>).some((amount) => amount < 0)).toBeTrue();
    const card = await show(JobCard, { roundId: server.rounds[0].id, quantity: 'slopeH' });
    await until(() => card.text().includes('scrape'));
    expect(card.text()).toMatch(/Front vee far, outer: scrape 0\.0\d+ mm\./);
    expect(card.text()).toContain('belt on before the caps');
    expect(card.text()).toContain('lifted with rated gear, never by hand over an edge');
    // One casting, one plan: the other plane opens the same card, with no shims beside it.
    const height = await show(JobCard, { roundId: server.rounds[0].id, quantity: 'slopeV' });
    await until(() => height.text().includes('scrape'));
    expect(height.text()).toMatch(/Front vee far, outer: scrape 0\.0\d+ mm\./);
    expect(height.all('iso-choices').length).toBe(0);
  });

  it('a round that is corrected after the casting was planned takes the amounts off its card; so does a face that was moved', async () => {
    const { server, page } = await open();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await page.press('Job card for this');
    await until(() => server.sent.length === 1 && server.rounds[0].moves.length === 1);
    const [round] = server.rounds;
    const card = async () => {
      const shown = await show(JobCard, { roundId: round.id, quantity: 'slopeH' });
      await until(() => shown.text().includes('Spindle axis'));
      await until(() => /scrape 0|no longer hold/.test(shown.text()));
      return shown;
    };
    expect((await card()).text()).not.toContain('no longer hold');
    const [machine] = server.machines;
    const planned = round.moves[0].plan['from'] as { asked: Record<string, number>; faces: object[] };
    const moved = [{ ...planned.faces[0], at: [999, 0] }, ...planned.faces.slice(1)];
    const outdated = (asked: number, faces: readonly unknown[]) =>
      seatPlanOutdated(round.moves[0].plan, { ...planned.asked, slopeH: asked }, faces);
    expect(outdated(planned.asked['slopeH'], planned.faces)).toBe('');
    expect(outdated(planned.asked['slopeH'], moved)).toContain('The faces on the machine card have been changed since');
    expect(outdated(-planned.asked['slopeH'], planned.faces)).toContain('The round has been corrected since');
    expect(machine.card.castings?.length).toBeGreaterThan(0);
    // The whole way: every reading of the round the other way round.
    server.rounds = [{ ...round, readings: round.readings.map((one) => ({ ...one, value: turnedOver(one.value) })) }];
    await firstValueFrom(TestBed.inject(Rounds).load(round.id), { defaultValue: undefined });
    const now = await card();
    expect(now.text()).toContain('The round has been corrected since this casting was planned');
    expect(now.text()).not.toMatch(/scrape 0\.0/);
  });

  it('made again while it is open, it is the same plan with other figures', async () => {
    const { server, page } = await open();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await page.press('Job card for this');
    await until(() => server.sent.length === 1 && server.rounds[0].moves.length === 1);
    TestBed.inject(MachineStore).refresh();
    await until(() => TestBed.inject(MachineStore).of('spindle-axis')[0].moves.length === 1);
    const field = page.element.querySelector<HTMLInputElement>('input[aria-label="Axis sideways, typed"]') as HTMLInputElement;
    field.value = '20 um/m';
    field.dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
    await page.press('Job card for this');
    await until(() => server.sent.length === 2);
    expect(server.sent.map(({ method }) => method)).toEqual(['POST', 'PUT']);
    const [first, second] = server.sent.map(({ body }) => body as MoveWrite);
    expect(second.id).toBe(first.id);
    expect((second.plan['want'] as Record<string, number>)['slopeH']).toBe(20);
  });

  it('wants are typed too, the roll is held, and what giving it up would spare is said', async () => {
    const { page } = await open();
    const want = (label: string) => page.element.querySelector<HTMLInputElement>(`input[aria-label="${label}, typed"]`);
    expect(want('Roll')?.value).toBe('0 µm/m');
    const put = async (label: string, text: string) => {
      const field = want(label) as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    };
    await put('Axis sideways', '-0.02 mm/m');
    expect(page.text()).toContain('20 µm/m away from you at the free end');
    await put('Axis in height', 'steep');
    expect(page.text()).toContain('Axis in height "steep" is not a slope');
    await put('Axis sideways', '60');
    await put('Axis in height', '35');
    expect(page.text()).toMatch(/Giving up the roll would spare 0\.0\d+ mm over all faces, and leave \d+ µm\/m your side (up|down)\./);
    await put('Roll', '');
    expect(page.text()).not.toContain('Giving up the roll');
  });

  it('a casting that is not on the card is begun from how it sits, changed, and kept', async () => {
    const { server, page } = await open([], []);
    await page.press('Draw its faces');
    expect(page.text()).toContain('Spindle nose to the nearest faces is missing');
    await page.type('Spindle nose to the nearest faces', '40');
    await page.type('Nearest to farthest faces', '290 mm');
    await page.type('Across, middle to middle', '210 mm');
    await page.type('Centre above the faces', '200 mm');
    await page.press('Draw its faces');
    expect(page.all('.face').length).toBe(6);
    expect(localStorage.getItem(`isometra-draft:casting:${LATHE}:headstock`)).toContain('rear flat near');
    page.all('.face')[0].dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
    await page.fixture.whenStable();
    server.machines = [{ ...lathe(), version: 8 }];
    server.refuse = refusal(409, 'changed', { ...lathe(), version: 8 });
    await page.press('Save these faces on the machine card');
    expect(page.text()).toContain('Your faces are still here');
    await page.press('Save these faces on the machine card');
    const { card, version } = server.sent[0].body as { card: MachineCardText; version: number };
    expect(version).toBe(8);
    expect((card.castings as Casting[])[0].supports[0].at[0]).toBe(-45);
  });
});

describe('words of a pose', () => {
  it('say which way, and nothing of nothing', () => {
    expect(poseWords('slopeV', -30, mm)).toBe('30 µm/m down at the free end');
    expect(poseWords('lift', 21, mm)).toBe('0.021 mm up');
    expect(poseWords('leanY', 0, mm)).toBe('no change');
  });

  it('a column stands on the four corners of its foot, counted from its middle', () => {
    const casting = footCasting('column', { across: 180, along: 240 });
    expect([casting.frame, casting.name, casting.supports.map(({ id }) => id)]).toEqual([
      'mill',
      'Column foot',
      ['left front', 'right front', 'left rear', 'right rear'],
    ]);
    // The operator is at the front: − y.
    expect(casting.supports[0].at).toEqual([-90, -120, 0]);
  });

  it('places are counted from the spindle nose only where there is a spindle', () => {
    const labels = (spindle: boolean) => Object.values(presetOf(spindle).shape).map((field) => fieldInfo(field as z.ZodType)?.label);
    expect(labels(true)).toContain('Spindle nose to the nearest faces');
    expect(labels(false).join()).not.toMatch(/spindle/i);
  });

  it('a mill’s column sits on the same faces turned into its own axes', () => {
    const casting = castingFrom('column', 'mill', { kind: 'four-pads', near: 0, length: 300, width: 200, height: 900 });
    expect(casting.origin).toEqual([0, 0, 900]);
    expect(casting.supports.every(({ normal }) => normal[2] === 1)).toBeTrue();
    expect(casting.supports.find(({ id }) => id === 'front pad near')?.at[1]).toBe(-100);
  });
});
