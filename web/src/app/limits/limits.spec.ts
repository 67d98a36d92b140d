import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { readLimitSheet, startingSheet, type LimitSheet } from '@isometra/core';
import { limitsToCsv } from '@isometra/work/limit-csv';
import { barRound, openShop, show, until, refusal } from '../testing/fake-shop';
import { limitsFromFile } from './files';
import { JobLimits } from './job-limits';
import { asTyped, draftOf, fieldOf, rawSheet, withLines } from './limit-draft';
import { LimitList } from './limit-list';
import { Rejudge } from './rejudge';

const own = (): LimitSheet => ({
  ...startingSheet('general'),
  name: 'Ours',
  lines: [
    { check: 'tailstock-traverse', quantity: 'offsetHorizontal', zone: [-15, 15] },
    { check: 'way-straightness', quantity: 'straightness', zone: [null, 15], over: { length: 1000, least: 5 } },
  ],
});
const stored = (version = 3) => ({ id: 'ours', content: own(), version, by: 'HB', at: '2026-02-01T08:00:00.000Z' });

describe('a limit sheet being typed', () => {
  it('writes every figure in the units shown, and reads it back', () => {
    expect(draftOf(own(), 'mm')[1]).toEqual({
      check: 'way-straightness',
      quantity: 'straightness',
      when: '',
      low: '',
      high: '0.015 mm',
      over: '1000 mm',
      least: '0.005 mm',
      aim: '',
      reason: '',
    });
    expect(draftOf(own(), 'inch')[0].high).toBe('0.591 thou');
    // What nobody touched is what it was, not what was shown of it; also where the units were switched meanwhile.
    for (const system of ['mm', 'inch'] as const)
      expect(readLimitSheet(rawSheet('Ours', draftOf(own(), system), own())).sheet?.lines.map(({ zone }) => zone)).toEqual(
        own().lines.map(({ zone }) => zone),
      );
    const touched = draftOf(own(), 'inch').map((line) => ({ ...line, high: '1 thou' }));
    expect(readLimitSheet(rawSheet('Ours', touched, own())).sheet?.lines[0].zone[1]).toBeCloseTo(25.4, 9);
    expect(asTyped(null, 'slope', 'mm')).toBe('');
    expect((rawSheet('Ours', draftOf(own(), 'mm')) as { lines: unknown[] }).lines[1]).toEqual({
      check: 'way-straightness',
      quantity: 'straightness',
      zone: [null, '0.015 mm'],
      over: { length: '1000 mm', least: '0.005 mm' },
    });
  });

  it('knows which field a fault is about', () => {
    expect(fieldOf('lines[4].zone[1]')).toEqual({ line: 4, field: 'high' });
    expect(fieldOf('lines[0].zone')).toEqual({ line: 0, field: 'low' });
    expect(fieldOf('lines[2].over.least')).toEqual({ line: 2, field: 'least' });
    expect(fieldOf('name')).toBeUndefined();
  });

  it('takes lines in the place of those of the same quantity', () => {
    const sheet = withLines(own(), [
      { check: 'tailstock-traverse', quantity: 'offsetHorizontal', zone: [-4, 4] },
      { check: 'seat', quantity: 'rock', zone: [null, 3] },
    ]);
    expect(sheet.lines.map((line) => line.zone[1])).toEqual([4, 15, 3]);
  });
});

describe('a file', () => {
  it('is read as JSON by its name or its first bracket, else as a table named after it', () => {
    expect(limitsFromFile('a.json', JSON.stringify(own())).sheet).toEqual(own());
    expect(limitsFromFile('a.txt', ` ${JSON.stringify(own())}`).sheet).toEqual(own());
    expect(limitsFromFile('Ours.csv', limitsToCsv(own())).sheet).toEqual(own());
    expect(limitsFromFile('a.json', '{').faults[0].message).toContain('not JSON');
  });
});

