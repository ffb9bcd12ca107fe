import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { FastifyServerOptions } from 'fastify';
import { buildApp } from './app';
import type { AppContext } from './app-context';
import type { Config } from './config';
import { lockFolder } from './db/folder-lock';
import { closeDb, openDb } from './db/open';
import { openWithReserve } from './db/reserve';
import { toAppError } from './errors';
import { readSettings } from './settings/store';
import { createEvents } from './http/events';
import { remakeRegister } from './register/remake';
import { createScheduler } from './schedules/scheduler';
import { createCrew } from './threads/crew';
import { createLookout } from './threads/lookout';
import { createQueue } from './runs/queue';
import { directoryOf } from './searches/directory-of';

/** Sifting makes many objects that live shortly: with more room for them a third of the collecting falls away. */
const ROOMY = { maxYoungGenerationSizeMb: 192 };

/** Where the files lie that go with the server. */
export interface Places {
  worker: string;
  look: string;
  migrations: string;
  webDir?: string;
  patienceMs?: number;
}

/** Puts the parts together: database, queue, events, app. */
export async function assemble(config: Config, places: Places, logger: FastifyServerOptions['logger'] = false) {
  mkdirSync(config.dataDir, { recursive: true });
  const dbFile = join(config.dataDir, 'sieve.db');
  const lock = lockFolder(config.dataDir, config.port);
  const db = openWithReserve(config.dataDir, () => openDb(dbFile, places.migrations));
  const events = createEvents();
  const crew = createCrew(() => new Worker(places.worker, { resourceLimits: ROOMY }));
  const settings = () => readSettings(db, config.shipped);
  let log: (fields: object, message: string) => void = () => undefined;
  const lookout = createLookout(places.look, dbFile, settings, (fields, message) => log(fields, message));
  const queue = createQueue({
    db,
    dbFile,
    dataDir: config.dataDir,
    crew,
    settings,
    emit: events.emit,
    now: Date.now,
    log: (fields, message) => log(fields, message),
  });
  const context: AppContext = {
    db,
    queue,
    events,
    settings,
    lookout,
    directory: directoryOf(settings, Date.now),
    dataDir: config.dataDir,
    now: Date.now,
    newId: randomUUID,
  };
  const { webDir, patienceMs } = places;
  const app = await buildApp(context, { logger, webDir, patienceMs });
  log = (fields, message) => app.log.error(fields, message);
  try {
    remakeRegister(db);
  } catch (error) {
    // A full disk: what is held is asked of the register as it is, and the next start tries again.
    log({ code: toAppError(error).code }, 'the register could not be brought up to date');
  }
  const scheduler = createScheduler(context, (fields, message) => log(fields, message));
  app.addHook('onClose', async () => {
    scheduler.stop();
    await Promise.all([queue.close(), lookout.close()]);
    closeDb(db);
    lock.release();
  });
  return { app, queue, scheduler, context };
}
