import { chromium } from '@playwright/test';
import { serve, CHROMIUM_FLAGS } from './served.mjs';
const shop = await serve({ demo: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS });
const shots = [];
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  page.on('pageerror', (e) => console.log('PAGE', e.message));
  const snap = async () => shots.push((await page.screenshot()).toString('base64'));
  await (await import(process.argv[2])).look(page, shop.address, snap);
  const tile = await (await browser.newContext({ viewport: { width: 1300, height: 830 * Math.ceil(shots.length / 2) * 0.5 + 20 } })).newPage();
  await tile.setContent(`<body style="margin:0;display:grid;grid-template-columns:1fr 1fr;gap:6px">${shots.map((s) => `<img style="width:100%" src="data:image/png;base64,${s}">`).join('')}</body>`);
  await tile.screenshot({ path: '/tmp/look.png', fullPage: true });
} finally { await browser.close(); await shop.stop(); }
