import type { MoveWrite } from '@isometra/contract';
import { show, until } from '../testing/fake-shop';
import { openTurning, withValue, swept } from '../testing/swept';
import { RegisterLog } from './register-log';

describe('the log of the registers', () => {
  const wrongThenRight = () => [
    withValue(swept('sub-spindle', 14, -14), 200.0198),
    withValue(swept('sub-spindle', 28, -28), 199.9802, { jog: null }),
    swept('sub-spindle', 0, 0),
  ];

  it('tells what was entered, what reading again said of it, and which way the references of an axis go', async () => {
    await openTurning(wrongThenRight());
    const page = await show(RegisterLog);
    const rows = page.all('.entry').map((row) => row.textContent ?? '');
    expect(rows.length).toBe(2);
    expect(rows[0]).toContain('200.0000 mm → 199.9802 mm');
    expect(rows[0]).toContain('The value was right');
    expect(rows[1]).toContain('It had the wrong sign');
    expect(page.text()).toContain('References of axis A: the value goes the way of the jog (κ +1).');
    expect(page.text()).not.toContain('is not right yet');
  });

  it('goes back to what stood there before: first what to type, then that it was entered; the change sheet keeps what it had', async () => {
    const { server } = await openTurning(wrongThenRight());
    const page = await show(RegisterLog);
    await page.press('back to 200.0000 mm');
    await page.escape('.preview button');
    expect(page.text()).not.toContain('Entered');
    await page.press('back to 200.0000 mm');
    expect(page.text()).toContain('Type 200.0000 mm into home A, and home it 2 times, and switch it off and on once.');
    expect(server.sent.length).withContext('nothing is written before it was entered').toBe(0);
    await page.press('Entered');
    await until(() => server.sent.length === 1);
    const { register } = (server.sent[0].body as MoveWrite).made ?? {};
    expect(register?.entered).toEqual(jasmine.objectContaining({ value: 200, how: 'back', by: 'HB' }));
    expect(register?.earlier?.map(({ value }) => value)).toEqual([199.9802]);
    await page.fixture.whenStable();
    expect(page.all('.entry').length).toBe(3);
    expect(page.text()).toContain('Back at 200.0000 mm.');
    expect(page.all('button').length).withContext('it stands there: there is nothing to go back to').toBe(0);
  });

  it('says what is not right yet, and asks for a sign where nobody tried the needle', async () => {
    const blind = { kind: 'plunger', graduation: '1 um' };
    await openTurning([withValue(swept('sub-spindle', 14, -14), 200.0198), swept('sub-spindle', -14, 14, { instrument: blind })]);
    const page = await show(RegisterLog);
    expect(page.text()).toContain('home A is not right yet. The way back is always to its first old value: 200.0000 mm');
    expect(page.text()).toContain(
      'It may be not taken up, or an inch taken for a millimetre, or changed by twice too much: without its sign',
    );
  });
});
