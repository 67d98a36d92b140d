import { CHECKS, instrumentSchema, type CheckDefinition } from '@isometra/core';
import { machineCardSchema } from '@isometra/contract';
import { bareUnit } from '@isometra/core';
import { alike, fieldsOf, formFaults, shownFields, settled, withField, withUnit } from './form-model';

const traverse = CHECKS.get('tailstock-traverse') as CheckDefinition;

describe('a form drawn from a schema', () => {
  it('has a field for each labelled part, groups with their own', () => {
    const fields = fieldsOf(traverse.setup);
    expect(fields.map((field) => field.key)).toContain('centreDistance');
    expect(fields.find((field) => field.key === 'centreDistance')).toEqual(jasmine.objectContaining({ kind: 'text', required: true }));
    expect(fields.find((field) => field.key === 'side')?.kind).toBe('choice');
    const bar = fields.find((field) => field.key === 'bar');
    expect(bar?.kind).toBe('group');
    expect(bar?.children.map((field) => field.key)).toEqual(['diameter', 'bore', 'material', 'finish', 'diameters']);
    expect(fieldsOf(traverse.plan).find((field) => field.key === 'turned')?.kind).toBe('flag');
    expect(fieldsOf(instrumentSchema).map((field) => field.key)).not.toContain('sense');
  });

  it('every field of every check and card can be drawn', () => {
    const schemas = [...CHECKS.values()].flatMap((check) => [check.setup, check.plan, check.conditions]).concat(machineCardSchema as never);
    for (const schema of schemas) for (const field of fieldsOf(schema)) expect(field.info.label).withContext(field.key).toBeTruthy();
  });

  it('every unhidden part of a machine card is asked for', () => {
    expect(fieldsOf(machineCardSchema).map((field) => field.key)).toEqual(
      Object.keys(machineCardSchema.shape).filter((key) => key !== 'castings'),
    );
  });

  it('tells faults by path', () => {
    expect(formFaults(traverse.setup, { centreDistance: 'long', bar: { diameter: '-3 mm' } }, 'mm').map((fault) => fault.path)).toEqual([
      'centreDistance',
      'bar.diameter',
    ]);
    expect(formFaults(traverse.setup, { centreDistance: '420 mm' }, 'mm')).toEqual([]);
  });

  it('takes an emptied field or group out', () => {
    expect(withField({ a: '1', b: '2' }, 'a', '')).toEqual({ b: '2' });
    expect(withField({ a: { x: 1 } }, 'a', {})).toEqual({});
  });

  it('writes the shown unit behind a bare number, so that switching units changes nothing', () => {
    const length = fieldsOf(traverse.setup)[0].info;
    expect(bareUnit(length, 'inch')).toBe('in');
    expect(withUnit('16 1/2', length, 'inch')).toBe('16 1/2 in');
    expect(withUnit('420', length, 'mm')).toBe('420 mm');
    expect(withUnit('420 mm', length, 'inch')).toBe('420 mm');
    expect(withUnit('long', length, 'inch')).toBe('long');
    expect(settled(traverse.setup, { centreDistance: '16', side: 'rear', bar: { diameter: '1' } }, 'inch')).toEqual({
      centreDistance: '16 in',
      side: 'rear',
      bar: { diameter: '1 in' },
    });
  });

  it('a bare figure beside one in thou is thou too; beside none it waits for the unit shown', () => {
    const leaves = CHECKS.get('column-lean')?.reading as never;
    expect(alike(leaves, { go: '6 thou', noGo: '7', axis: 'x' })).toEqual({ go: '6 thou', noGo: '7 thou', axis: 'x' });
    expect(alike(leaves, { go: '6', noGo: '7' })).toEqual({ go: '6', noGo: '7' });
  });

  it('what is asked only with a flag is shown and missed only where the flag is set', () => {
    const plan = (CHECKS.get('column-lean') as CheckDefinition).plan;
    const shown = (value: object) => shownFields(fieldsOf(plan), value as never).map(({ key }) => key);
    expect(shown({})).not.toContain('overX');
    expect(shown({ turned: true })).toEqual(jasmine.arrayContaining(['overX', 'overY']));
    expect(formFaults(plan, {}, 'mm')).toEqual([]);
    expect(formFaults(plan, { turned: true }, 'mm').map(({ path }) => path)).toEqual(['overX', 'overY']);
  });
});
