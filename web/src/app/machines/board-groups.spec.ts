import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Machine } from '@isometra/contract';
import type { BoardPlate } from '@isometra/contract/board';
import { lathe, openShop, show } from '../testing/fake-shop';
import { boardGroups, standingOf } from './board-groups';
import { MachineList } from './machine-list';

const plate = (more: Partial<BoardPlate> = {}): BoardPlate => ({
  ...{ machineId: 'm', survey: '', strip: [], next: null, due: [], apart: [], begun: [], faces: [], last: null, known: { facts: {} } },
  ...more,
});
const next = { at: 'bench', id: 'seat', title: 'Seat', why: '', round: null } as const;
const begun = [{ check: 'seat', title: 'Seat', round: 'r', readings: 2 }];
const last = { text: 'x', by: 'HB', at: '2026-03-01T08:00:00.000Z' };

describe('a machine on the board', () => {
  it('waits for whoever left it half way, is due, in work, to be checked, or done', () => {
    expect(standingOf(plate({ begun, last }), 'HB')).toBe('mine');
    expect(standingOf(plate({ begun, last }), 'SD')).toBe('work');
    expect(standingOf(plate({ begun, last }), '')).toBe('work');
    expect(standingOf(plate({ next: { ...next, round: 'r' }, last }), 'HB')).toBe('mine');
    expect(standingOf(plate({ next, last }), 'HB')).toBe('open');
    expect(standingOf(plate({ next, due: [{ title: 'Seat', days: 3 }] }), 'HB')).toBe('due');
    expect(standingOf(plate({ faces: [{ id: 'f', name: 'Flat', left: 3 }] }), 'HB')).toBe('work');
    expect(standingOf(plate({ faces: [{ id: 'f', name: 'Flat', left: 0 }] }), 'HB')).toBe('done');
    expect(standingOf(plate(), 'HB')).toBe('done');
    expect(standingOf(undefined, 'HB')).toBe('open');
  });

  it('stands with others like it where they are many, each with its place on the board; few stand together', () => {
    const machines = Array.from({ length: 12 }, (_, i) => ({ id: `m${i}` }) as Machine);
    const groups = boardGroups(machines, ({ id }) => (id === 'm7' ? 'mine' : id === 'm3' ? 'due' : 'done'));
    expect(groups.map(({ name, rows }) => [name, rows.length])).toEqual([
      ['Waiting for you', 1],
      ['Due for a new check', 1],
      ['Done', 10],
    ]);
    expect(groups.flatMap(({ rows }) => rows.map(({ place }) => place))).toEqual(Array.from({ length: 12 }, (_, i) => i));
    expect(groups[0].rows[0].machine.id).toBe('m7');
    expect(boardGroups(machines.slice(0, 9), () => 'done').map(({ name }) => name)).toEqual(['']);
  });
});

describe('the board of many machines', () => {
  const many = Array.from({ length: 20 }, (_, i): Machine => {
    const one = lathe();
    return {
      ...one,
      id: crypto.randomUUID(),
      card: { ...one.card, number: `L-${String(i).padStart(2, '0')}`, nickname: i === 14 ? 'Müller’s' : `no ${i}` },
    };
  });
  async function open(inputs: Record<string, string> = {}) {
    const { server } = await openShop();
    server.machines = many;
    return show(MachineList, inputs);
  }

  it('is asked for a part of a name, and says when none is like that', async () => {
    const list = await open({ name: 'muller' });
    expect(list.all('.plate b').map((plate) => plate.textContent)).toEqual(['L-14']);
    list.fixture.componentRef.setInput('name', 'unicorn');
    await list.fixture.whenStable();
    expect(list.text()).toContain('No machine is like that.');
  });

  it('puts what is asked for into the address', async () => {
    const list = await open();
    expect(list.all('.plate').length).toBe(20);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await list.choose(/^To be checked 20/);
    const field = list.all('.which input[aria-label="Number or name"]')[0] as HTMLInputElement;
    field.value = '14';
    field.dispatchEvent(new Event('input'));
    expect(navigate.calls.allArgs().map(([, extras]) => extras?.queryParams)).toEqual([{ show: 'open' }, { name: '14' }]);
  });

  it('of a few machines asks nothing', async () => {
    const { server } = await openShop();
    server.machines = many.slice(0, 6);
    const list = await show(MachineList, { name: 'unicorn' });
    expect(list.all('.which').length).toBe(0);
    expect(list.all('.plate').length).toBe(6);
  });
});
