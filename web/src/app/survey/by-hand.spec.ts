import { TestBed } from '@angular/core/testing';
import { openShop, show, until, type Shown, SURVEY, LATHE, type TestRound } from '../testing/fake-shop';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { Ladder } from '../machine/ladder';
import { MachineStore } from '../machine/machine-store';
import { ByHandStep } from './by-hand';

describe('a step by hand', () => {
  const open = async (stepId: string, rounds: TestRound[] = []) => {
    const shop = await openShop(rounds);
    return { ...shop, page: await show(ByHandStep, { stepId }) };
  };
  const tickAll = async (page: Shown<ByHandStep>) => {
    for (const box of page.all('.point input')) box.click();
    await page.fixture.whenStable();
  };
  const note = async (page: Shown<ByHandStep>, text: string) => {
    const field = page.element.querySelector<HTMLInputElement>('iso-field input') as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
  };

  it('is asked for point by point, or for a word why one was left', async () => {
    const { page, server } = await open('clean');
    expect(page.text()).toContain('Isolate and lock out the machine');
    await page.press('It is done');
    expect(page.text()).toContain('6 points are not ticked');
    expect(server.sent).toEqual([]);
    await note(page, 'chuck left on');
    await page.press('It is done');
    await until(() => server.sent.length === 1);
    const [{ body }] = server.sent;
    expect([body.kind, body.by, body.content]).toEqual(['by-hand', 'HB', { step: 'clean', note: 'chuck left on' }]);
    expect(page.text()).toContain('HB: chuck left on');
  });

  it('a proof cut is judged from its sizes, both ways round, and cannot be ticked off', async () => {
    const { page, server } = await open('proof-cut');
    await tickAll(page);
    await page.press('It is done');
    expect(page.text()).toContain('First cut, head end: is missing. Measure the pad and give its diameter.');
    await page.type('First cut, head end', '40');
    await page.type('First cut, tail end', '40.020');
    await page.type('Bar turned end for end, head end', '39.9');
    await page.type('Bar turned end for end, tail end', '3.912');
    expect(page.text()).not.toContain('The machine cuts');
    await page.press('It is done');
    expect(page.text()).toContain('the two pads differ by more than a millimetre');
    await page.type('Bar turned end for end, tail end', '39.912');
    expect(page.text()).toContain('In. The machine cuts 0.016 mm bigger at its tail end, both ways round (± 0.003 mm on diameter).');
    expect(page.text()).toContain('0.004 mm more goes with the bar');
    await page.press('It is done');
    await until(() => server.sent.length === 1);
    const { content } = server.sent[0].body;
    expect(content.sizes).toEqual({ first: { head: 40, tail: 40.02 }, turned: { head: 39.9, tail: 39.912 } });
    await until(() => page.text().includes('HB: In. The machine cuts'));
    expect(TestBed.inject(MachineStore).byHand().at(-1)?.state).toBe('in');
  });

  it('a proof cut that is out says what to do, in inches too', async () => {
    const { page } = await open('proof-cut');
    TestBed.inject(Settings).system.set('inch');
    for (const [field, size] of [
      ['First cut, head end', '1.5740'],
      ['First cut, tail end', '1.5758'],
      ['Bar turned end for end, head end', '1.5700'],
      ['Bar turned end for end, tail end', '1.5718'],
    ])
      await page.type(field, size);
    expect(page.text()).toContain('Out. The machine cuts 1.8 thou bigger at its tail end');
    expect(page.text()).toContain('Read the tailstock again and move it before the next cut.');
  });

  it('what was typed and ticked outlives a reload', async () => {
    const { page, server } = await open('clean');
    await tickAll(page);
    await note(page, 'a crack at the rear foot');
    page.fixture.destroy();
    const again = await show(ByHandStep, { stepId: 'clean' });
    expect((again.element.querySelector('iso-field input') as HTMLInputElement).value).toBe('a crack at the rear foot');
    await again.press('It is done');
    await until(() => server.sent.length === 1);
    await again.fixture.whenStable();
    expect((again.element.querySelector('iso-field input') as HTMLInputElement).value).toBe('');
  });

  it('cleaning is the first thing on the ladder, the proof cut the last', async () => {
    await openShop();
    const ladder = await show(Ladder);
    const rungs = () => ladder.all('li').map((rung) => rung.querySelector('.name')?.textContent);
    expect(rungs()[0]).toBe('Clean and inspect');
    expect(rungs().at(-1)).toBe('Proof cut');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Clean and inspect']);
    TestBed.inject(Settings).who.set('AB');
    TestBed.inject(Surveys).note({ id: SURVEY, machineId: LATHE }, { kind: 'by-hand', content: { step: 'clean', note: null } });
    await ladder.fixture.whenStable();
    expect(ladder.all('li')[0].textContent).toContain('done, AB');
    expect(ladder.all('li.next').map((rung) => rung.querySelector('.name')?.textContent)).toEqual(['Stiffness']);
  });

  it('an unknown step is said to be none', async () => {
    const { page } = await open('oil');
    expect(page.text()).toContain('There is no such step');
  });
});
