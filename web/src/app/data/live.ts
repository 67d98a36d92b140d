import { Injectable, InjectionToken, inject } from '@angular/core';
import { Observable } from 'rxjs';
import { roundNewsSchema, type RoundNews } from '@isometra/contract';
import { parsedJson } from './api';

/** Opens a stream of server-sent events; specs give one of their own. */
export const EVENTS = new InjectionToken<(address: string) => EventSource>('events', {
  providedIn: 'root',
  factory: () => (address: string) => new EventSource(address),
});

/** ms after which a stream that was refused is asked for again. */
const AGAIN = 3000;

/** What happens to a round on other screens, as it happens. */
@Injectable({ providedIn: 'root' })
export class Live {
  private readonly open = inject(EVENTS);

  /**
   * News of a round; null where some may have been missed: the line was cut, or the page was out of sight. A browser keeps only a few
   * lines to one server, so that a page that nobody looks at holds none.
   */
  of(roundId: string): Observable<RoundNews | null> {
    return new Observable((told) => {
      let source: EventSource | null = null;
      let missed = false;
      let again: ReturnType<typeof setTimeout> | undefined;
      const leave = (): void => {
        clearTimeout(again);
        source?.close();
        source = null;
      };
      const listen = (): void => {
        if (source) return;
        source = this.open(`/api/rounds/${roundId}/events`);
        source.onopen = () => {
          if (missed) told.next(null);
          missed = false;
        };
        source.onerror = () => {
          missed = true;
          // Refused for now, as a round is that has not reached the server yet: a browser does not try again by itself.
          if (source?.readyState !== EventSource.CLOSED) return;
          leave();
          again = setTimeout(seen, AGAIN);
        };
        source.onmessage = ({ data }: MessageEvent<string>) => {
          const news = roundNewsSchema.safeParse(parsedJson(data)).data;
          if (news) told.next(news);
        };
      };
      const seen = (): void => {
        if (document.hidden) {
          missed = true;
          leave();
        } else listen();
      };
      document.addEventListener('visibilitychange', seen);
      seen();
      return () => {
        document.removeEventListener('visibilitychange', seen);
        leave();
      };
    });
  }
}
