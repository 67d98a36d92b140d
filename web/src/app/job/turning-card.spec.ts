import { show, until } from '../testing/fake-shop';
import { openTurning, swept, withValue } from '../testing/swept';
import type { MoveWrite } from '@isometra/contract';
import { JobCard } from './job-card';
import { othersWords } from './others-words';

describe('a job card of a turning centre', () => {
  const REGISTER = { axis: 'X', kind: 'added', unit: 'mm', programming: 'radius', digits: '3' };
  const CARD = {
    registers: [
      { ...REGISTER, name: 'work shift', scope: 'turret' },
      { ...REGISTER, name: 'geometry 3', scope: 'station', station: '3' },
      { ...REGISTER, name: 'geometry 5', scope: 'station', station: '5' },
      { ...REGISTER, name: 'sub', axis: 'A', scope: 'sub' },
    ],
    stations: [
      { station: '3', plate: '3' },
      { station: '5', plate: '5' },
    ],
  };
  const open = async (check: string, quantity: string, h: number, v: number, more: Parameters<typeof swept>[3] = {}) => {
    const round = swept(check, h, v, more);
    const { server } = await openTurning([round], CARD);
    const card = await show(JobCard, { roundId: round.id, quantity });
    await until(() => card.all('h1').length > 0);
    return Object.assign(card, { server });
  };
  const at = (station: string, plate = station) => ({ conditions: { homed: 'yes', station, plate } });
  const offered = (card: Awaited<ReturnType<typeof open>>) =>
    card.all('[role=radiogroup][aria-label="Register"] label').map((label) => (label.textContent ?? '').trim());

  it('offers the registers that shift what was read, and no other', async () => {
    expect(offered(await open('turret-bore', 'alongSlide', 40, -40, at('3')))).toEqual(['work shift', 'geometry 3', 'another one']);
  });

  it('of the sub-spindle has its own alone', async () => {
    const card = await open('sub-spindle', 'alongSlide', 40, -40);
    expect(offered(card)).toEqual(['sub', 'another one']);
    expect((card.all('[aria-label="Old value"]')[0] as HTMLInputElement).value).toBe('');
  });

  it('of a reference that is not homed yet says so on the card of the next round, and is ticked off there', async () => {
    const first = withValue(swept('turret-bore', 40, -40, at('3')), 199.98);
    const second = swept('turret-bore', 40, -40, at('3'));
    const { server } = await openTurning([first, second], CARD);
    const card = await show(JobCard, { roundId: second.id, quantity: 'alongSlide' });
    await until(() => card.text().includes('is not homed yet'));
    expect(card.text()).toContain(
      'home A was set to 199.9800 mm, and is not homed yet: home it 2 times more, and switch it off and on once more.',
    );
    await card.press('Homed (0 of 2)');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as MoveWrite).made?.register?.homings).toBe(1);
    await until(() => card.text().includes('Homed (1 of 2)'));
  });

  it('of a sub-spindle has a line for stops, belt and drive, and keeps it', async () => {
    const card = await open('sub-spindle', 'acrossSlide', 40, 40);
    await until(() => card.text().includes('Stops, belt and drive'));
    const field = card.field('Stops, belt and drive as they were left');
    field.value = 'stop 0.05 clear, belt tight';
    field.dispatchEvent(new Event('change'));
    await until(() => card.server.sent.length === 1);
    expect((card.server.sent[0].body as MoveWrite).made?.alsoSet).toBe('stop 0.05 clear, belt tight');
  });

  it('read on a plate of another station says so before anything else', async () => {
    const card = await open('turret-bore', 'alongSlide', 40, -40, at('3', '5'));
    expect(card.text()).toContain('Station 3 carries plate 5; by the machine card its own is 3, and plate 5 belongs on station 5.');
  });

  it('of a register says that bolts come first where both are asked for', async () => {
    expect((await open('turret-bore', 'alongSlide', 40, 25, at('3'))).text()).toContain(
      'Bolts first: on them it is tapped over in this direction too.',
    );
  });

  it('of bolts names the mallet, the screws one at a time, the seal and the stop', async () => {
    const card = await open('turret-bore', 'acrossSlide', 21, 21, at('3'));
    for (const words of [
      'the long screws are marked',
      'Scrape the old compound off and blow the joint out',
      'one at a time: loosen each and snug it again before the next',
      'From the other side if the needle goes the other way',
      'tighten in stages, crosswise, with a reading after each; then hard',
      'Degrease the joint, seal it again, put the cover back. Housing, belt and drive shaft go back against their stop.',
      'Some nudge with a powered axis through a block of wood',
    ])
      expect(card.text()).toContain(words);
  });

  it('asks what is moved, the whole turret or one plate, and names what it is in every step', async () => {
    const card = await open('turret-bore', 'acrossSlide', 21, 21, at('3'));
    expect(card.text()).toContain('Tap the turret with a soft mallet');
    expect(card.text()).toContain('Sweep it again in a new round, and its flat and every other station after it.');
    expect(card.text()).toContain('No other station has been read. Sweep one before anything is loosened');
    await card.choose('the plate of this station alone');
    await until(() => card.text().includes('Tap the plate of this station alone'));
    expect(card.text()).toContain('The bolts of the plate one at a time');
    expect(card.text()).not.toContain('Housing, belt and drive shaft');
    expect(card.text()).not.toContain('every other station after it');
    // Nothing is begun by saying it; with the first tick it stands on the card.
    await card.tick(/^Cover off/);
    await until(() => card.server.sent.some(({ path }) => path === '/moves'));
    const sent = card.server.sent.find(({ path }) => path === '/moves')?.body as { readonly made?: { readonly moved?: string } };
    expect(sent.made?.moved).toBe('one');
  });

  it('of a bush or a sub-spindle has nothing to choose: there is one', async () => {
    const card = await open('sub-spindle', 'acrossSlide', 21, 21);
    expect(card.all('[aria-label="What is moved"]').length).toBe(0);
    expect(card.text()).not.toContain('No other station');
  });

  for (const [feature, carrier, chosen] of [
    ['bore', 'main', '−'],
    ['outside', 'main', '+'],
    ['bore', 'sub', '+'],
    ['outside', 'sub', '−'],
  ] as const) {
    it(`tells the sign by the jog: ${feature}, carried by the ${carrier}`, async () => {
      // It stands toward the operator whichever way it was read; a + jog after which the needle on that end counts down.
      const turn = (feature === 'bore' ? 1 : -1) * (carrier === 'main' ? 1 : -1);
      const card = await open('sub-spindle', 'alongSlide', turn * 40, turn * -40, {
        setup: { slant: '45', feature, carrier },
        conditions: { homed: 'yes' },
      });
      expect(card.text()).toContain('toward you.');
      await card.type('Old value', '200');
      await card.press('Lock it');
      await until(() => card.all('.values').length > 0);
      await card.type('Jogged by', '0.01');
      await card.type('Needle before the jog', '0');
      await card.type('Needle after the jog', '-10');
      await card.choose('on your end of the slide');
      await card.press('Keep the jog');
      await until(() => card.all('.chosen .sign').length > 0);
      // In a bore carried by the main spindle the wall went away there: the part came nearer still, so it is minus.
      expect(card.all('.chosen .sign')[0].textContent).toBe(chosen);
    });
  }
});

describe('what other stations say, in words', () => {
  const others = (...stations: string[]) => stations.map((station) => ({ name: `station ${station}`, at: '2026-11-12T09:00:00.000Z' }));

  it('off alike it is all of them, in it is this one alone; a register by its scope', () => {
    expect(othersWords({ alike: others('5', '7'), apart: [] }, false)).toMatch(
      /^Station 5 \([^)]*12[^)]*\) and station 7 \([^)]*12[^)]*\) are off alike: the turret has gone over/,
    );
    expect(othersWords({ alike: [], apart: others('5') }, false)).toMatch(/was not off: the plate of this station\. .*put the others out/);
    expect(othersWords({ alike: others('5'), apart: [] }, true)).toContain('is off alike: a register that shifts all of them');
    expect(othersWords({ alike: [], apart: others('5') }, true)).toContain('a register of this station');
    expect(othersWords({ alike: others('5'), apart: others('7') }, false)).toContain('neither the whole turret nor one station alone');
    expect(othersWords({ alike: [], apart: [] }, true)).toContain('before anything is entered');
  });
});
