import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { HttpEventType } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import type { ArchiveResult } from '@isometra/contract/archive';
import { ApiFailure } from '../data/api';
import { ArchiveFiles, type ArchiveStep } from '../data/archive-files';
import { Reports, type ReportMaking } from '../data/reports';
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

describe('a report on its way', () => {
  it('is told by its rounds, then by its printing, and has an address at the end; what breaks off is no report', () => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    const http = TestBed.inject(HttpTestingController);
    const line = (value: object): string => `${JSON.stringify(value)}\n`;
    const make = (): { readonly steps: ReportMaking[]; failed: string } => {
      const made = { steps: [] as ReportMaking[], failed: '' };
      TestBed.inject(Reports)
        .make(SURVEY, 'units=mm')
        .subscribe({ next: (step) => made.steps.push(step), error: (error: Error) => (made.failed = error.message) });
      return made;
    };
    const asked = () => http.expectOne(`/api/surveys/${SURVEY}/report?units=mm`);
    const made = make();
    const request = asked();
    const so = (partialText: string) => request.event({ type: HttpEventType.DownloadProgress, loaded: 1, partialText } as never);
    so(line({ doing: 'rounds', done: 1, of: 2 }));
    so(line({ doing: 'rounds', done: 1, of: 2 }) + '{"doi');
    so(line({ doing: 'printing', done: 0, of: 1 }));
    const ticket = crypto.randomUUID();
    request.flush(line({ doing: 'printing', done: 0, of: 1 }) + line({ ticket }));
    expect(made.steps).toEqual([
      { doing: 'Working out the rounds', percent: 45 },
      { doing: 'Printing', percent: 90 },
      { address: `/api/reports/${ticket}.pdf` },
    ]);
    const broken = make();
    asked().flush(line({ doing: 'rounds', done: 1, of: 2 }));
    expect(broken.failed).toContain('before the report was made');
    const refused = make();
    asked().flush(line({ errors: [{ path: '', message: 'There is no such survey', example: '' }] }));
    expect(refused.failed).toContain('no such survey');
    const away = make();
    asked().error(new ProgressEvent('error'));
    expect(away.failed).toContain('before the report was made');
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

  it('is made while it is told how far it is, opens, and can be stopped; what goes wrong is said', async () => {
    await openShop();
    const told = new Subject<ReportMaking>();
    const asked: string[] = [];
    spyOn(TestBed.inject(Reports), 'make').and.callFake((survey, query) => {
      asked.push(`${survey} ${query}`);
      return told;
    });
    const opened = spyOn(window, 'open');
    const shown = await show(ReportOut, { machines: [lathe()] });
    await until(() => shown.text().includes('All checks'));
    await shown.press('Open the report');
    expect(asked).toEqual([`${SURVEY} units=mm&detail=full`]);
    told.next({ doing: 'Working out the rounds', percent: 40 });
    await shown.fixture.whenStable();
    expect(shown.all('[role=progressbar]')[0].getAttribute('aria-valuenow')).toBe('40');

    await shown.press('Stop');
    expect(told.observed).toBeFalse();
    expect(shown.all('[role=progressbar]').length).toBe(0);

    await shown.press('Open the report');
    told.next({ address: '/api/reports/a.pdf' });
    await shown.fixture.whenStable();
    expect(opened).toHaveBeenCalledOnceWith('/api/reports/a.pdf', '_blank', 'noopener');
    expect((shown.named('Open it here') as HTMLAnchorElement).getAttribute('href')).toBe('/api/reports/a.pdf');
    // Another one is asked for: that one is not it.
    await shown.choose('Results only, for the customer');
    expect(shown.text()).not.toContain('The report is made');

    await shown.press('Open the report');
    told.error(new ApiFailure(0, [{ path: '', message: 'The server stopped answering before the report was made.', example: '' }]));
    await shown.fixture.whenStable();
    expect(shown.text()).toContain('stopped answering');
    expect(shown.all('[role=progressbar]').length).toBe(0);
  });
});
