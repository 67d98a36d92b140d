import { TestBed } from '@angular/core/testing';
import { Settings } from '../data/settings';
import { openShop, show } from '../testing/fake-shop';
import { Figure } from './figure';

describe('a measure in a line', () => {
  const open = async (inputs: Readonly<Record<string, unknown>> = {}) => {
    await openShop();
    const field = await show(Figure, { label: 'width', of: 'length', example: '20 mm', value: '', ...inputs });
    const given: string[] = [];
    field.fixture.componentInstance.typed.subscribe((text) => {
      given.push(text);
      field.fixture.componentRef.setInput('value', text);
    });
    const input = field.all('input')[0] as HTMLInputElement;
    const type = async (text: string, leave = true) => {
      input.value = text;
      input.dispatchEvent(new Event('input'));
      if (leave) input.dispatchEvent(new Event('blur'));
      await field.fixture.whenStable();
    };
    return { field, input, type, given, settings: TestBed.inject(Settings) };
  };

  it('gives a bare figure on with the unit beside it, and shows it with it when the hand has left', async () => {
    const { field, input, type, given } = await open();
    expect(field.text()).toBe('width mm');
    await type('25', false);
    expect([input.value, given.at(-1)]).toEqual(['25', '25 mm']);
    await type('25');
    expect([input.value, field.text()]).toEqual(['25 mm', 'width']);
  });

  it('reads inches on an inch screen, its example too; what was typed before keeps its meaning', async () => {
    const { input, type, given, settings, field } = await open();
    await type('25');
    settings.system.set('inch');
    await field.fixture.whenStable();
    expect(input.value).toBe('25 mm');
    await type('1.25');
    expect(given.at(-1)).toBe('1.25 in');
    await type('');
    expect(input.placeholder).toBe('e.g. 0.75 in');
  });

  it('asks back what is a thousand or 25.4 times off, gives on nothing that could be read meanwhile, and takes the answer', async () => {
    const { field, input, type, given } = await open();
    await type('0.75');
    expect(given.at(-1)).toBe('0.75 ?');
    expect(input.value).toBe('0.75');
    expect(field.text()).toContain('of what? 0.75 in 0.75 mm');
    await field.press('0.75 in');
    expect([given.at(-1), input.value]).toEqual(['0.75 in', '0.75 in']);
    expect(field.text()).not.toContain('of what?');
  });

  it('is engraved in mm and inches where the thing is', async () => {
    const { field, type, given } = await open({ of: 'deviation', example: '0.05 mm', read: { engraved: true, usual: [5, 5000] } });
    expect(field.text()).toBe('width mm');
    await type('0.05');
    expect(given.at(-1)).toBe('0.05 mm');
    await type('2');
    expect(given.at(-1)).toBe('2 mm');
    await type('50');
    expect(field.text()).toContain('50 µm');
  });
});
