import { readInstrument, readingValue } from '@isometra/core';
import { expect, newLathe, read, test, typeInto } from './shop.js';

interface Round {
  readonly setup: Record<string, string>;
  readonly instrument: Record<string, string>;
  readonly readings: readonly { readonly value: string }[];
}

/** Figures as hands type them, bare, and what is kept of them: the unit is the one that stood beside the field. */
const TABLE = {
  mm: {
    card: { 'Swing over bed': ['360', '360 mm'], 'Between centres': ['1000', '1000 mm'], 'Adjuster screw pitch': ['1.5', '1.5 mm'] },
    division: ['0.01', '0.01 mm'],
    distance: ['420', '420 mm'],
    readings: ['0', '5-1/2', '5 1/2', '2.5', '0'],
    um: [0, 55, 55, 25, 0],
  },
  inch: {
    card: {
      'Swing over bed': ['14 1/4', '14 1/4 in'],
      'Between centres': ['40', '40 in'],
      'Adjuster screw pitch': ['.0625', '.0625 in'],
    },
    division: ['.0005', '.0005 in'],
    distance: ['16.5', '16.5 in'],
    readings: ['0', '5-1/2', '1.5 thou', '-2', '0'],
    um: [0, 69.85, 38.1, -25.4, 0],
  },
} as const;

for (const system of ['mm', 'inch'] as const)
  test(`bare figures mean the unit beside their field, from card to dial, in ${system}`, async ({ page, shop }) => {
    const { card, division, distance, readings, um } = TABLE[system];
    const { keyboard } = page;
    const got = async <T>(path: string): Promise<T> => (await (await page.request.get(`${shop.address}/api${path}`)).json()) as T;
    await newLathe(page, shop.address, 'L-7', system);
    for (const [label, [typed]] of Object.entries(card)) await typeInto(page, label, typed);
    await keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Is the tailstock in line?' })).toBeVisible();
    const [machine] = await got<{ id: string; card: Record<string, unknown> }[]>('/machines');
    const { swing, centreDistance, adjuster } = machine.card as { swing: string; centreDistance: string; adjuster: { pitch: string } };
    expect([swing, centreDistance, adjuster.pitch]).toEqual(Object.values(card).map(([, kept]) => kept));

    await keyboard.press('1');
    await expect(page.getByLabel('I have read and done this')).toBeFocused();
    await keyboard.press('Space');
    // The example of each field is in the unit beside it.
    const unit = system === 'mm' ? /mm$/ : /in$/;
    expect(await page.getByLabel('Distance between centres').getAttribute('placeholder')).toMatch(unit);
    expect(await page.getByLabel('One division').getAttribute('placeholder')).toMatch(unit);
    await page.getByLabel('Distance between centres').fill('');
    await typeInto(page, 'Distance between centres', distance[0]);
    await typeInto(page, 'One division', division[0]);
    await keyboard.press('Enter');
    await read(page, ...readings);
    await expect(page.locator('.waiting')).toHaveCount(0);
    const [round] = await got<Round[]>(`/machines/${machine.id}/rounds`);
    expect(round.setup['centreDistance']).toBe(distance[1]);
    expect(round.instrument['graduation']).toBe(division[1]);
    // What was typed means the same to the arithmetic, whichever screen shows it.
    const { instrument } = readInstrument(round.instrument);
    const values = round.readings.map(({ value }) => readingValue(value, 'indicator', instrument));
    expect(values.map((value) => (value.ok ? Number(value.value.toFixed(3)) : value.message))).toEqual(um);
    // The other unit changes nothing that was typed.
    await keyboard.press('u');
    await page.reload();
    await expect(page.locator('#reading')).toBeFocused();
    const [again] = await got<Round[]>(`/machines/${machine.id}/rounds`);
    expect(again.readings.map(({ value }) => value)).toEqual(round.readings.map(({ value }) => value));
  });
