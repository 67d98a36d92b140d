// npm run bench: what the application must be quick at, each figure beside its target. Fails where one is missed.
import { buildAll } from './build.mjs';

buildAll();
const { serve } = await import('./served.mjs');
const { measureArchives } = await import('./bench/archives.mjs');
const { measureMonteCarlo } = await import('./bench/monteCarlo.mjs');
const { measureNotebook } = await import('./bench/notebook.mjs');
const { measurePlanner } = await import('./bench/planner.mjs');
const { measureSolvers } = await import('./bench/solvers.mjs');
const { measureScreen } = await import('./bench/screen.mjs');
const { measureScraping } = await import('./bench/scraping.mjs');
const { missedTargets } = await import('./bench/target.mjs');

measureMonteCarlo();
measureSolvers();
measurePlanner();
await measureScraping();
const shop = await serve({ demo: true });
try {
  await measureNotebook(shop);
  await measureScreen(shop);
} finally {
  await shop.stop();
}
await measureArchives();
if (missedTargets() > 0) process.exitCode = 1;
