// npm run screenshots: one current picture of each main view, from the demo, in docs/screenshots.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll } from './build.mjs';
import { ensureProgram, ROOT } from './shell.mjs';

buildAll();
const { CHROMIUM_FLAGS, serve } = await import('./served.mjs');
const { chromium } = await import('@playwright/test');
const { VIEWS } = await import('./views.mjs');

const folder = process.env.SHOTS ?? join(ROOT, 'docs/screenshots');
const wanted = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const shop = await serve({ demo: true });
const browser = await chromium.launch({ executablePath: ensureProgram(['chromium'], 'chromium', 'Taking pictures'), args: CHROMIUM_FLAGS });
try {
  for (const { name, size = { width: 1280, height: 800 }, go } of VIEWS) {
    if (wanted.length && !wanted.includes(name)) continue;
    const context = await browser.newContext({ viewport: size, locale: 'en-GB', reducedMotion: 'reduce' });
    const page = await context.newPage();
    page.on('console', (message) => message.type() === 'error' && console.error(`${name}: ${message.text()}`));
    page.on('pageerror', (error) => console.error(`${name}: ${error.message}`));
    await page.addInitScript(() =>
      localStorage.setItem('isometra-settings', JSON.stringify({ system: 'mm', fineness: 'coarse', who: 'HB' })),
    );
    await go(page, shop.address);
    await page.waitForTimeout(250);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    console.log(join(folder, `${name}.png`));
    await context.close();
  }
} finally {
  await browser.close();
  await shop.stop();
}
