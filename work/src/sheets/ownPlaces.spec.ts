import { CHECKS, type CheckDefinition, type Values } from '@isometra/core';
import { addPlace, dropPlace, movePlace } from './ownPlaces.js';

const check = CHECKS.get('tailstock-traverse') as CheckDefinition;
const setup = check.setup.parse({ centreDistance: '400 mm' }) as Values;
const plan = { stations: 2, planes: 'both' };
const slots = check.slots(setup, check.plan.parse(plan));
const far = slots.find(({ keys }) => keys['at'] === Math.max(...slots.map(({ keys: { at } }) => Number(at))));
const reading = (plane: string, at: number) => ({ id: `${plane}${at}`, keys: { plane, at } });

describe('a place of one’s own', () => {
  if (!far) throw new Error('no place to move');
  const from = Number(far.keys['at']);
  const near = Math.min(...slots.map(({ keys: { at } }) => Number(at)));

  it('is put into the plan for both planes, and what was read there was read at the new place', () => {
    const readings = [reading('h', near), reading('h', from), reading('v', from)];
    const moved = movePlace(check, { setup, plan, slots, readings }, far, 300);
    expect(moved).toEqual(jasmine.objectContaining({ ok: true, readings: [readings[1], readings[2]] }));
    const next = moved.ok ? check.slots(setup, check.plan.parse(moved.plan)) : [];
    expect(new Set(next.map(({ keys }) => keys['at']))).toEqual(new Set([near, 300]));
    expect(next.length).toBe(slots.length);
  });

  it('is refused where there is one already, where it is no length, and where it is part of the method', () => {
    const about = { setup, plan, slots, readings: [] };
    expect(movePlace(check, about, far, near)).toEqual({ ok: false, message: `There is a place at ${near} mm already` });
    expect(movePlace(check, about, far, NaN)).toEqual(jasmine.objectContaining({ ok: false }));
    expect(movePlace(check, about, { ...far, movable: undefined }, 300)).toEqual(
      jasmine.objectContaining({ message: 'This place cannot be moved: it is part of the method' }),
    );
    expect(movePlace(check, about, far, from)).toEqual({ ok: true, plan, readings: [] });
  });

  it('works for every check that has places: there is one slot less for none, and none is lost', () => {
    for (const one of CHECKS.values()) {
      const parsed = one.setup.safeParse({});
      if (!parsed.success) continue;
      const all = one.slots(parsed.data as Values, one.plan.parse({}));
      const movable = all.find((slot) => slot.movable && typeof slot.keys['at'] === 'number');
      if (!movable) continue;
      const places = all.map(({ keys }) => Number(keys['at']));
      const to = Number(movable.keys['at']) + 1.5 * (places.includes(Number(movable.keys['at']) + 1.5) ? -1 : 1);
      const moved = movePlace(one, { setup: parsed.data as Values, plan: {}, slots: all, readings: [] }, movable, to);
      if (moved.ok)
        expect(one.slots(parsed.data as Values, one.plan.parse(moved.plan)).length)
          .withContext(one.id)
          .toBe(all.length);
      else
        expect(moved.message)
          .withContext(one.id)
          .toMatch(/can be read|The place/);
    }
  });

  it('is one more, half-way to the next, and may be taken out again with what was read there', () => {
    const readings = [reading('h', near), reading('h', from), reading('v', from)];
    const nearest = slots.find(({ keys }) => keys['at'] === near) ?? far;
    const added = addPlace(check, { setup, plan, slots, readings }, nearest);
    const next = added.ok ? check.slots(setup, check.plan.parse(added.plan)) : [];
    expect([...new Set(next.map(({ keys }) => keys['at']))]).toEqual([near, (near + from) / 2, from]);
    const middle = next.find(({ keys }) => keys['at'] === (near + from) / 2) ?? far;
    const there = [...readings, { id: 'm', keys: { plane: 'h', at: (near + from) / 2, side: 'note' } }];
    const dropped = dropPlace(check, { setup, plan: added.ok ? added.plan : {}, slots: next, readings: there }, middle);
    expect(dropped).toEqual(jasmine.objectContaining({ ok: true, readings: [there[3]] }));
    expect(dropPlace(check, { setup, plan, slots, readings }, far)).toEqual(
      jasmine.objectContaining({ message: 'So few places say nothing: put this one elsewhere instead' }),
    );
  });
});
