import { settings as schema, type Settings, type SettingsView } from '@sieve/contract';
import { inTransaction, type Db } from '../db/open';
import { AppError } from '../errors';

interface Saved {
  version: number;
  value: Settings | null;
}

function saved(db: Db): Saved {
  const row = db.$client.prepare(`SELECT value, version FROM settings WHERE key = 'settings'`).get() as
    { value: string; version: number } | undefined;
  return row ? { version: row.version, value: schema.parse(JSON.parse(row.value)) } : { version: 0, value: null };
}

/**
 * The settings that were saved, else the ones that the server was started with. Simulated services are where this start
 * put them, wherever they were when the settings were saved.
 */
export function readSettings(db: Db, shipped: Settings): Settings {
  const { value } = saved(db);
  if (value === null) return shipped;
  const simulated = (id: string) => shipped.finders.find((finder) => finder.id === id && finder.simulated);
  return {
    ...value,
    finders: value.finders.map((finder) =>
      finder.simulated ? { ...finder, url: simulated(finder.id)?.url ?? finder.url } : finder,
    ),
    ...Object.fromEntries(
      SERVICES.flatMap((name) => {
        const [own, here] = [value[name], shipped[name]];
        return own?.simulated && here ? [[name, { ...own, url: here.url }]] : [];
      }),
    ),
    ...(value.mail.simulated && {
      nameServer: shipped.nameServer,
      mail: { ...value.mail, port: shipped.mail.port },
    }),
  };
}

export const settingsVersion = (db: Db): number => saved(db).version;

/** @param read the version that the change was made upon; throws when somebody has saved since */
export function saveSettings(db: Db, value: Settings, read: number): void {
  inTransaction(db, () => {
    const { version } = saved(db);
    if (version !== read) throw new AppError('changed-meanwhile', { what: 'The settings' });
    db.$client
      .prepare(`INSERT OR REPLACE INTO settings (key, value, version) VALUES ('settings', ?, ?)`)
      .run(JSON.stringify(value), version + 1);
  });
}

/** The settings as the log of decisions holds them: without keys, which nobody takes back. */
export const withoutKeys = (value: Settings): Record<string, unknown> => ({
  ...value,
  finders: value.finders.map((finder) => ({ ...finder, key: '' })),
  ...keyed(value, () => ''),
});

/** Services of which there is one. */
const SERVICES = ['directory', 'companyService', 'topicService', 'languageModel'] as const;

/** Those services with other keys. */
const keyed = (value: Settings, keyOf: (name: (typeof SERVICES)[number]) => string): Partial<Settings> =>
  Object.fromEntries(SERVICES.map((name) => [name, value[name] && { ...value[name], key: keyOf(name) }]));

export const settingsState = (db: Db): Record<string, unknown> => {
  const { value } = saved(db);
  return value ? withoutKeys(value) : {};
};

/** Puts values of the log in the place of those that are saved; keys stay as they are. */
export function setSettingsState(db: Db, change: Record<string, unknown>): void {
  const { version, value } = saved(db);
  if (value === null) return;
  const next = schema.parse({ ...withoutKeys(value), ...change });
  const keys = new Map(value.finders.map(({ id, key }) => [id, key]));
  saveSettings(
    db,
    {
      ...next,
      finders: next.finders.map((finder) => ({ ...finder, key: keys.get(finder.id) ?? '' })),
      ...keyed(next, (name) => value[name]?.key ?? ''),
    },
    version,
  );
}

export const settingsView = (db: Db, settings: Settings): SettingsView => ({ version: settingsVersion(db), settings });
