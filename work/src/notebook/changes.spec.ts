import fc from 'fast-check';
import { machineCardSchema } from '@isometra/contract';
import { changesOf } from './changes.js';

const card = (more: object) => ({ number: 'M-11', kind: 'column-mill', ...more });

describe('what was changed on a card', () => {
  it('is told field by field in the words of the form', () => {
    const before = card({ foot: { across: '180 mm', along: '240 mm' }, notes: 'small' });
    const after = card({ foot: { across: '175 mm', along: '240 mm', dowels: true }, kind: 'knee-mill' });
    expect(changesOf(machineCardSchema, before, after)).toEqual([
      { field: 'Kind', from: 'column mill', to: 'knee mill' },
      { field: 'Column foot: Foot, left to right', from: '180 mm', to: '175 mm' },
      { field: 'Column foot: Dowelled to the base', from: null, to: 'yes' },
      { field: 'Notes', from: 'small', to: null },
    ]);
  });

  it('a row that is taken out of a list is one row taken out, whatever stands after it', () => {
    const rows = [
      { slide: 'knee', taper: '50', pitch: '1.5 mm' },
      { slide: 'saddle', taper: '60', pitch: '1.5 mm' },
      { slide: 'table', straight: true, screws: '4', pitch: '1 mm' },
    ];
    expect(changesOf(machineCardSchema, card({ gibs: rows }), card({ gibs: rows.slice(1) }))).toEqual([
      { field: 'Gibs', from: 'knee, 50, 1.5 mm', to: null },
    ]);
    expect(changesOf(machineCardSchema, card({ gibs: rows }), card({ gibs: [rows[0], { ...rows[1], taper: '62' }, rows[2]] }))).toEqual([
      { field: 'Gibs: Taper 1:', from: '60', to: '62' },
    ]);
    expect(changesOf(machineCardSchema, card({}), card({ gibs: [rows[2]] }))).toEqual([
      { field: 'Gibs', from: null, to: 'table, yes, 4, 1 mm' },
    ]);
  });

  it('is whole, however long, and nothing where nothing changed', () => {
    const notes = 'x'.repeat(1900);
    expect(changesOf(machineCardSchema, card({}), card({ notes }))).toEqual([{ field: 'Notes', from: null, to: notes }]);
    expect(changesOf(machineCardSchema, card({ foot: { across: '1', along: '2' } }), card({ foot: { along: '2', across: '1' } }))).toEqual(
      [],
    );
  });

  it('turned round, from and to change places: nothing is told twice and nothing is left out', () => {
    const value = fc.option(fc.constantFrom('180 mm', '2', 'true'), { nil: undefined });
    const gib = fc.record({ slide: fc.constantFrom('knee', 'saddle', 'table'), taper: value });
    const any = fc.record({ swing: value, gibs: fc.uniqueArray(gib, { maxLength: 3, selector: ({ slide }) => slide }) });
    fc.assert(
      fc.property(any, any, (one, other) => {
        const [there, back] = [changesOf(machineCardSchema, one, other), changesOf(machineCardSchema, other, one)];
        const told = (changes: typeof there, turned: boolean) =>
          changes.map(({ field, from, to }) => JSON.stringify(turned ? [field, to, from] : [field, from, to])).sort();
        expect(told(back, true)).toEqual(told(there, false));
      }),
    );
  });
});
