// The main views and how to come to them: for screenshots.

async function machine(page, address, number = 'L-14') {
  const machines = await (await page.request.get(`${address}/api/machines`)).json();
  return machines.find((entry) => entry.card.number === number);
}

async function rounds(page, address, number, check) {
  const { id } = await machine(page, address, number);
  return { id, list: await (await page.request.get(`${address}/api/machines/${id}/rounds?check=${check}`)).json() };
}

/** Open round `index` of a check on the bench. */
async function bench(page, address, number, check, index) {
  const { id, list } = await rounds(page, address, number, check);
  await page.goto(`${address}/machines/${id}/bench/${check}/${list.at(index).id}`);
  await page.waitForSelector('iso-call-column h2');
  await page.waitForSelector('.sketch svg');
}

/** Begin a round and take some of its readings. */
async function fresh(page, address, number, check, values) {
  const { id } = await machine(page, address, number);
  await page.goto(`${address}/machines/${id}/bench/${check}`);
  await page.getByText('I have read and done this').click();
  if (check !== 'tailstock-test-cut') await page.getByText('it counts up').click();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await page.waitForSelector('#reading');
  for (const value of values) {
    await page.fill('#reading', value);
    await page.keyboard.press('Enter');
  }
}

/** The scraping desk of the long lathe. */
async function desk(page, address) {
  const { id } = await machine(page, address);
  const faces = await (await page.request.get(`${address}/api/machines/${id}/surfaces`)).json();
  const face = faces.find(({ name }) => name.startsWith('Saddle'));
  await page.goto(`${address}/machines/${id}/scraping/${face.id}`);
  await page.waitForSelector('iso-face-drawing .pad.now');
  return face;
}

export const VIEWS = [
  {
    name: 'plan',
    go: async (page, address) => {
      await page.goto(`${address}/machines/${(await machine(page, address)).id}/plan`);
      await page.waitForSelector('.chain li');
      await page.getByRole('button', { name: 'Stop' }).waitFor({ state: 'detached' });
      await page.getByText('sooner').first().waitFor();
    },
  },
  {
    name: 'planner',
    go: async (page, address) => {
      await page.goto(`${address}/planner`);
      await page.waitForSelector('.piece');
    },
  },
  {
    name: 'machines',
    go: async (page, address) => {
      await page.goto(`${address}/machines`);
      await page.waitForSelector('iso-plate-picture svg');
      await page.waitForTimeout(800);
    },
  },
  {
    name: 'move-register',
    go: async (page, address) => {
      const { id, list } = await rounds(page, address, 'T-06', 'turret-bore');
      await page.goto(`${address}/machines/${id}/move/${list.find(({ conditions }) => conditions.station === '3').id}/alongSlide`);
      await page.getByRole('radiogroup', { name: 'Register' }).getByText('geometry X, station 3').click();
      await page.getByRole('textbox', { name: 'Old value' }).fill('305.525');
      await page.getByLabel('Where it was read').fill('geometry page 2');
      await page.getByRole('button', { name: 'Lock it' }).click();
      await page.getByLabel('Jogged by').fill('0.02');
      await page.getByLabel('Needle before the jog').fill('0');
      await page.getByLabel('Needle after the jog').fill('5');
      await page.getByText('on your end of the slide').click();
      await page.getByRole('button', { name: 'Keep the jog' }).click();
      await page.waitForSelector('.values .chosen');
    },
  },
  {
    name: 'parts',
    go: async (page, address) => {
      const { id } = await machine(page, address);
      const stripDowns = await (await page.request.get(`${address}/api/machines/${id}/strip-downs`)).json();
      const apron = stripDowns.find(({ name }) => name === 'Apron');
      await page.goto(`${address}/machines/${id}/parts/${apron.id}?way=assembly`);
      await page.waitForSelector('iso-assembly header');
    },
  },
  {
    name: 'survey',
    go: async (page, address) => {
      await page.goto(`${address}/machines/${(await machine(page, address)).id}/survey`);
      await page.waitForSelector('iso-survey svg .axis');
      await page.getByRole('slider', { name: 'Time, from as found to now' }).focus();
      await page.keyboard.press('Home');
      for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight');
    },
  },
  {
    name: 'set-up',
    go: async (page, address) => {
      await page.goto(`${address}/machines/${(await machine(page, address)).id}/bench/tailstock-traverse`);
      await page.waitForSelector('fieldset');
    },
  },
  { name: 'bench-tram', go: (page, address) => bench(page, address, 'M-03', 'head-tram', 0) },
  {
    name: 'survey-turning',
    go: async (page, address) => {
      await page.goto(`${address}/machines/${(await machine(page, address, 'T-06')).id}/survey`);
      await page.waitForSelector('iso-bent .ring');
    },
  },
  {
    name: 'scraping-desk',
    go: async (page, address) => void (await desk(page, address)),
  },
  {
    name: 'scraping-print',
    go: async (page, address) => {
      const face = await desk(page, address);
      const { picture, corners } = face.entries.findLast(({ kind }) => kind === 'print').content;
      const buffer = await (await page.request.get(`${address}/api/pictures/${picture}`)).body();
      await page.getByRole('button', { name: 'Read a print' }).click();
      await page.getByLabel('A photograph').setInputFiles({ name: 'print.jpg', mimeType: 'image/jpeg', buffer });
      const photo = page.locator('iso-print-panel img');
      await photo.waitFor();
      const [{ x, y, width }, across] = [
        await photo.boundingBox(),
        await photo.evaluate((image) => image.decode().then(() => image.naturalWidth)),
      ];
      for (const corner of corners) await page.mouse.click(x + (corner.x * width) / across, y + (corner.y * width) / across);
      await page.locator('iso-print-panel .found').waitFor();
    },
  },
  {
    name: 'move',
    go: async (page, address) => {
      const { id, list } = await rounds(page, address, 'L-14', 'tailstock-traverse');
      await page.goto(`${address}/machines/${id}/move/${list[2].id}/offsetHorizontal`);
      await page.waitForSelector('ol li');
    },
  },
  {
    name: 'at-the-screw',
    go: async (page, address) => {
      const { id, list } = await rounds(page, address, 'L-14', 'tailstock-traverse');
      await page.goto(`${address}/machines/${id}/move/${list[2].id}/offsetHorizontal?at=screw`);
      await page.waitForSelector('iso-at-screw iso-dial');
    },
  },
  {
    name: 'rounds',
    go: async (page, address) => {
      const { id } = await machine(page, address);
      await page.goto(`${address}/machines/${id}/rounds/tailstock-traverse`);
      await page.waitForSelector('iso-round-chart svg');
    },
  },
  {
    name: 'kit',
    go: async (page, address) => {
      await page.goto(`${address}/kit`);
      await page.waitForSelector('.short');
    },
  },
  {
    name: 'files',
    go: async (page, address) => {
      await page.goto(`${address}/files?machine=L-14`);
      await page.waitForSelector('iso-report-out a');
    },
  },
  {
    name: 'logbook',
    go: async (page, address) => {
      await page.goto(`${address}/machines/${(await machine(page, address)).id}/logbook`);
      await page.waitForSelector('iso-logbook li');
    },
  },
  {
    name: 'bench-phone',
    size: { width: 390, height: 844 },
    go: (page, address) => bench(page, address, 'L-14', 'tailstock-traverse', -1),
  },
  {
    name: 'bench-bar',
    go: async (page, address) => {
      await fresh(page, address, 'L-14', 'tailstock-traverse', ['0', '-15.5', '0']);
      await page.fill('#reading', '-9.5');
    },
  },
];
