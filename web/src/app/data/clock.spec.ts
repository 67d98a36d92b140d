import { heardTime, nowText } from './clock';

describe('the time', () => {
  beforeEach(() => jasmine.clock().install().mockDate(new Date('2026-03-02T18:00:00.000Z')));
  afterEach(() => {
    heardTime('Mon, 02 Mar 2026 18:00:00 GMT');
    jasmine.clock().uninstall();
  });

  it('is the server’s where this clock is wrong, ahead or behind', () => {
    heardTime('Mon, 02 Mar 2026 18:10:00 GMT');
    expect(nowText()).toBe('2026-03-02T18:10:00.000Z');
    jasmine.clock().mockDate(new Date('2026-03-02T18:01:00.000Z'));
    expect(nowText()).toBe('2026-03-02T18:11:00.000Z');
    heardTime('Mon, 02 Mar 2026 17:31:00 GMT');
    expect(nowText()).toBe('2026-03-02T17:31:00.000Z');
  });

  it('does not tremble with what is heard: the later is never before the earlier', () => {
    heardTime('Mon, 02 Mar 2026 18:00:04 GMT');
    const first = nowText();
    jasmine.clock().mockDate(new Date('2026-03-02T18:00:01.000Z'));
    heardTime('Mon, 02 Mar 2026 18:00:03 GMT');
    expect(nowText() > first).toBeTrue();
  });

  it('is this clock’s where they agree, and where nothing is heard', () => {
    heardTime('Mon, 02 Mar 2026 18:00:02 GMT');
    expect(nowText()).toBe('2026-03-02T18:00:00.000Z');
    heardTime('Mon, 02 Mar 2026 18:10:00 GMT');
    heardTime(null);
    heardTime('soon');
    expect(nowText()).toBe('2026-03-02T18:10:00.000Z');
  });
});
