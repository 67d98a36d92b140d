// Plans: a shop of 20 jobs laid out anew, and the draws of one job.
import { arranged, jobOf, layOutJob, planJob } from '@isometra/work';
import { ms, report, spread } from './target.mjs';

const JOBS = 20;
const ITEMS = 100;
const NOTHING = { changes: [], own: [], order: [] };
const PEOPLE = [
  { id: 'A', name: '', hours: { tue: 3, thu: 3, sat: 4 }, off: [], from: 'own' },
  { id: 'B', name: '', hours: { mon: 2, wed: 2 }, off: [], from: 'own' },
];

const item = (i) => ({
  ...{ key: `i${i}`, kind: i % 2 ? 'read' : 'scrape', title: `item ${i}`, why: '', minutes: [20, 40, 80], wait: null, people: 1, who: [] },
  ...{ things: i % 2 ? ['Level'] : [], after: i % 5 ? [`i${i - 1}`] : [], notBefore: null, from: 'starting', timings: 0 },
  ...{ cautions: [], path: null, told: null },
});
const plan = (job, items) => ({
  machineId: `m${job}`,
  number: `L-${job}`,
  items: arranged(
    Array.from({ length: items }, (_, i) => item(i)),
    NOTHING,
  ),
});
const circumstances = { start: '2026-12-01', timeZone: 'Europe/London', people: PEOPLE };

function timed(work, times) {
  const all = Array.from({ length: times }, () => {
    const before = performance.now();
    work();
    return performance.now() - before;
  });
  return spread(all).median;
}

export function measurePlanner() {
  const replanned = timed(
    () =>
      layOutJob(
        jobOf(
          Array.from({ length: JOBS }, (_, job) => plan(job, ITEMS)),
          circumstances,
        ).job,
      ),
    5,
  );
  report(`${JOBS} jobs of ${ITEMS} items planned again`, ms(replanned), 'at most 1000 ms', replanned <= 1000);
  const { job } = jobOf([plan(0, 40)], circumstances);
  const drawn = timed(() => planJob(job), 3);
  report('10,000 draws of a job of 40 items', ms(drawn), 'at most 2000 ms', drawn <= 2000);
}
