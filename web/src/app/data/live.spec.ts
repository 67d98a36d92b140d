import { TestBed } from '@angular/core/testing';
import type { RoundNews } from '@isometra/contract';
import { EVENTS, Live } from './live';

/** A stream that a spec speaks through. */
class Line {
  static readonly all: Line[] = [];
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onmessage: ((event: MessageEvent<string>) => void) | null = null;
  readyState: number = EventSource.OPEN;
  closed = false;
  constructor(readonly address: string) {
    Line.all.push(this);
  }
  close(): void {
    this.closed = true;
  }
  say(data: string): void {
    this.onmessage?.({ data } as MessageEvent<string>);
  }
}

describe('news of a round', () => {
  let heard: (RoundNews | null)[];
  let live: Live;
  beforeEach(() => {
    Line.all.splice(0);
    heard = [];
    TestBed.configureTestingModule({ providers: [{ provide: EVENTS, useValue: (address: string) => new Line(address) }] });
    live = TestBed.inject(Live);
  });

  it('come from the stream of that round; what is none is passed over', () => {
    const listening = live.of('r-1').subscribe((news) => heard.push(news));
    const [line] = Line.all;
    expect(line.address).toBe('/api/rounds/r-1/events');
    line.say('{"what":"reading","ids":["a"],"by":"AM"}');
    line.say('{"what":"weather"}');
    line.say('no JSON');
    expect(heard).toEqual([{ what: 'reading', ids: ['a'], by: 'AM' }]);
    listening.unsubscribe();
    expect(line.closed).toBeTrue();
  });

  it('a line that was cut may have missed some: that is told once it is up again', () => {
    const listening = live.of('r-1').subscribe((news) => heard.push(news));
    const [line] = Line.all;
    line.onopen?.();
    expect(heard).toEqual([]);
    line.readyState = EventSource.CONNECTING;
    line.onerror?.();
    line.onopen?.();
    expect(heard).toEqual([null]);
    listening.unsubscribe();
  });

  it('a stream that was refused is asked for again after a while, and not once nobody listens', () => {
    jasmine.clock().install();
    try {
      const listening = live.of('r-1').subscribe((news) => heard.push(news));
      Line.all[0].readyState = EventSource.CLOSED;
      Line.all[0].onerror?.();
      expect(Line.all.length).toBe(1);
      jasmine.clock().tick(3000);
      expect(Line.all.length).toBe(2);
      Line.all[1].onopen?.();
      expect(heard).toEqual([null]);
      Line.all[1].readyState = EventSource.CLOSED;
      Line.all[1].onerror?.();
      listening.unsubscribe();
      jasmine.clock().tick(10_000);
      expect(Line.all.length).toBe(2);
    } finally {
      jasmine.clock().uninstall();
    }
  });
});
