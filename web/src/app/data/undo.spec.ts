import { TestBed } from '@angular/core/testing';
import { firstValueFrom, take } from 'rxjs';
import type { MoveWrite, ReadingWrite, RegisterUse, RoundWrite, StoredRound } from '@isometra/contract';
import { barRound, lathe, openShop, show, until, LATHE } from '../testing/fake-shop';
import { LastThing } from '../shell/last-thing';
import { Kit } from './kit';
import { Limits } from './limits';
import { Machines } from './machines';
import { Rounds } from './rounds';
import { Surveys } from './surveys';
import { Undo } from './undo';

const PHOTO = '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2';
const MADE = { dial: null, preset: 0, tightened: null, rule: null } as const;
const REGISTER: RegisterUse = {
  ...{ name: 'work shift X', axis: 'X', kind: 'added', unit: 'mm', programming: 'diameter', digits: 3, total: 48, jog: null },
  ...{ homings: 0, power: 0, old: { value: 305.525, where: '', at: '2026-12-01T00:00:00.000Z', by: 'HB' } },
  entered: { value: 305.573, how: 'plus', at: '2026-12-01T00:00:00.000Z', by: 'HB' },
};

describe('ways back', () => {
  const open = async () => {
    const round = barRound(10, 9);
    const shop = await openShop([round]);
    const rounds = TestBed.inject(Rounds);
    const now = (): Promise<StoredRound> => firstValueFrom(rounds.one(round.id));
    await firstValueFrom(rounds.load(round.id), { defaultValue: undefined });
    return { ...shop, round, rounds, now, undo: TestBed.inject(Undo) };
  };
  type Open = Awaited<ReturnType<typeof open>>;
  const reading = (more: Partial<ReadingWrite> = {}): ReadingWrite => ({
    ...{ id: crypto.randomUUID(), keys: { plane: 'h', at: 50 }, value: '1 div', set: 1, supersedes: null, why: null, by: 'HB' },
    at: '2026-12-01T00:00:00.000Z',
    ...more,
  });
  const done = <T>(what: { subscribe: (all: { complete: () => void; error: (why: unknown) => void }) => T }): Promise<void> =>
    new Promise((complete, error) => void what.subscribe({ complete, error }));
  const move = (roundId: string): MoveWrite => ({
    ...{ id: crypto.randomUUID(), roundId, kind: 'adjuster', quantity: 'offsetHorizontal', amount: -10, unit: 'um' },
    ...{ direction: 'away from the operator', plan: {}, ticks: [0], shift: null, by: 'HB', begunAt: '2026-12-01T00:00:00.000Z' },
    ...{ doneAt: null, version: 1 },
  });

  /** Every kind of thing that is entered: how it is done, what it is called, and how one sees that it was taken back. */
  const TABLE: Readonly<
    Record<string, { act: (shop: Open) => unknown; called: string; back: (shop: Open) => boolean | Promise<boolean> }>
  > = {
    'a reading': {
      act: async ({ rounds, now }) => rounds.takeReading(await now(), reading()),
      called: 'Reading 1 div',
      back: async ({ now }) => (await now()).readings.at(-1)?.value === null,
    },
    'a reading that was put right': {
      act: async ({ rounds, now }) => {
        const [first] = (await now()).readings;
        rounds.takeReading(await now(), reading({ keys: first.keys, supersedes: first.id, why: 'misread' }));
      },
      called: 'Reading 1 div',
      back: async ({ now }) => (await now()).readings.at(-1)?.value === (await now()).readings[0].value,
    },
    'a round that was begun': {
      act: ({ rounds, round, server }) => {
        const { finding: _f, readings: _r, moves: _m, number: _n, surveyId: _s, ...fresh } = round;
        rounds.begin({ ...fresh, id: crypto.randomUUID(), at: '2026-12-01T00:00:00.000Z' } as RoundWrite);
        return until(() => server.rounds.length === 2);
      },
      called: 'Round started',
      back: ({ server }) => server.rounds.at(-1)?.struck?.why === 'begun by mistake',
    },
    'a set-up that was put right': {
      act: async ({ rounds, now }) => {
        const { readings: _r, moves: _m, number: _n, surveyId: _s, ...write } = await now();
        const { finding: _f, ...own } = write as typeof write & { finding?: unknown };
        return done(rounds.change({ ...own, setup: { centreDistance: '500 mm' } }));
      },
      called: 'Set-up edited',
      back: ({ server }) => server.rounds[0].setup['centreDistance'] === '400 mm',
    },
    'a round that was struck out': {
      act: async ({ rounds, now }) => done(rounds.strike(await now(), 'the bar slipped')),
      called: 'Round discarded',
      back: ({ server }) => !server.rounds[0].struck,
    },
    'a card that was begun': {
      act: ({ rounds, round }) => rounds.putMove(LATHE, move(round.id), false),
      called: 'Step ticked',
      back: async ({ now }) => (await now()).moves.at(-1)?.made?.putAway !== undefined,
    },
    'a move that was done': {
      act: ({ rounds, round }) => {
        const begun = move(round.id);
        rounds.putMove(LATHE, begun, false);
        rounds.putMove(LATHE, { ...begun, ticks: [0, 1], doneAt: '2026-12-01T01:00:00.000Z' }, true);
      },
      called: 'Move',
      back: async ({ now }) => {
        const last = (await now()).moves.at(-1);
        return last?.doneAt === null && last.ticks.length === 1;
      },
    },
    'a note in a survey': {
      act: ({ desk }) => {
        const survey = desk.survey();
        if (survey) TestBed.inject(Surveys).note(survey, { kind: 'by-hand', content: { step: 'clean', found: 'a ridge' } } as never);
      },
      called: 'Note',
      back: ({ desk }) => desk.survey()?.byHand.length === 0,
    },
    'a survey that was changed': {
      act: ({ desk }) => {
        const survey = desk.survey();
        return survey && done(TestBed.inject(Surveys).change(survey, { title: 'Other' }));
      },
      called: 'Survey changed',
      back: ({ server }) => server.surveys[0].title === 'As found',
    },
    'a machine card': {
      act: ({ server }) => done(TestBed.inject(Machines).save({ ...server.machines[0], card: { ...lathe().card, nickname: 'Old Bess' } })),
      called: 'Card of L-14 changed',
      back: ({ server }) => server.machines[0].card.nickname === lathe().card.nickname,
    },
    'a machine that was archived': {
      act: ({ server }) => done(TestBed.inject(Machines).archive(server.machines[0], true)),
      called: 'L-14 put in the archive',
      back: ({ server }) => !server.machines[0].archived,
    },
    'a piece of kit that was added': {
      act: ({ server }) => done(TestBed.inject(Kit).save({ ...server.kit[0], id: 'new', name: 'New dial', version: 0 })),
      called: 'New dial added',
      back: ({ server }) => server.kit.find(({ id }) => id === 'new')?.archived !== undefined,
    },
    'a photograph that was added': {
      act: async ({ server }) => {
        TestBed.inject(Kit).addPhoto(server.kit[0].id, new Blob(['picture']));
        await until(() => server.kit[0].photos.length === 1);
      },
      called: 'Photograph added',
      back: ({ server }) => server.kit[0].photos.length === 0,
    },
    'a photograph that was taken off': {
      act: ({ server }) => {
        server.kit[0].photos.push(PHOTO);
        return done(TestBed.inject(Kit).removePhoto(server.kit[0].id, PHOTO));
      },
      called: 'Photograph taken off',
      back: ({ server }) => server.kit[0].photos.length === 1,
    },
    'a register value that was recorded': {
      act: async ({ rounds, round, server }) => {
        const card = move(round.id);
        rounds.putMove(round.machineId, card, false);
        await until(() => server.rounds[0].moves.length === 1);
        const [{ version }] = server.rounds[0].moves;
        rounds.putMove(round.machineId, { ...card, version, made: { ...MADE, register: REGISTER } }, true);
      },
      called: 'Register value recorded',
      back: ({ server }) => server.rounds[0].moves[0].version === 3 && !server.rounds[0].moves[0].made?.register?.entered,
    },
    'a limit sheet that was added': {
      act: () => done(TestBed.inject(Limits).add('ours', { name: 'Ours', lines: [] } as never)),
      called: 'Limit sheet added',
      back: ({ server }) => server.limits.find(({ id }) => id === 'ours')?.archived !== undefined,
    },
  };

  for (const [name, { act, called, back }] of Object.entries(TABLE))
    it(`${name} is taken back with one key after it`, async () => {
      const shop = await open();
      await firstValueFrom(TestBed.inject(Machines).load().pipe(take(1)), { defaultValue: undefined });
      await act(shop);
      await until(() => shop.undo.last() !== null);
      expect(shop.undo.last()?.done).toBe(called);
      const key = new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, cancelable: true });
      shop.undo.handle(key);
      expect(key.defaultPrevented).toBeTrue();
      expect(shop.undo.told()).toBe(`Undone: ${called}.`);
      await until(() => back(shop));
      expect(await back(shop))
        .withContext(shop.undo.told())
        .toBeTrue();
      // Taking back is not itself the last thing.
      expect(shop.undo.last()).toBeNull();
    });

  it('one thing after the other is taken back, the newest first, until there is none', async () => {
    const { rounds, now, undo } = await open();
    rounds.takeReading(await now(), reading({ value: '1 div' }));
    rounds.takeReading(await now(), reading({ value: '2 div', keys: { plane: 'h', at: 60 } }));
    expect([undo.takeBack(), undo.told()]).toEqual([true, 'Undone: Reading 2 div.']);
    expect([undo.takeBack(), undo.told()]).toEqual([true, 'Undone: Reading 1 div.']);
    expect(undo.takeBack()).toBeFalse();
    const standing = (await now()).readings.filter(({ value }) => value === null).map(({ supersedes }) => supersedes);
    expect(standing.length).toBe(2);
  });

  it('a reading that was put right and taken back twice is gone, and nothing is refused', async () => {
    const { rounds, now, undo, server } = await open();
    rounds.takeReading(await now(), reading({ value: '5 div' }));
    const taken = (await now()).readings.at(-1);
    rounds.takeReading(await now(), reading({ value: '7 div', supersedes: taken?.id ?? '', why: 'misread' }));
    undo.takeBack();
    expect((await now()).readings.at(-1)?.value).toBe('5 div');
    const back = (await now()).readings.at(-1);
    undo.takeBack();
    expect(undo.told()).toBe('Undone: Reading 5 div.');
    expect((await now()).readings.at(-1)).toEqual(jasmine.objectContaining({ value: null, supersedes: back?.id }));
    await until(() => server.rounds[0].readings.at(-1)?.value === null);
  });

  it('what was changed once more since, here or elsewhere, is not overwritten', async () => {
    const { rounds, now, undo, server } = await open();
    rounds.takeReading(await now(), reading({ value: '5 div' }));
    await until(() => server.rounds[0].readings.some(({ value }) => value === '5 div'));
    // Another window puts it right.
    const [at, last] = [server.rounds[0], (await now()).readings.at(-1)];
    const theirs = { ...at.readings[at.readings.length - 1], id: crypto.randomUUID(), value: '7 div', supersedes: last?.id ?? '' };
    server.rounds = [{ ...at, readings: [...at.readings, { ...theirs, sequence: theirs.sequence + 1 }] }];
    await done(rounds.load(at.id));
    const sent = server.sent.length;
    undo.takeBack();
    expect(undo.told()).toBe('Could not undo: it was changed once more since, here or in another window.');
    expect(server.sent.length).toBe(sent);
  });

  it('in a field that holds something the key is the field’s own', async () => {
    const { rounds, now, undo } = await open();
    rounds.takeReading(await now(), reading());
    const field = document.createElement('input');
    field.type = 'text';
    field.value = 'half a word';
    document.body.append(field);
    const press = () => {
      const key = new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, cancelable: true, bubbles: true });
      Object.defineProperty(key, 'target', { value: field });
      undo.handle(key);
      return key.defaultPrevented;
    };
    expect(press()).toBeFalse();
    field.value = '';
    expect(press()).toBeTrue();
    field.remove();
  });

  it('a line says what was done, with its way back', async () => {
    const { rounds, now } = await open();
    const line = await show(LastThing);
    expect(line.text()).toBe('');
    rounds.takeReading(await now(), reading());
    await line.fixture.whenStable();
    expect(line.text()).toContain('Reading 1 div: done.');
    await line.press(/^Undo/);
    expect(line.text()).toContain('Undone: Reading 1 div.');
    expect((await now()).readings.at(-1)?.value).toBeNull();
  });

  it('says why something could not be taken back', async () => {
    const { server, undo } = await open();
    await done(TestBed.inject(Machines).archive(server.machines[0], true));
    server.down = true;
    undo.takeBack();
    await until(() => undo.told().startsWith('Could not undo: '));
  });
});
