import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Recent } from '../data/recent';
import { openShop, show, until, type FakeServer, type Shown } from '../testing/fake-shop';
import { GoTo } from './go-to';

describe('going to anything', () => {
  let server: FakeServer;
  let navigate: jasmine.Spy;
  let gone = 0;
  beforeEach(async () => {
    ({ server } = await openShop());
    server.finder = {
      ...server.finder,
      machines: ['L-01', 'L-02', 'M-11'].map((number) => ({ id: number, number, nickname: '', kind: 'engine-lathe' })),
      parts: [],
      people: ['HB'],
    };
    navigate = spyOn(TestBed.inject(Router), 'navigateByUrl').and.resolveTo(true);
    gone = 0;
  });

  async function open(inputs: Record<string, unknown> = {}): Promise<Shown<GoTo>> {
    const finder = await show(GoTo, inputs);
    finder.fixture.componentInstance.closed.subscribe(() => gone++);
    await until(() => server.asked.includes('GET /finder'));
    await finder.fixture.whenStable();
    return finder;
  }
  const field = (): HTMLInputElement => document.querySelector('.p-dialog input[role=combobox]') as HTMLInputElement;
  const options = (): string[] => [...document.querySelectorAll('.p-dialog [role=option]')].map((entry) => entry.textContent?.trim() ?? '');
  const on = (): string => document.querySelector('.p-dialog [aria-selected=true]')?.textContent?.trim() ?? '';
  async function type(finder: Shown<GoTo>, text: string): Promise<void> {
    field().value = text;
    field().dispatchEvent(new Event('input'));
    await finder.fixture.whenStable();
  }
  async function press(finder: Shown<GoTo>, key: string): Promise<KeyboardEvent> {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    field().dispatchEvent(event);
    await finder.fixture.whenStable();
    return event;
  }

  it('is typed and taken by Enter alone; the screen that comes does not get the key', async () => {
    const finder = await open();
    expect(document.activeElement).toBe(field());
    await type(finder, 'm-1');
    expect(options()[0]).toContain('M-11');
    const heard: Event[] = [];
    const hear = (event: Event): void => void heard.push(event);
    document.addEventListener('keydown', hear);
    const event = await press(finder, 'Enter');
    document.removeEventListener('keydown', hear);
    expect([event.defaultPrevented, heard.length]).toEqual([true, 0]);
    expect(navigate).toHaveBeenCalledOnceWith('/machines/M-11');
    expect(gone).toBe(1);
  });

  it('arrows go round, and a new letter begins at the first again', async () => {
    const finder = await open();
    await type(finder, 'l-0');
    const first = on();
    await press(finder, 'ArrowUp');
    expect(on()).toContain('in all that was written');
    await press(finder, 'ArrowDown');
    expect(on()).toBe(first);
    await press(finder, 'ArrowDown');
    await type(finder, 'l-02');
    expect(on()).toContain('L-02');
  });

  it('does what has a name, and looks through all that was written', async () => {
    const run = jasmine.createSpy('run');
    const finder = await open({ actions: [{ label: 'Write a note', run }] });
    await type(finder, 'a note');
    expect(options()).toEqual(['Write a note do it', '“a note” in all that was written']);
    await press(finder, 'Enter');
    expect(run).toHaveBeenCalledTimes(1);
    const search = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await press(finder, 'ArrowDown');
    await press(finder, 'Enter');
    expect(search).toHaveBeenCalledWith(['/logbook'], { queryParams: { words: 'a note' } });
  });

  it('shows where one was lately, also screens that have no name of their own, by the name they had', async () => {
    const recent = TestBed.inject(Recent);
    recent.note({ path: '/machines/L-01/move/r/q', words: 'L-01, Move: Tailstock sideways' });
    recent.note({ path: '/machines/M-11', words: 'M-11' });
    await open();
    expect(options()).toEqual(['M-11 engine lathe', 'L-01, Move: Tailstock sideways looked at lately']);
  });

  it('says when the server cannot be reached, and still goes where one was', async () => {
    TestBed.inject(Recent).note({ path: '/kit', words: 'Kit' });
    server.down = true;
    await open();
    await until(() => !!document.querySelector('.p-dialog')?.textContent?.includes('cannot be reached'));
    expect(options()).toEqual(['Kit looked at lately']);
  });
});

describe('screens that were looked at', () => {
  beforeEach(() => localStorage.removeItem('isometra-recent'));

  it('are kept with the last one first, each once, and no more than twenty', () => {
    const recent = new Recent();
    for (let i = 0; i < 25; i++) recent.note({ path: `/p${i}`, words: `P ${i}` });
    recent.note({ path: '/p20', words: 'P 20 by another name' });
    expect(recent.all().length).toBe(20);
    expect(recent.all()[0]).toEqual({ path: '/p20', words: 'P 20 by another name' });
    expect(new Recent().all()).toEqual(recent.all());
  });

  it('that cannot be read, or lead elsewhere, are none', () => {
    localStorage.setItem('isometra-recent', 'not json');
    expect(new Recent().all()).toEqual([]);
    localStorage.setItem(
      'isometra-recent',
      JSON.stringify([{ path: 'https://elsewhere.example', words: 'x' }, { path: '/kit', words: 'Kit' }, 7]),
    );
    expect(new Recent().all()).toEqual([{ path: '/kit', words: 'Kit' }]);
  });
});
