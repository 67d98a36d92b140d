import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { HttpEventType } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { ArchiveResult } from '@isometra/contract/archive';
import { ArchiveFiles, type ArchiveStep } from '../data/archive-files';
import { lathe, openShop, show, SURVEY, until } from '../testing/fake-shop';
import { ReportOut } from './report-out';
import { countsWords, resultLines, scopeWords } from './result-words';

const RESULT: ArchiveResult = {
  manifest: {
    ...{ format: 'isometra-archive/1', program: { name: 'Isometra', version: '0.2.0' }, written: '2026-12-01T08:00:00.000Z' },
    ...{ scope: { of: 'machine', id: '00000000-0000-4000-8000-000000000001', number: 'L-14' }, holds: { machines: 1 } },
  },
  ...{ added: { machines: 1, rounds: 2 }, newer: {}, known: { kit: 1 }, grown: { log: 3 }, differences: [], taken: false },
  renamed: [{ from: 'L-14', to: 'L-14 (2)' }],
};

describe('what taking an archive in does', () => {
  it('is told in words, and what is nothing is not told', () => {
    expect(countsWords({ rounds: 1, machines: 2 })).toBe('2 machines, 1 round');
    expect(scopeWords(RESULT)).toBe('Machine L-14');
    expect(resultLines(RESULT)).toEqual([
      { label: 'New here', text: '1 machine, 2 rounds' },
      { label: 'Added to what is here', text: '3 entries of the logbook' },
      { label: 'The same here, or newer', text: '1 piece of kit' },
      { label: 'Another number', text: 'L-14 comes in as L-14 (2): that number is taken here' },
    ]);
  });
});

describe('an archive on its way in', () => {
  let http: HttpTestingController;
  let steps: ArchiveStep[];
  let failed: string;
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    http = TestBed.inject(HttpTestingController);
    [steps, failed] = [[], ''];
    TestBed.inject(ArchiveFiles)
      .take(new File(['x'], 'a.zip'), { 'machines/x.json': 'theirs' })
      .subscribe({ next: (step) => steps.push(step), error: (error: Error) => (failed = error.message) });
  });
  const sent = () => http.expectOne('/api/archive');
  const line = (value: object): string => `${JSON.stringify(value)}\n`;

  it('carries what was chosen, and tells how far it is until it is in', () => {
    const request = sent();
    const form = request.request.body as FormData;
    expect(JSON.parse(String(form.get('choices')))).toEqual({ 'machines/x.json': 'theirs' });
    request.event({ type: HttpEventType.UploadProgress, loaded: 1, total: 4 });
    request.event({
      type: HttpEventType.DownloadProgress,
      loaded: 1,
      partialText: line({ doing: 'writing', done: 1, of: 2 }),
    } as never);
    request.flush(line({ doing: 'writing', done: 2, of: 2 }) + line({ result: { ...RESULT, taken: true } }));
    expect(steps.slice(0, 2)).toEqual([
      { doing: 'Sending', percent: 25 },
      { doing: 'Importing', percent: 50 },
    ]);
    expect(steps[2]).toEqual({ result: jasmine.objectContaining({ taken: true }) as never });
  });

  it('is not in when the answer breaks off, or when it is refused on the way', () => {
    sent().flush(line({ doing: 'writing', done: 1, of: 2 }));
    expect(failed).toContain('Nothing was imported');
  });

  it('says why it was refused', () => {
    sent().flush(line({ errors: [{ path: 'manifest.json', message: 'is missing: this zip was not written by Isometra', example: '' }] }));
    expect(failed).toContain('not written by Isometra');
  });

  it('says what a server without answer means', () => {
    sent().flush('', { status: 503, statusText: 'away' });
    expect(failed).toContain('Nothing was imported');
  });
});

describe('the acceptance report', () => {
  it('has all checks of the survey, or those that are ticked', async () => {
    await openShop();
    const shown = await show(ReportOut, { machines: [lathe()] });
    const address = () => (shown.named('Open the report') as HTMLAnchorElement).getAttribute('href');
    await until(() => shown.text().includes('All checks'));
    expect(address()).toBe(`/api/surveys/${SURVEY}/report.pdf?units=mm&detail=full`);
    await shown.choose('Some of them');
    expect(shown.text()).toContain('Tick the checks that the report should have.');
    await shown.tick('Bed twist');
    await shown.tick('Spindle runout');
    expect(address()).toBe(`/api/surveys/${SURVEY}/report.pdf?units=mm&detail=full&checks=bed-twist,spindle-runout`);
    await shown.tick('Bed twist');
    expect(address()).toContain('&checks=spindle-runout');
    await shown.choose('All checks');
    expect(address()).not.toContain('checks');
  });
});
