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
  return {
    ...value,
    ...perList((name) => value[name].map((own) => (own.simulated ? { ...own, url: urlIn(shipped[name], own) } : own))),
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

const urlIn = (shipped: readonly Service[], { id, url }: Service): string =>
  shipped.find((one) => one.id === id && one.simulated)?.url ?? url;

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
  ...perList((name) => value[name].map((service) => ({ ...service, key: '' }))),
  ...keyed(value, () => ''),
});

/** Services of which there are several. */
const LISTS = ['finders', 'phoneServices', 'verifiers'] as const;
type Service = Settings[(typeof LISTS)[number]][number];

const perList = (services: (name: (typeof LISTS)[number]) => Service[]): Partial<Settings> =>
  Object.fromEntries(LISTS.map((name) => [name, services(name)]));

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
  const keyOf = (name: (typeof LISTS)[number], id: string) => value[name].find((one) => one.id === id)?.key ?? '';
  saveSettings(
    db,
    {
      ...next,
      ...perList((name) => next[name].map((service) => ({ ...service, key: keyOf(name, service.id) }))),
      ...keyed(next, (name) => value[name]?.key ?? ''),
    },
    version,
  );
}

export const settingsView = (db: Db, settings: Settings): SettingsView => ({ version: settingsVersion(db), settings });
