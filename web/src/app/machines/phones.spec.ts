import { openShop, show, until } from '../testing/fake-shop';
import { Phones } from './phones';

const DEVICE = { id: 'd-1', name: 'Phone at the lathe', pairedAt: '2026-02-01T08:00:00.000Z', seenAt: '2026-02-28T17:00:00.000Z' };

describe('phones and tablets', () => {
  it('are told where the shop is, let in by a code, listed, and shut out after a question', async () => {
    const { server } = await openShop([], {
      prepare: (fake) => {
        fake.lan = { on: true, address: 'http://192.0.2.7:4780', picture: '<svg xmlns="http://www.w3.org/2000/svg"/>' };
        fake.devices = [DEVICE];
      },
    });
    const phones = await show(Phones);
    await until(() => phones.text().includes('Phone at the lathe'));
    expect(phones.text()).toContain('http://192.0.2.7:4780');
    expect(phones.element.querySelector('img')?.getAttribute('src')).toMatch(/^data:image\/svg\+xml,%3Csvg/);
    await phones.press('Let a device in');
    await until(() => phones.text().includes('042 817'));
    await phones.press('Shut out Phone at the lathe');
    expect(server.devices.length).toBe(1);
    await phones.press('Shut Phone at the lathe out');
    await until(() => phones.text().includes('No device has been let in yet.'));
    expect(server.devices).toEqual([]);
  });

  it('of a shop that serves one machine only are told how it would let them in', async () => {
    await openShop();
    const phones = await show(Phones);
    await until(() => phones.text().includes('npm start -- --lan'));
    expect(phones.element.querySelector('img')).toBeNull();
  });
});
