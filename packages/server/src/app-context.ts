import type { Settings } from '@sieve/contract';
import type { Db } from './db/open';
import type { Events } from './http/events';
import type { Directory } from './outside/directory/port';
import type { Queue } from './runs/queue';
import type { Lookout } from './threads/lookout';

/** What every route may use. */
export interface AppContext {
  db: Db;
  queue: Queue;
  events: Events;
  lookout: Lookout;
  /** The directory of the settings; throws when none is set up. */
  directory: () => Directory;
  settings: () => Settings;
  dataDir: string;
  now: () => number;
  newId: () => string;
}