describe('the limits', () => {
  const open = async (sheetId: string, sheets = [stored()]) => {
    const { server } = await openShop([], {
      prepare: (shop) => {
        shop.limits = sheets;
      },
    });
    return { server, page: await show(LimitList, { sheetId }) };
  };
  const choose = async (page: Awaited<ReturnType<typeof open>>['page'], file: File) => {
    const before = page.text();
    const input = page.element.querySelector<HTMLInputElement>('input[type=file]') as HTMLInputElement;
    const files = new DataTransfer();
    files.items.add(file);
    input.files = files.files;
    input.dispatchEvent(new Event('change'));
    await until(() => page.text() !== before);
    await page.fixture.whenStable();
  };
  const field = (page: Awaited<ReturnType<typeof open>>['page'], label: string) =>
    page.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement;
  const put = async (page: Awaited<ReturnType<typeof open>>['page'], label: string, text: string) => {
    const input = field(page, label);
    input.value = text;
    input.dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
  };

  it('show sheets to start from and the shop’s own, bounds with their direction in words', async () => {
    const { page } = await open('general');
    expect(page.text()).toContain('General shop to start from');
    expect(page.text()).toContain('Ours version 3, HB');
    expect(page.text()).toContain('-0.015 mm away from you');
    expect(page.text()).toContain('with the head off');
    expect(page.all('tbody input').length).toBe(0);
  });

  it('a sheet of the shop’s own goes into the archive and out of it again', async () => {
    const { server, page } = await open('ours');
    const own = server.limits[0];
    await page.press(`Archive ${own.content.name}`);
    await until(() => page.text().includes('In the archive: 1'));
    expect(
      page
        .all('nav a')
        .map((entry) => entry.textContent ?? '')
        .join(),
    ).not.toContain(own.content.name);
    await page.press(`Restore ${own.content.name}`);
    await until(() => !page.text().includes('In the archive'));
    expect(server.limits[0].archived).toBeUndefined();
  });

  it('a starting sheet is copied, not changed', async () => {
    const { server, page } = await open('toolroom');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await page.press('Copy');
    expect(server.sent[0].path).toBe('/limits');
    expect((server.sent[0].body as { content: LimitSheet }).content.name).toBe('Toolroom, copy');
    expect(navigate.calls.mostRecent().args[0][0]).toBe('/limits');
  });

  it('a change is typed with or without a unit, kept as a new version, and survives leaving', async () => {
    const { server, page } = await open('ours');
    await put(page, 'Highest, Tailstock sideways', '0.02');
    expect(field(page, 'Highest, Tailstock sideways').value).toBe('0.02 mm');
    expect(localStorage.getItem('isometra-draft:limits:ours')).toContain('0.02 mm');
    await page.press('Save as version 4');
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'PUT', path: '/limits/ours' }));
    expect((server.sent[0].body as { content: LimitSheet }).content.lines[0].zone).toEqual([-15, 20]);
    expect(page.text()).toContain('Saved as version');
    expect(localStorage.getItem('isometra-draft:limits:ours')).toBeNull();
  });

  it('names the field that is wrong, keeps what was typed, and can be dropped', async () => {
    const { server, page } = await open('ours');
    await put(page, 'Highest, Tailstock sideways', 'wide');
    expect(page.text()).toContain('"wide" is not a small distance');
    await put(page, 'Target, Tailstock sideways', '0.002 mm');
    await page.press('Save as version 4');
    expect(page.text()).toContain('needs another look');
    expect(server.sent.length).toBe(0);
    await page.press('Discard changes');
    expect(field(page, 'Highest, Tailstock sideways').value).toBe('0.015 mm');
  });

  it('somebody else’s version is told and what was typed stays', async () => {
    const { server, page } = await open('ours');
    await put(page, 'Highest, Tailstock sideways', '0.02 mm');
    server.refuse = refusal(409, 'changed', stored(7));
    await page.press('Save as version 4');
    expect(page.text()).toContain('Somebody else has kept version 7 meanwhile');
    await page.press('Save as version 8');
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ version: 7 }));
  });

  it('a file with mistakes names each and takes nothing in; a good one is taken in', async () => {
    const { server, page } = await open('general');
    await choose(page, new File(['check,quantity,low,high\nbed-twst,x,1,2\nseat,rock,,ten\nseat,clampShift,,'], 'Bad.csv'));
    for (const words of ['“Bad.csv” was not imported', '3 mistakes', 'row 2, check', 'row 3, high', 'row 4, low and high'])
      expect(page.text()).toContain(words);
    expect(server.sent.length).toBe(0);
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await choose(page, new File([limitsToCsv(own())], 'Good.csv'));
    expect((server.sent[0].body as { content: LimitSheet }).content.name).toBe('Good');
    expect(page.text()).not.toContain('was not imported');
  });

  it('its versions are told with what each changed, and an old one can be brought back', async () => {
    const { server, page } = await open('ours');
    const wider = { ...own(), lines: [{ ...own().lines[0], zone: [-40, 40] as const }] };
    server.versions = [{ ...stored(3), content: wider }, stored(2), { ...stored(1), content: { ...own(), name: 'First' } }];
    await page.choose('its versions');
    expect(page.text()).toContain('1 changed, 1 taken out');
    expect(page.text()).toContain('called “Ours”');
    await page.press('Restore version 2');
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ content: own(), version: 3 }));
  });

  it('a sheet that is not there says so', async () => {
    expect((await open('nothing')).page.text()).toContain('There is no such sheet');
  });

  it('limits from the job go into the sheet on show', async () => {
    const { server, page } = await open('ours');
    await page.choose('limits from the job');
    await page.type('Taper allowed on diameter', '0.01 mm');
    await page.type('Over a length of', '250 mm');
    await page.press('Use these limits');
    expect((server.sent[0].body as { content: LimitSheet }).content.lines[0]).toEqual(
      jasmine.objectContaining({ zone: [-5, 5], reason: 'taper of 0.01 mm over 250 mm' }),
    );
  });
});

describe('limits from the job', () => {
  it('follow from what is typed, with the sum', async () => {
    await openShop();
    const job = await show(JobLimits);
    expect(job.text()).not.toContain('Put these');
    await job.type('Taper allowed on diameter', '10 um');
    await job.type('Over a length of', '250 mm');
    await job.type('Distance between centres', '500 mm');
    expect(job.text()).toContain('half of 10 µm × 500 / 250 mm = 10 µm');
    await job.choose('Flatness behind a face mill');
    await job.type('Hollow or step allowed', '0,01 mm');
    await job.type('Cutter diameter', '100 mm');
    expect(job.text()).toContain('at most 30.0 µm in 300 mm either way');
  });
});

describe('judging old rounds again', () => {
  it('tells what would change, and changes nothing', async () => {
    const { server } = await openShop([barRound(20, 5), barRound(2, 5)]);
    const page = await show(Rejudge, { sheet: startingSheet('light-bench') });
    await page.choose('L-14');
    await until(() => page.text().includes('would be different'));
    expect(page.text()).toContain('One result of 2 rounds would be different.');
    expect(page.text()).toContain('Tailstock sideways: 0.020 mm toward you');
    expect(page.text()).toContain('out → would be in');
    expect(server.sent.length).toBe(0);
  });
});
