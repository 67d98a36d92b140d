import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import * as z from 'zod';
import { CHECKS, fieldRegistry, instrumentSchema, measure, type CheckDefinition } from '@isometra/core';
import { Settings } from '../data/settings';
import { openShop, show, until } from '../testing/fake-shop';
import { formFaults, settled, type FormValue } from './form-model';
import { SchemaForm } from './schema-form';

const { setup } = CHECKS.get('tailstock-traverse') as CheckDefinition;

@Component({
  selector: 'iso-test-host',
  imports: [SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<iso-schema-form [schema]="schema" [value]="value()" [faults]="faults()" (changed)="take($event)" />`,
})
class Host {
  readonly schema = setup;
  readonly value = signal<FormValue>({});
  readonly faults = () => formFaults(setup, this.value(), 'mm');
  take(value: FormValue): void {
    this.value.set(value);
  }
}

describe('a schema form', () => {
  async function open(value: FormValue = {}) {
    const fixture = TestBed.createComponent(Host);
    fixture.componentInstance.value.set(value);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const field = (label: string) => {
      const found = [...element.querySelectorAll('label')].find((entry) => entry.textContent?.trim() === label);
      return element.querySelector<HTMLInputElement>(`#${found?.getAttribute('for')}`) as HTMLInputElement;
    };
    const type = async (label: string, text: string) => {
      const input = field(label);
      input.value = text;
      input.dispatchEvent(new Event('input'));
      input.dispatchEvent(new Event('blur'));
      await fixture.whenStable();
    };
    return { host: fixture.componentInstance, element, field, type };
  }

  beforeEach(() => {
    localStorage.clear();
    TestBed.inject(Settings).system.set('mm');
  });

  it('shows a fault only once the field was left, beside it, with an example', async () => {
    const { element, field, type } = await open();
    expect(element.querySelector('[role=alert]')).toBeNull();
    await type('Distance between centres', 'far');
    expect(field('Distance between centres').getAttribute('aria-invalid')).toBe('true');
    expect(element.querySelector('[role=alert]')?.textContent).toContain('Example: 420 mm');
    await type('Distance between centres', '420');
    expect(element.querySelector('[role=alert]')).toBeNull();
    expect(field('Distance between centres').value).toBe('420 mm');
  });

  it('a bare number is in the unit that is shown', async () => {
    TestBed.inject(Settings).system.set('inch');
    const { host, type, element } = await open();
    expect(element.querySelector('.unit')?.textContent).toBe('in');
    await type('Distance between centres', '16 1/2');
    expect(host.value()).toEqual({ centreDistance: '16 1/2 in' });
  });

  it('a division is engraved in mm; what cannot be one is asked back beside the field, and nothing goes on before it is told', async () => {
    const division = z.object({ graduation: instrumentSchema.shape.graduation });
    const form = await show(SchemaForm, { schema: division, value: {}, showAll: false });
    const given: FormValue[] = [];
    form.fixture.componentInstance.changed.subscribe((value) => {
      given.push(value);
      form.fixture.componentRef.setInput('value', value);
      form.fixture.componentRef.setInput('faults', formFaults(division, value, 'mm'));
    });
    const input = form.all('input')[0] as HTMLInputElement;
    expect(input.placeholder).toBe('e.g. 0.002 mm');
    const type = async (text: string) => {
      input.value = text;
      input.dispatchEvent(new Event('input'));
      input.dispatchEvent(new Event('blur'));
      await form.fixture.whenStable();
    };
    await type('0.01');
    expect(given.at(-1)).toEqual({ graduation: '0.01 mm' });
    await type('2');
    expect(given.at(-1)).toEqual({ graduation: '2' });
    expect(form.text()).toContain('One division: 2 of what?');
    expect(formFaults(division, { graduation: '2' }, 'mm').map(({ message }) => message)).toEqual([
      'of 2: 2 µm, 2 thou or 2 mm? Write the unit',
    ]);
    await form.press('2 µm');
    expect(given.at(-1)).toEqual({ graduation: '2 µm' });
    expect(form.text()).not.toContain('of what?');
  });

  it('a stored number keeps its own unit when inches are shown', async () => {
    TestBed.inject(Settings).system.set('inch');
    const { field } = await open({ centreDistance: 620 });
    expect(field('Distance between centres').value).toBe('620 mm');
  });

  it('choices of a few are all in sight; none is shown as made that nobody made, and one that was made can be taken back', async () => {
    const { element, host } = await open();
    const options = [...element.querySelectorAll<HTMLInputElement>('input[type=radio]')];
    expect(options.some(({ checked }) => checked)).toBeFalse();
    options[1].dispatchEvent(new Event('change'));
    expect(host.value()).toEqual({ side: 'rear' });
    await until(() => element.textContent?.includes('not said') ?? false);
    [...element.querySelectorAll('button')].find((button) => button.textContent?.trim() === 'not said')?.click();
    expect(host.value()).toEqual({});
  });

  it('groups write into their own part', async () => {
    const { host, type } = await open();
    await type('Bar diameter', '25');
    expect(host.value()).toEqual({ bar: { diameter: '25 mm' } });
    await type('Bar diameter', '');
    expect(host.value()).toEqual({});
  });
});

