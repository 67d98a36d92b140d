import { TestBed } from '@angular/core/testing';
import { NO_EFFECT } from '@isometra/core';
import type { SurveyNote } from '@isometra/contract';
import { staleWords } from '@isometra/work';
import { barRound, openShop, show, survey, until, SURVEY, type FakeServer } from '../testing/fake-shop';
import { MachineStore } from '../machine/machine-store';
import { PlannedPage } from './planned-page';

describe('around the headstock', () => {
  const open = async (rounds = [barRound(2, 10)], standing = survey()) => {
    const shop = await openShop(rounds, {
      prepare: (server) => {
        server.surveys = [standing];
      },
    });
    return { ...shop, page: await show(PlannedPage) };
  };
  type Page = Awaited<ReturnType<typeof open>>['page'];
  const put = async (page: Page, label: string, text: string) => {
    const field = page.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
  };
  /** What was written down last, once so many notes have arrived. */
  const noted = async (server: FakeServer, count: number): Promise<SurveyNote> => {
    await until(() => server.sent.length === count);
    return server.sent[count - 1].body;
  };

  describe('what is to come', () => {
    it('names what is missing, tells what it will do, and moves the aims of what follows', async () => {
      const { server, page, desk } = await open();
      await page.press('Add to planned changes');
      expect(page.text()).toContain('Front bearing down by is missing');
      await page.type('Front bearing down by', '0.03 mm');
      await page.type('Rear bearing down by', '0');
      await page.type('Between the bearings', '300 mm');
      await page.type('Front bearing to the nose', '60 mm');
      expect(page.text()).toContain('the free end of the axis goes 100 µm/m down, the centre goes 0.036 mm down');
      await page.press('Add to planned changes');
      expect(page.all('[role=alert]').length).toBe(0);
      expect((await noted(server, 1)).content).toEqual({
        change: { kind: 'bearings', fields: { front: '0.03 mm', rear: '0 µm', span: '300 mm', overhang: '60 mm' } },
      });
      expect(desk.facts({ id: 'r', surveyId: SURVEY, check: 'spindle-axis', at: '2026-03-01T08:00:00.000Z' }).pending?.slopeV).toBeCloseTo(
        -100,
        9,
      );
    });

    it('what is done leaves the list, and the rungs that follow it go stale', async () => {
      const change = { kind: 'warm-up', fields: { height: '200 mm', rise: '10 C' } };
      const id = '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2';
      const note: SurveyNote = {
        id,
        surveyId: SURVEY,
        kind: 'planned',
        content: { change },
        supersedes: null,
        by: 'HB',
        at: '2026-01-01T08:00:00.000Z',
      };
      const { page, desk, server } = await open(undefined, { ...survey(), notes: [note] });
      expect(page.text()).toContain('The headstock warms up in work the centre goes 0.023 mm up');
      const rung = () => desk.rungs().find((entry) => entry.check.id === 'tailstock-traverse');
      expect(rung()?.state).not.toBe('stale');
      await page.press('Done: The headstock warms up in work');
      const stale = rung()?.stale;
      expect(stale && staleWords(stale)).toBe('“The headstock warms up in work” has been done since: read it again');
      expect(desk.facts({ id: 'r', surveyId: SURVEY, check: 'spindle-axis', at: '2026-03-01T08:00:00.000Z' }).pending).toEqual({
        ...NO_EFFECT,
      });
      expect((await noted(server, 1)).content).toEqual({ planned: id });
      expect(page.text()).toContain('The headstock warms up in work: done');
    });

    it('several add up, and can be taken out again', async () => {
      const { server, page } = await open();
      await page.choose('Weight has still to come on');
      for (const slope of ['-5 um/m', '8 um/m']) {
        await page.type('Free end will go up by', slope);
        await page.press('Add to planned changes');
      }
      expect(page.text()).toContain('Together: the free end of the axis goes 3 µm/m up');
      await page.press('Remove: Weight has still to come on');
      expect((await noted(server, 3)).kind).toBe('withdrawn');
      expect(page.text()).not.toContain('Together');
    });
  });

  describe('the bearings', () => {
    it('what was felt is written down, with what it means', async () => {
      const { server, page } = await open();
      await page.press('Write it down');
      expect(page.text()).toContain('Nothing has been felt yet');
      await put(page, 'End float', 'loose');
      await page.press('Write it down');
      expect(page.text()).toContain('"loose" is not a small distance');
      await put(page, 'End float', '0.008');
      await page.pick('Drag at 0°', '1 just felt');
      await page.pick('Drag at 180°', '3 firm');
      await put(page, 'Note on the bearings', 'cold');
      await page.press('Write it down');
      const drag = [
        { turn: 0, drag: 1 },
        { turn: 180, drag: 3 },
      ];
      expect((await noted(server, 1)).content).toEqual({ endFloat: '8 µm', note: 'cold', drag });
      expect(page.text()).toContain('end float 0.008 mm; drag 1, 3; cold');
      expect(page.text()).toContain('Uneven over a turn');
    });

    it('loose and stiff at once is a stop', async () => {
      const { page } = await open();
      await put(page, 'End float', '0.05 mm');
      await page.pick('Drag at 90°', '5 stiff');
      await page.press('Write it down');
      expect(page.text()).toContain('Loose and stiff at once: stop.');
    });
  });

  describe('a stand-in', () => {
    const begin = async () => {
      const shop = await open([barRound(2, 20)]);
      const { page } = shop;
      await page.press('Add a quick check');
      expect(page.text()).toContain('Say which check it stands in for');
      await page.pick('Stands for', 'Bar between centres: Tailstock height');
      await page.press('Add a quick check');
      expect(page.text()).toContain('Say where it is read');
      await put(page, 'Where it is read', 'height of the base over the bed');
      await page.press('Add a quick check');
      return shop;
    };
    const NAME = 'Reads now, Bar between centres: Tailstock height';

    it('is tied to two full checks, then tells by itself, and asks to be tied after three passes', async () => {
      const { page, server, desk } = await begin();
      expect(page.text()).toContain('Read it beside the full check twice');
      await put(page, NAME, 'high');
      await page.press('After a pass');
      expect(page.text()).toContain('Reads now "high" is not a small distance');
      await put(page, NAME, '0.120');
      await page.press(/^Tie it to/);
      expect((await noted(server, 2)).content).toEqual(jasmine.objectContaining({ reading: '120 µm' }) as never);
      // Ten micrometres lower the full check is ten lower too.
      const before = desk.of('tailstock-traverse').length;
      server.rounds.push(barRound(2, 10));
      desk.refresh();
      await until(() => desk.of('tailstock-traverse').length > before);
      await page.fixture.whenStable();
      await put(page, NAME, '0.110');
      await page.press(/^Tie it to/);
      await put(page, NAME, '0.105');
      await page.press('After a pass');
      expect(page.text()).toContain('By the last reading: 0.005 mm high');
      for (const reading of ['0.104', '0.103']) {
        await put(page, NAME, reading);
        await page.press('After a pass');
      }
      expect(page.text()).toContain('Three passes since it was tied');
      expect(page.text()).not.toContain('By the last reading');
      await page.press('Remove Bar between centres: Tailstock height');
      expect(TestBed.inject(MachineStore).survey()?.standIns).toEqual([]);
    });
  });
});
