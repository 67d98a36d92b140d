import { writeFileSync } from 'node:fs';
const { CHROMIUM_FLAGS, serve } = await import('./served.mjs');
const { chromium } = await import('@playwright/test');
const { CHECKS } = await import('@isometra/core');
const shop = await serve({ demo: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS });
const wanted = process.argv.slice(2);
const cases = [
  ['saddle-squareness', {}, [0,1,2,0]],
  ['bed-twist', {}, [1, 0.5, -0.5, 2, -2.5]],
  ['way-straightness', { method: 'level-steps', base: '200 mm' }, [1, 0.5, -0.5, 2, -2.5, 1,1]],
  ['way-straightness', { method: 'straightedge' }, [0, 3, 5, 6,4,1,0,-2,-3]],
  ['tailstock-way-parallelism', {}, [0, 3, 5]],
  ['stiffness', {force:'100 N'}, [3]],
  ['knee-gib-play', {guideLength:'180 mm', distance:'320 mm'}, [3, -2, 1]],
  ['bar-qualification', {}, [3,1,4,1.5,6]],
  ['quill-parallelism', {}, [0,4,0]],
  ['chuck-test-cut', {}, ['40.000 mm']],
  ['cross-slide-squareness', {method:'faced-disc'}, [0,1,3]],
  ['cross-slide-squareness', {method:'reversed-disc'}, [0,1,3,0,-1]],
  ['spindle-axis', {bar:{diameter:'25 mm', freeLength:'300 mm'}}, [0,1,3,0,-1]],
].filter(([id]) => !wanted.length || wanted.includes(id));
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const machines = await (await page.request.get(`${shop.address}/api/machines`)).json();
  const shots = [];
  for (const [id, setup, values] of cases) {
    const check = CHECKS.get(id);
    const kind = check.valueKind;
    const round = { id: crypto.randomUUID(), machineId: machines[0].id, check: id, setup, plan: {}, instrument: id.includes('cut') ? {kind:'micrometer', graduation:'0.01 mm'} : id === 'bed-twist' || setup.base ? { kind: 'level', graduation: '20 um/m' } : { kind: 'lever', graduation: '0.002 mm', sense: 1 }, instrumentName: null, conditions: {}, purpose: null, by: 'HB', at: new Date().toISOString(), version: 1 };
    const r = await page.request.post(`${shop.address}/api/rounds`, { data: round });
    if (!r.ok()) console.log(id, await r.text());
    const slots = check.slots(check.setup.parse(setup), check.plan.parse({}));
    const readings = values.map((v, i) => ({ id: crypto.randomUUID(), keys: slots[i].keys, value: typeof v === 'string' ? v : `${v} div`, set: 1, by: 'HB', at: new Date().toISOString() }));
    const rr = await page.request.post(`${shop.address}/api/rounds/${round.id}/readings`, { data: readings });
    if (!rr.ok()) console.log(id, await rr.text());
    await page.goto(`${shop.address}/machines/${machines[0].id}/bench/${id}/${round.id}`);
    await page.waitForSelector('.sketch svg');
    await page.waitForTimeout(150);
    shots.push([id, (await page.locator('.sketch').screenshot()).toString('base64')]);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  const per = 6;
  for (let k = 0; k * per < shots.length; k++) {
    await page.setContent(`<body style="margin:4px;background:#fff;display:grid;grid-template-columns:1fr 1fr;gap:4px;font:12px sans-serif">${shots.slice(k * per, k * per + per).map(([id, b]) => `<div>${id}<br><img style="max-width:620px;max-height:245px" src="data:image/png;base64,${b}"></div>`).join('')}</body>`);
    await page.waitForTimeout(100);
    await page.screenshot({ path: `/tmp/look-${k}.png` });
  }
} finally { await browser.close(); await shop.stop(); }
