import { By } from '@angular/platform-browser';
import { readInstrument } from '@isometra/core';
import type { RegisterUse } from '@isometra/contract';
import { openShop, show } from '../testing/fake-shop';
import { RegisterLock } from './register-lock';
import { OffsetChange } from './offset-change';
import { recheckWords } from './register-words';

const INSTRUMENT = readInstrument({ kind: 'plunger', graduation: '1 um', sense: 1 }).instrument;
const WORK = { name: 'work shift X', axis: 'X', kind: 'added', unit: 'mm', programming: 'diameter', digits: 3 } as const;

describe('the change sheet of a register', () => {
  const open = async (inputs: Record<string, unknown> = {}) => {
    await openShop([]);
    const sheet = await show(OffsetChange, { total: 48, homed: true, instrument: INSTRUMENT, registers: [WORK], by: 'RM', ...inputs });
    const sent: RegisterUse[] = [];
    sheet.fixture.componentInstance.changed.subscribe((use) => {
      sent.push(use);
      sheet.fixture.componentRef.setInput('kept', use);
    });
    const lock = async (text = '305.525') => {
      await sheet.type('Old value', text);
      await sheet.press('Lock it');
      await sheet.fixture.whenStable();
    };
    const jog = async (by: string, before: string, after: string, end = 'on your end of the slide') => {
      await sheet.type('Jogged by', by);
      await sheet.type('Needle before the jog', before);
      await sheet.type('Needle after the jog', after);
      await sheet.choose(end);
      await sheet.press('Keep the jog');
      await sheet.fixture.whenStable();
    };
    const goOn = async (shows: string) => {
      await sheet.type('What it shows now', shows);
      await sheet.press('Continue');
      await sheet.fixture.whenStable();
    };
    return { sheet, sent, lock, jog, goOn };
  };

  it('shows nothing to enter before the old value is locked, and never changes that again', async () => {
    const { sheet, sent, lock } = await open();
    expect(sheet.all('.values').length).toBe(0);
    await lock('three hundred');
    expect(sheet.text()).toContain('"three hundred" is no value of this register. Example: 305.525');
    await lock();
    expect(sent[0].old?.value).toBe(305.525);
    // Half of 48 µm is 24 µm; a register that counts a diameter changes by 0.048.
    expect(sheet.text()).toContain('305.573 mm');
    expect(sheet.text()).toContain('305.477 mm');
    expect(sheet.text()).toContain('If it was the wrong one, the next check reads 96.0 µm between the two.');
    await sheet.press('Entered: 305.573 mm');
    await sheet.fixture.whenStable();
    expect(sent.at(-1)?.entered?.value).toBe(305.573);
    expect(sent.at(-1)?.old?.value).toBe(305.525);
    expect(sheet.text()).toContain('The way back is always 305.525 mm.');
    await sheet.press('back to 305.525 mm');
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.525, how: 'back' }));
    expect(sent.at(-1)?.earlier?.map(({ value }) => value))
      .withContext('what stood in the control before is not forgotten')
      .toEqual([305.573]);
  });

  it('a mistyped old value is read off once more, as long as nothing was entered; what was said of the register stays', async () => {
    const { sheet, sent, lock } = await open();
    await lock('350.525');
    await sheet.press('Correct the old value');
    await sheet.fixture.whenStable();
    expect(sent.at(-1)?.old).toBeNull();
    expect(sheet.all('.values').length).withContext('nothing is shown before it is locked again').toBe(0);
    await lock();
    expect(sent.at(-1)).toEqual(jasmine.objectContaining({ name: 'work shift X', programming: 'diameter', digits: 3 }));
    expect(sent.at(-1)?.old?.value).toBe(305.525);
    await sheet.press('Entered: 305.573 mm');
    await sheet.fixture.whenStable();
    expect(sheet.text()).not.toContain('Correct the old value');
  });

  it('follows its round until a value is recorded; a round that was corrected later sends the value back', async () => {
    const { sheet, sent, lock } = await open();
    await lock();
    sheet.fixture.componentRef.setInput('total', -30);
    await sheet.fixture.whenStable();
    expect(sheet.text()).toContain('the two readings differ by 30.0 µm');
    expect(sheet.text()).toContain('305.495 mm');
    expect(sheet.text()).not.toContain('305.573 mm');
    await sheet.press('Entered: 305.495 mm');
    await sheet.fixture.whenStable();
    expect(sent.at(-1)?.total).toBe(-30);
    expect(sheet.text()).not.toContain('has been corrected');
    sheet.fixture.componentRef.setInput('total', -50);
    await sheet.fixture.whenStable();
    expect(sheet.text()).toContain('it read 30.0 µm, now 50.0 µm. Go back to 305.525 mm, home, and sweep again.');
  });

  it('a value that was not entered into the control is taken off again, until it was homed', async () => {
    const { sheet, sent, lock } = await open({ registers: [{ ...WORK, kind: 'reference' }] });
    await lock();
    await sheet.press('Entered: 305.477 mm');
    await sheet.fixture.whenStable();
    await sheet.press('I did not enter 305.477 mm');
    await sheet.fixture.whenStable();
    expect([sent.at(-1)?.entered, sent.at(-1)?.earlier]).toEqual([null, undefined]);
    await sheet.press('Entered: 305.573 mm');
    await sheet.fixture.whenStable();
    await sheet.press('Homed (0 of 1)');
    await sheet.fixture.whenStable();
    expect(sheet.text()).not.toContain('I did not enter');
  });

  it('what the control adds is homed for nothing; a change that a round called right is closed, and going back asks first and can be undone', async () => {
    const { sheet, sent, lock } = await open({ homing: { times: 2, power: 1 } });
    await lock();
    await sheet.press('Entered: 305.573 mm');
    await sheet.fixture.whenStable();
    expect(sheet.text()).not.toContain('Homed (');
    expect(sheet.text()).not.toContain('Not taken up yet');
    sheet.fixture.componentRef.setInput('recheck', { meaning: 'right', ratio: 0, next: null });
    await sheet.fixture.whenStable();
    expect(sheet.text()).toContain('This change is closed: 305.573 mm is right.');
    const before = sent.length;
    await sheet.press('back to 305.525 mm');
    expect(sent.length).toBe(before);
    expect(sheet.text()).toContain('Going back puts the error in again.');
    await sheet.press('back to 305.525 mm');
    await sheet.fixture.whenStable();
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.525, how: 'back' }));
    sheet.fixture.componentRef.setInput('recheck', null);
    await sheet.fixture.whenStable();
    await sheet.press('Entered again: 305.573 mm');
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.573, how: 'next' }));
    expect(sent.at(-1)?.old?.value).toBe(305.525);
  });

  it('of several registers none is chosen by itself', async () => {
    const home = { ...WORK, name: 'home A', axis: 'A', kind: 'reference', programming: 'radius', digits: 4 };
    const { sheet, sent, lock } = await open({ registers: [WORK, home] });
    await lock();
    expect(sheet.text()).toContain('Register: say which one it is');
    expect(sent).toEqual([]);
    await sheet.choose('home A');
    await lock('200');
    expect([sent[0].name, sent[0].axis, sent[0].digits]).toEqual(['home A', 'A', 4]);
  });

  it('the register that was used for this before is chosen', async () => {
    const { sent, lock } = await open({ registers: [WORK, { ...WORK, name: 'station 3' }], usual: 'station 3' });
    await lock('200');
    expect(sent[0].name).toBe('station 3');
  });

  it('keeps a photograph of the old value with it', async () => {
    const { sheet, sent, lock } = await open();
    const canvas = new OffscreenCanvas(40, 30);
    canvas.getContext('2d')?.fillRect(0, 0, 20, 30);
    const photo = await canvas.convertToBlob();
    const { componentInstance } = sheet.fixture.debugElement.query(By.directive(RegisterLock)) as { componentInstance: unknown };
    const { keepPhoto } = componentInstance as { keepPhoto(file: Blob): Promise<void> };
    await keepPhoto.call(componentInstance, new Blob(['words']));
    sheet.fixture.detectChanges();
    expect(sheet.text()).toContain('This file is not a picture that can be shown');
    await keepPhoto.call(componentInstance, photo);
    await lock();
    expect(sent[0].old?.photo).toMatch(/^[0-9a-f]{64}$/);
    expect(sheet.all('img').length).toBe(1);
  });

  it('a round read before homing feeds no register', async () => {
    const { sheet } = await open({ homed: false, homing: { times: 2, power: 1 } });
    expect(sheet.text()).toContain('so no register can be set from it. Home it 2 times, and sweep again.');
    expect(sheet.all('input').length).toBe(0);
  });

  it('the jog marks one change sheet; at the rear end the same needle marks the other', async () => {
    const chosen = async (end: string) => {
      const { sheet, lock, jog } = await open();
      await lock();
      await jog('0.02', '0', '10', end);
      expect(sheet.text()).toContain('The display counts a diameter, in mm.');
      return sheet.all('.chosen b')[0]?.textContent;
    };
    // In a bore a needle that goes up on your end says that the centre went away from you: that cures + 24.
    expect(await chosen('on your end of the slide')).toBe('305.573 mm');
  });

  it('at the rear end the same needle marks the other', async () => {
    const { sheet, lock, jog } = await open();
    await lock();
    await jog('0.02', '0', '10', 'on its rear end');
    expect(sheet.all('.chosen b')[0]?.textContent).toBe('305.477 mm');
  });

  it('a needle that did not move, or that goes with no jog, chooses nothing', async () => {
    const { sheet, lock, jog } = await open();
    await lock();
    await jog('0.02', '3', '3');
    expect(sheet.text()).toContain('is it pegged? Nudge it both ways');
    await jog('0.02', '0', '1');
    expect(sheet.text()).toContain('neither as a radius nor as a diameter');
    expect(sheet.all('.chosen').length).toBe(0);
  });

  it('more than half a millimetre is asked about before it is kept', async () => {
    const { sheet, sent, lock } = await open({ total: 1400 });
    await lock();
    await sheet.press('Entered: 306.925 mm');
    expect(sheet.text()).toContain('a change of more than 0.5 mm');
    expect(sent.at(-1)?.entered).toBeNull();
    await sheet.tick(/I have made sure/);
    await sheet.press('Entered: 306.925 mm');
    expect(sent.at(-1)?.entered?.value).toBe(306.925);
  });

  it('what the control took is compared with the old value and the jog', async () => {
    const { sheet, sent, lock, jog } = await open();
    await lock();
    // The little jog that tells the sign is another one than the whole.
    await jog('0.02', '0', '10');
    await sheet.type('What it shows now', '305.573');
    await sheet.press('Keep that');
    expect(sheet.text()).toContain('Jogged until they agree: give what the display went by until the readings agreed');
    await sheet.type('Jogged until they agree, by', '0.048');
    await sheet.type('What it shows now', '305.625');
    await sheet.press('Keep that');
    expect(sheet.text()).toContain('305.625 mm is not the old value and the jog: that would be 305.573 mm.');
    expect(sent.at(-1)?.entered).toBeNull();
    await sheet.type('What it shows now', '305.573');
    await sheet.press('Keep that');
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.573, how: 'taken' }));
  });

  it('what the control took the other way than the little jog told is asked about', async () => {
    const { sheet, sent, lock, jog } = await open();
    await lock();
    await jog('0.02', '0', '10');
    expect(sheet.all('.values .chosen')[0].textContent).toContain('305.573');
    await sheet.type('Jogged until they agree, by', '-0.048');
    await sheet.type('What it shows now', '305.477');
    await sheet.press('Keep that');
    expect(sheet.text()).toContain('305.477 mm is not the old value and the jog');
    expect(sent.at(-1)?.entered).toBeNull();
  });

  it('a value with more digits than the register holds is not what stands there', async () => {
    const { sheet, sent, lock } = await open();
    await lock('305.5251');
    expect(sheet.text()).toContain('has more than the 3 digits after the point that this register holds. Example: 305.525');
    expect(sent).toEqual([]);
  });

  it('a display in inch beside a register in millimetres is told by the jog, and may be typed with its unit', async () => {
    const { sheet, sent, lock, jog } = await open();
    await lock();
    await jog('0.0004', '0', '10');
    expect(sheet.text()).toContain('The display counts a radius, in inch. The register counts a diameter, in mm: each has its own.');
    await jog('0.4 thou', '0', '10');
    expect(sheet.text()).toContain('The display counts a radius, in mm.');
    expect(sent.at(-1)?.jog?.by).toBeCloseTo(0.01016, 9);
  });

  it('a next value that is far off is asked about as well', async () => {
    const unsettled = {
      'work shift X': {
        old: { value: 305.525, where: '', at: '2026-11-01T08:00:00.000Z', by: 'RM' },
        total: 48,
        recheck: { meaning: 'inch-as-mm', ratio: 0.96, next: 306.744 },
      },
    };
    const { sheet, sent, goOn } = await open({ unsettled });
    await goOn('305.573');
    await sheet.fixture.whenStable();
    await sheet.press('Entered: 306.744 mm');
    expect(sheet.text()).toContain('a change of more than 0.5 mm');
    expect(sent.at(-1)?.entered).toBeNull();
    await sheet.tick(/I have made sure/);
    await sheet.press('Entered: 306.744 mm');
    expect(sent.at(-1)?.entered?.value).toBe(306.744);
  });

  it('where the last re-check asks for no value, it says why, and the way back is the one that is offered', async () => {
    const old = { value: 305.525, where: '', at: '2026-11-01T08:00:00.000Z', by: 'RM' };
    const recheck = { meaning: 'unclear', ratio: null, next: null, why: 'moved' };
    const { sheet, sent, goOn } = await open({ unsettled: { 'work shift X': { old, total: 48, recheck } } });
    await goOn('305.573');
    await sheet.fixture.whenStable();
    expect(sheet.text()).toContain('Something else was moved since the value was entered');
    expect(sheet.all('.values li').length).withContext('nothing is guessed').toBe(0);
    await sheet.press('back to 305.525 mm');
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.525, how: 'back' }));
  });

  it('what the control takes after a wrong value is counted from that, and the whole jog is kept where no little one was', async () => {
    const old = { value: 305.525, where: '', at: '2026-11-01T08:00:00.000Z', by: 'RM' };
    const unsettled = { 'work shift X': { old, total: 48, stands: 305.573, recheck: { meaning: 'wrong-sign', ratio: 2, next: 305.477 } } };
    const { sheet, sent, goOn } = await open({ total: 96, unsettled });
    await goOn('305.573');
    await sheet.fixture.whenStable();
    await sheet.type('Jogged until they agree, by', '-0.096');
    await sheet.type('What it shows now', '305.477');
    await sheet.press('Keep that');
    expect(sent.at(-1)?.entered).toEqual(jasmine.objectContaining({ value: 305.477, how: 'taken' }));
    expect(sent.at(-1)?.jog).toBeNull();
  });

  it('what it shows is held against what was entered last: another register is not typed over', async () => {
    const entered = { value: 305.573, how: 'plus', at: '2026-11-01T09:00:00.000Z', by: 'RM' };
    const left = { 'work shift X': { ...entered, unit: 'mm', digits: 3 } };
    const { sheet, sent, lock } = await open({ left });
    await lock('305.525');
    expect(sheet.text()).toContain(
      'Old value: it was left at 305.573 mm by RM, and is said to show 305.525 mm. Look whether it is the right',
    );
    expect(sent.length).toBe(0);
    await sheet.tick(/somebody has changed it since/);
    await sheet.press('Lock it');
    expect(sent.at(-1)?.old?.value).toBe(305.525);
  });

  const ENTERED = { how: 'plus', at: '2026-11-01T09:00:00.000Z', by: 'RM' };

  it('a register that was left in another unit is asked about', async () => {
    const { sheet, sent, lock } = await open({ left: { 'work shift X': { ...ENTERED, value: 12.0304, unit: 'inch', digits: 4 } } });
    await lock('12.03');
    expect(sheet.text()).toContain('it was left at 12.0304 in by RM, and is said to show 12.030 mm');
    expect(sent.length).toBe(0);
  });

  it('what it shows as it was left is taken without a word', async () => {
    const { sent, lock } = await open({ left: { 'work shift X': { ...ENTERED, value: 305.573, unit: 'mm', digits: 3 } } });
    await lock('305.573');
    expect(sent.at(-1)?.old?.value).toBe(305.573);
  });

  it('from a round that was read before the register was changed nothing begins: its figures are of another value', async () => {
    const left = { 'work shift X': { ...ENTERED, value: 305.573, unit: 'mm', digits: 3 } };
    const { sheet } = await open({ left, readAt: '2026-11-01T08:30:00.000Z' });
    expect(sheet.text()).toContain('work shift X was changed after this round was read');
    expect(sheet.all('button').filter((button) => button.textContent?.includes('Lock it')).length).toBe(0);
  });

  it('from one that was read after it a change sheet begins', async () => {
    const left = { 'work shift X': { ...ENTERED, value: 305.573, unit: 'mm', digits: 3 } };
    const { sent, lock } = await open({ left, readAt: '2026-11-01T09:30:00.000Z' });
    await lock('305.573');
    expect(sent.length).toBe(1);
  });

  it('what was judged and shows another value since goes no further: nothing that was said of it holds', async () => {
    const old = { value: 305.525, where: '', at: '2026-11-01T08:00:00.000Z', by: 'RM' };
    const unsettled = { 'work shift X': { old, total: 48, stands: 305.573, recheck: { meaning: 'wrong-sign', ratio: 2, next: 305.477 } } };
    const left = { 'work shift X': { value: 305.573, how: 'plus', at: old.at, by: 'RM', unit: 'mm', digits: 3 } };
    const { sheet, sent, goOn } = await open({ total: 96, unsettled, left });
    expect(sheet.text()).toContain('Its first old value stays: 305.525 mm');
    await goOn('305.525');
    expect(sheet.text()).toContain('set it back from the log of registers first');
    await sheet.press('Continue');
    expect(sent.length).withContext('no tick gets past it').toBe(0);
    await goOn('305.573');
    expect(sent.at(-1)?.old).toEqual(old);
  });

  it('of a first value the whole jog is kept where no little one was', async () => {
    const { sheet, sent, lock } = await open();
    await lock();
    await sheet.type('Jogged until they agree, by', '0.048');
    await sheet.type('What it shows now', '305.573');
    await sheet.press('Keep that');
    expect(sent.at(-1)?.jog).toEqual({ by: 0.048, before: 48, after: 0 });
  });

  it('why a re-check tells nothing yet is said, and what the control still wants', () => {
    const say = (recheck: Partial<Parameters<typeof recheckWords>[0]>, counted = { homings: 0, power: 0 }) =>
      recheckWords(
        { meaning: 'unclear', ratio: null, next: null, ...recheck },
        { ...WORK, kind: 'reference', ...counted },
        { times: 2, power: 1 },
      ).text;
    expect(say({ why: 'sign', may: ['not-taken-up', 'doubled'] })).toContain(
      'It may be not taken up, or changed by twice too much: without its sign',
    );
    expect(say({ why: 'doubt', may: ['right', 'halved'] })).toContain('Read it again finer');
    expect(say({ why: 'moved' })).toContain('Something else was moved since');
    expect(say({ why: 'trust' })).toContain('contradicts itself');
    expect(say({ meaning: 'not-taken-up' })).toContain(
      'the control still needs this: home it 2 times more, and switch it off and on once more.',
    );
    expect(say({ meaning: 'not-taken-up' }, { homings: 2, power: 1 })).not.toContain('still wants');
  });

  it('says each of the meanings of a re-check, and what to do', () => {
    const say = (meaning: Parameters<typeof recheckWords>[0]['meaning'], next: number | null = 305.477) =>
      recheckWords({ meaning, ratio: 2, next }, { ...WORK, homings: 0, power: 0 }).text;
    expect(say('right')).toBe('work shift X: The value was right. Leave it.');
    expect(say('wrong-sign')).toContain('Enter 305.477 mm.');
    expect(say('mm-as-inch')).toContain('Stop.');
    expect(say('not-taken-up')).toContain('not homed');
    expect(say('unclear', null)).toContain('first old value');
  });
});
