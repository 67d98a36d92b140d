import { TestBed } from '@angular/core/testing';
import { Settings } from '../data/settings';
import { openShop, refusal, show, until } from '../testing/fake-shop';
import { KitList } from './kit-list';

describe('the kit', () => {
  it('is shown short: what a division is, what is in the drawer', async () => {
    await openShop();
    const kit = await show(KitList);
    expect(kit.text()).toContain('lever, 0.002 mm');
    expect(kit.text()).toContain('4 × 0.02 mm, 2 × 0.05 mm');
  });

  it('goes into the archive, where it is not offered, and out of it again', async () => {
    const { server } = await openShop();
    const kit = await show(KitList);
    const [item] = server.kit;
    await kit.press(`Change ${item.name}`);
    await kit.press(`Archive ${item.name}`);
    await until(() => kit.text().includes('In the archive since'));
    expect(kit.all(`button[aria-label="Change ${item.name}"]`).length).toBe(0);
    await kit.press(`Restore ${item.name}`);
    await until(() => !kit.text().includes('In the archive since'));
    expect(server.sent.map(({ body }) => (body as { away: boolean }).away)).toEqual([true, false]);
  });

  it('is looked at as it stood once, and put back', async () => {
    const { server } = await openShop([], {
      prepare: (shop) => {
        const [{ name, data, care }] = shop.kit;
        shop.states = [
          {
            version: 2,
            by: 'SD',
            at: '2026-05-12T16:00:00.000Z',
            changes: [{ field: 'name', from: 'Old dial', to: name }],
            state: { name, data, care },
          },
          {
            version: 1,
            by: 'HB',
            at: '2026-01-12T16:00:00.000Z',
            changes: [],
            state: { kind: 'instrument', name: 'Old dial', data, care },
          },
        ];
      },
    });
    const kit = await show(KitList);
    const [{ name }] = server.kit;
    await kit.press(`Change ${name}`);
    const details = [...kit.element.querySelectorAll('details')].find((one) => one.textContent?.includes('Earlier states'));
    if (details) details.open = true;
    await until(() => kit.text().includes(`name: Old dial to ${name}`));
    await kit.press(/^Look at it as it stood 12 Jan/);
    await until(() => kit.text().includes('This is how it stood after the change of 12 Jan 2026'));
    expect(kit.field('Name').value).toBe('Old dial');
    await kit.press('Back to how it stands now');
    expect(kit.field('Name').value).toBe(name);
    await kit.press(/^Look at it as it stood 12 Jan/);
    await until(() => kit.text().includes('Put this back'));
    await kit.press('Put this back');
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ name: 'Old dial' }));
  });

  it('Escape leaves a piece as it was; what was typed goes only when it is pressed twice', async () => {
    const { server } = await openShop();
    const kit = await show(KitList);
    const [{ name }] = server.kit;
    const escape = () => kit.escape('iso-kit-card form input');
    await kit.press(`Change ${name}`);
    await escape();
    expect(kit.all('iso-kit-card form').length).toBe(0);
    await kit.press(`Change ${name}`);
    await kit.type('Name', 'Another');
    await escape();
    expect(kit.text()).toContain('Your changes are not saved yet. Press Escape again to discard them.');
    await kit.type('Name', 'Yet another');
    await escape();
    expect(kit.field('Name').value).withContext('something was typed since: it is asked again').toBe('Yet another');
    await escape();
    expect(kit.all('iso-kit-card form').length).toBe(0);
    await kit.press(`Change ${name}`);
    expect(kit.field('Name').value).toBe(name);
    await kit.escape('iso-kit-card form input');
    await kit.pick('Add to the kit', 'an instrument');
    await escape();
    expect(kit.all('iso-kit-card form').length).withContext('a new one that nobody typed into').toBe(0);
    await kit.pick('Add to the kit', 'an instrument');
    expect(kit.all('iso-kit-card form').length).withContext('the same kind once more').toBe(1);
  });

  it('a new instrument names what is missing, then is sent with units', async () => {
    const { server } = await openShop();
    const kit = await show(KitList);
    await kit.pick('Add to the kit', 'an instrument');
    await kit.press('Save');
    expect(kit.text()).toContain('One division is missing');
    await kit.type('Name', 'Best dial');
    await kit.type('One division', '0.002');
    await kit.press('Save');
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: '/kit' }));
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ name: 'Best dial', data: { kind: 'lever', graduation: '0.002 mm' } }));
  });

  it('what a file gave as a bare text stays in the unit of the file, also on a screen in inches', async () => {
    const { server } = await openShop([], {
      prepare: (shop) => {
        const [piece, leaves, ...others] = shop.kit;
        shop.kit = [
          { ...piece, data: { kind: 'lever', graduation: '2' } },
          { ...leaves, data: { stock: [{ thickness: '50', count: 2 }] } },
          ...others,
        ];
      },
    });
    TestBed.inject(Settings).system.set('inch');
    const kit = await show(KitList);
    for (const name of server.kit.slice(0, 2).map((item) => item.name)) {
      await kit.press(`Change ${name}`);
      await kit.type('Name', `${name}, old`);
      await kit.press('Save');
    }
    await until(() => server.sent.length === 2);
    expect(server.sent.map(({ body }) => (body as { data: unknown }).data)).toEqual([
      { kind: 'lever', graduation: '2 µm' },
      { stock: [{ thickness: '50 µm', count: 2 }] },
    ]);
  });

  it('shims are added, counted and taken out', async () => {
    const { server } = await openShop();
    const kit = await show(KitList);
    await kit.press('Change Drawer');
    await kit.press('Add a thickness');
    const rows = () => kit.all('tbody tr');
    expect(rows().length).toBe(3);
    await kit.type('Thickness of row 3', '0.05');
    const leaves = kit.element.querySelector<HTMLInputElement>('[aria-label="Leaves of row 3"]') as HTMLInputElement;
    leaves.value = 'many';
    leaves.dispatchEvent(new Event('change'));
    await kit.fixture.whenStable();
    await kit.press('Save');
    expect(kit.text()).toContain('must be a whole number of leaves');
    leaves.value = '7';
    leaves.dispatchEvent(new Event('change'));
    await kit.fixture.whenStable();
    await kit.press('Take out');
    await kit.press('Save');
    expect((server.sent[0].body as { data: unknown }).data).toEqual({
      stock: [
        { thickness: '0.05 mm', count: 2 },
        { thickness: '0.05 mm', count: 7 },
      ],
    });
  });

  it('somebody else’s change is told and what was typed stays', async () => {
    const { server } = await openShop();
    const kit = await show(KitList);
    await kit.press('Change Lever dial');
    await kit.type('Name', 'Our dial');
    server.refuse = refusal(409, 'changed', { ...server.kit[0], version: 5 }, 'version');
    await kit.press('Save');
    expect(kit.text()).toContain('Somebody else has changed it meanwhile');
    await kit.press('Save');
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ name: 'Our dial', version: 5 }));
  });
});
