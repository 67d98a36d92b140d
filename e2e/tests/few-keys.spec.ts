import { call, countKeys, expect, newLathe, read, tabTo, test, typeInto } from './shop.js';

/** The same job as hands type it in millimetres and in inches: bare figures mean the unit beside their field. */
const SHOPS = [
  {
    system: 'mm' as const,
    ...{ distance: '420', division: '0.002', readings: ['0', '-9.5', '0', '3', '0'] },
    ...{ bring: 'Bring it 0.021 mm toward you.', needle: '10.5 div from zero, counting up' },
  },
  {
    system: 'inch' as const,
    ...{ distance: '16', division: '.0001', readings: ['0', '-7.5', '0', '2', '0'] },
    ...{ bring: 'Bring it 0.8 thou toward you.', needle: '8.5 div from zero, counting up' },
  },
];

for (const { system, distance, division, readings, bring, needle } of SHOPS)
  test(`from an empty shop to the first correct move in at most 46 keys, in ${system}`, async ({ page, shop }) => {
    const keys = countKeys(page);
    const { keyboard } = page;
    await newLathe(page, shop.address, 'L7', system);
    // The pitch of its screw can wait: what the needle does is what counts.
    await expect(page.getByLabel('Swing over bed'), 'a person presses Tab once the field is there').toBeVisible();
    await tabTo(page, 'Swing over bed');
    await keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Is the tailstock in line?' })).toBeVisible();

    await keyboard.press('1');
    await expect(page.getByLabel('I have read and done this')).toBeFocused();
    await keyboard.press('Space');
    await typeInto(page, 'Distance between centres', distance);
    await keyboard.press('Enter');
    // What is missing has the hand at once, one field after the other.
    await expect(page.getByLabel('One division')).toBeFocused();
    await keyboard.type(division);
    // The stylus is pressed in once: the needle counts up.
    await expect(page.getByRole('radio', { name: /^not tried/ })).toBeVisible();
    await tabTo(page, /^not tried/);
    await keyboard.press('ArrowDown');
    await expect(page.getByRole('radio', { name: 'it counts up' })).toBeChecked();
    await keyboard.press('Enter');
    await read(page, ...readings);
    await expect(call(page)).toContainText(bring);
    await expect(call(page)).not.toContainText('direction is assumed');
    await keyboard.press('m');
    await expect(page.locator('iso-job-card ol')).toContainText(needle);
    expect(keys().length, keys().join(' ')).toBeLessThanOrEqual(46);
  });