describe('rows of a list', () => {
  const bar = spindleAxisSetup();
  it('are added, filled in, named when wrong, and taken out', async () => {
    await openShop();
    const form = await show(SchemaForm, {
      schema: bar,
      value: { diameters: [{ at: '20 mm', diameter: 'thick' }] },
      faults: formFaults(bar, { diameters: [{ at: '20 mm', diameter: 'thick' }] }, 'mm'),
      showAll: true,
    });
    const changes: FormValue[] = [];
    form.fixture.componentInstance.changed.subscribe((value) => changes.push(value));
    expect(form.text()).toContain('Diameter "thick" is not a length');
    await form.press('Add a row');
    const answer = async () => {
      form.fixture.componentRef.setInput('value', changes.at(-1));
      await form.fixture.whenStable();
    };
    expect(changes.at(-1)).toEqual({ diameters: [{ at: '20 mm', diameter: 'thick' }, {}] });
    await answer();
    await form.type('Diameter', '25.002');
    await answer();
    expect(changes.at(-1)).toEqual({ diameters: [{ at: '20 mm', diameter: '25.002 mm' }, {}] });
    await form.press('Take out row 2 of Diameters');
    await answer();
    await form.press('Take out row 1 of Diameters');
    expect(changes.at(-1)).toEqual({});
  });

  it('are written out with their units', () => {
    expect(settled(bar, { diameters: [{ at: '20', diameter: '25' }] }, 'mm')).toEqual({ diameters: [{ at: '20 mm', diameter: '25 mm' }] });
  });
});

describe('changes that come quickly', () => {
  it('build on each other before the owner of the value has answered', async () => {
    await openShop();
    const row = z.strictObject({
      one: measure('length', { label: 'One', example: '1 mm' }),
      two: measure('length', { label: 'Two', example: '2 mm' }),
    });
    const form = await show(SchemaForm, { schema: row, value: {} });
    const changes: FormValue[] = [];
    form.fixture.componentInstance.changed.subscribe((value) => changes.push(value));
    const [one, two] = form.all('input') as HTMLInputElement[];
    for (const [field, text] of [
      [one, '1 mm'],
      [two, '2 mm'],
    ] as const) {
      field.value = text;
      field.dispatchEvent(new Event('input'));
    }
    expect(changes.at(-1)).toEqual({ one: '1 mm', two: '2 mm' });
  });
});

/** A list of diameters as a set-up has it. */
function spindleAxisSetup() {
  const row = z.strictObject({
    at: measure('length', { label: 'At', example: '20 mm' }),
    diameter: measure('length', { label: 'Diameter', above: 0, example: '25 mm' }),
  });
  return z.strictObject({ diameters: z.array(row).optional().register(fieldRegistry, { label: 'Diameters' }) });
}
