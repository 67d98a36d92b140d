import type { Provider } from '@angular/core';
import type { MoveWrite, RegisterUse, RoundWrite } from '@isometra/contract';
import { lathe, openShop, practiceRound, type TestRound } from './fake-shop';

/** A bore swept at four places that found it so far off, µm, + toward the operator and up; the axes were homed. */
export function swept(check: string, h: number, v: number, more: Partial<RoundWrite> = {}): TestRound {
  const instrument = { kind: 'plunger', graduation: '1 um', sense: 1, holderSag: 0 };
  const readings = [-h, -v, h, v].map((um, i) => ({ angle: 90 * i, value: `${um} um` }));
  return practiceRound({ check, setup: { slant: '45' }, instrument, readings }, { conditions: { homed: 'yes' }, ...more });
}

/** A change sheet on which a value was entered an hour after a round. */
export function withValue(round: TestRound, value: number, part: Partial<RegisterUse> = {}): TestRound {
  const later = (minutes: number): string => new Date(Date.parse(round.at) + minutes * 60_000).toISOString();
  const total = 2 * (round.finding?.quantities['alongSlide']?.value ?? 0);
  const register: RegisterUse = {
    ...{ name: 'home A', axis: 'A', kind: 'reference', unit: 'mm', programming: 'radius', digits: 4, total },
    old: { value: 200, where: 'page 2', at: later(30), by: 'RM' },
    ...{ jog: { by: 0.005, before: total, after: total + 10 }, homings: 0, power: 0 },
    entered: { value, how: 'plus', at: later(60), by: 'RM' },
    ...part,
  };
  const move: MoveWrite = {
    ...{ id: crypto.randomUUID(), roundId: round.id, kind: 'stored-offset', quantity: 'alongSlide', amount: -total / 2, unit: 'um' },
    ...{
      direction: 'away from the operator',
      plan: {},
      ticks: [],
      shift: null,
      by: 'RM',
      begunAt: later(20),
      doneAt: later(70),
      version: 1,
    },
    made: { dial: null, preset: 0, tightened: null, rule: null, register },
  };
  return { ...round, moves: [move] };
}

/** The fake shop with a turning centre on a slant bed instead of its lathe. */
export const openTurning = (rounds: TestRound[], card: Readonly<Record<string, unknown>> = {}, providers: Provider[] = []) =>
  openShop(rounds, {
    providers,
    prepare: (server) => {
      const told = { number: 'T-06', kind: 'turning-centre', slide: { rises: 'rear', degrees: '45' }, homing: { times: '2', power: '1' } };
      server.machines = [{ ...lathe(), card: { ...told, ...card } as ReturnType<typeof lathe>['card'] }];
    },
  });
