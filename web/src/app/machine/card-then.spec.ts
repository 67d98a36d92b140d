import { TestBed } from '@angular/core/testing';
import type { CardThen } from '@isometra/contract';
import { BenchStore } from '../bench/bench-store';
import { CallColumn } from '../bench/call-column';
import { barRound, lathe, openShop, show, until } from '../testing/fake-shop';

describe('an old round and the card of its machine', () => {
  const changed: CardThen = {
    at: '2026-01-03T09:00:00.000Z',
    card: { ...lathe().card, adjuster: { pitch: '0.75 mm' } },
    since: [{ field: 'Sideways adjuster: Adjuster screw pitch', from: '0.75 mm', to: '1.5 mm' }],
  };

  const look = async (which: 0 | 1) => {
    const rounds = [barRound(60, 5), barRound(60, 5)];
    const { server, desk } = await openShop(rounds, {
      providers: [BenchStore],
      prepare: ({ cardsThen }) => rounds.forEach(({ id }) => cardsThen.set(id, changed)),
    });
    const store = TestBed.inject(BenchStore);
    store.open(rounds[which].id).subscribe();
    await until(() => store.round() !== null);
    return { server, desk, round: rounds[which], store, column: await show(CallColumn) };
  };
  const turns = (store: BenchStore): number =>
    Math.abs(Number(store.solved().finding?.moves.find(({ kind }) => kind === 'adjuster')?.['turns']));

  it('one that was read again goes by the card of then, and says what was changed since', async () => {
    const { column, round, desk } = await look(0);
    await until(() => column.text().includes('Since then'));
    expect(column.text()).toContain('This goes by the machine card as it stood on 3 Jan 2026.');
    expect(column.text()).toContain('Sideways adjuster: Adjuster screw pitch: 0.75 mm, now 1.5 mm');
    expect(desk.facts(round).card?.['adjuster']).toEqual({ pitch: '0.75 mm' });
  });

  it('one that still counts goes by the card of today, and asks for no other', async () => {
    const then = await look(0);
    await until(() => then.column.text().includes('Since then'));
    const old = turns(then.store);
    TestBed.resetTestingModule();
    const { server, column, store } = await look(1);
    await column.fixture.whenStable();
    expect(column.text()).not.toContain('machine card as it stood');
    expect(server.asked.some((path) => path.endsWith('/card'))).toBeFalse();
    // Half the pitch is twice the turn.
    expect(old).toBeCloseTo(2 * turns(store), 9);
  });
});
