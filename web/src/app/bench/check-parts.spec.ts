import { CHECKS, type CheckDefinition } from '@isometra/core';
import { openShop, show } from '../testing/fake-shop';
import { CheckParts, anotherLook, partFaults, settledParts, type PartsDraft } from './check-parts';

const traverse = CHECKS.get('tailstock-traverse') as CheckDefinition;
const draft = (setup: PartsDraft['setup'], conditions: PartsDraft['conditions'] = {}): PartsDraft => ({ setup, conditions, plan: {} });

describe('the parts a check asks for', () => {
  it('have the shown unit written behind bare numbers, whatever unit is shown later', () => {
    expect(settledParts(traverse, draft({ centreDistance: '16' }, { place: '24' }), 'inch')).toEqual(
      draft({ centreDistance: '16 in' }, { place: '24 in' }),
    );
    expect(settledParts(traverse, draft({ centreDistance: '16 in' }), 'mm').setup).toEqual({ centreDistance: '16 in' });
  });

  it('tell what is wrong by part, and how many fields that is', () => {
    const faults = partFaults(traverse, draft({}, { place: 'there' }), 'mm');
    expect(faults.setup.map(({ path }) => path)).toEqual(['centreDistance']);
    expect(faults.conditions.map(({ path }) => path)).toEqual(['place']);
    expect(anotherLook(faults)).toBe('2 fields need another look.');
    expect(anotherLook({ ...faults, conditions: [] })).toBe('One field needs another look.');
    expect(anotherLook(partFaults(traverse, draft({ centreDistance: '400 mm' }), 'mm'))).toBe('');
  });

  it('are only those with something to ask, each change told with its part', async () => {
    await openShop();
    const inputs = (id: string) => {
      const check = CHECKS.get(id) as CheckDefinition;
      return { check, draft: draft({}), faults: partFaults(check, draft({}), 'mm') };
    };
    const twist = await show(CheckParts, inputs('bed-twist'));
    expect(twist.all('h2').map((head) => head.textContent)).toEqual(['Set up', 'Where to read']);
    const bar = await show(CheckParts, inputs('tailstock-traverse'));
    expect(bar.all('h2').map((head) => head.textContent)).toEqual(['Set up', 'Conditions', 'Where to read']);
    const told: Partial<PartsDraft>[] = [];
    bar.fixture.componentInstance.changed.subscribe((part) => told.push(part));
    await bar.type('Place along the bed', '600 mm');
    expect(told.at(-1)).toEqual({ conditions: { place: '600 mm' } });
    // Faults are shown where a field was left, or everywhere once it was tried.
    expect(bar.all('[role=alert]').length).toBe(0);
    bar.fixture.componentRef.setInput('tried', true);
    await bar.fixture.whenStable();
    expect(bar.text()).toContain('Distance between centres is missing');
  });
});
