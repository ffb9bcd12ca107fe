import { InjectionToken } from '@angular/core';
import type { ServerEvent } from '@sieve/contract';
import { Observable } from 'rxjs';

/** What the server tells without being asked; `lost` and `back` say how the connection is. */
export type LiveEvent = ServerEvent | { type: 'lost' } | { type: 'back' };

export const LIVE = new InjectionToken<Observable<LiveEvent>>('live events', {
  providedIn: 'root',
  factory: () =>
    new Observable<LiveEvent>((subscriber) => {
      const source = new EventSource('/api/events');
      source.onopen = () => subscriber.next({ type: 'back' });
      source.onerror = () => subscriber.next({ type: 'lost' });
      source.onmessage = (message: MessageEvent<string>) => subscriber.next(JSON.parse(message.data) as ServerEvent);
      return () => source.close();
    }),
});
