import type { Search } from '@sieve/core';
import type { Settings } from '@sieve/contract';
import { AppError } from '../errors';
import { directoryClient } from '../outside/directory/client';
import { ServiceDown } from '../outside/wrap/service-down';
import type { Directory } from '../outside/directory/port';

/** A count holds so long: directories change slowly, and a screen asks the same again and again. */
const FRESH_MS = 60_000;

/** The directory of the settings for questions from a screen: counts are kept for a minute, failures become errors. */
export function directoryOf(settings: () => Settings, now: () => number): () => Directory {
  let last: { key: string; directory: Directory } | null = null;
  return () => {
    const { directory } = settings();
    if (!directory) throw new AppError('no-directory');
    const key = JSON.stringify(directory);
    if (last?.key !== key) last = { key, directory: remembering(directoryClient(directory), now) };
    return last.directory;
  };
}

function remembering(directory: Directory, now: () => number): Directory {
  const counts = new Map<string, { count: Promise<number>; at: number }>();
  return {
    ...directory,
    count(search: Search, signal) {
      const key = JSON.stringify(search);
      const known = counts.get(key);
      if (known && now() - known.at < FRESH_MS) return known.count;
      if (counts.size > 5000) counts.clear();
      const count = told(directory.count(search, signal));
      counts.set(key, { count, at: now() });
      count.catch(() => counts.delete(key));
      return count;
    },
    facet: (search, field, signal) => told(directory.facet(search, field, signal)),
    page: (search, page, signal) => told(directory.page(search, page, signal)),
    find: (link, signal) => told(directory.find(link, signal)),
  };
}

const told = <T>(answer: Promise<T>): Promise<T> =>
  answer.catch((error: unknown) => {
    if (error instanceof ServiceDown)
      throw new AppError('directory-down', { name: error.service, reason: error.reason });
    throw error;
  });
