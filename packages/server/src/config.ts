import { settings, type Settings } from '@sieve/contract';
import * as z from 'zod';

const env = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(4270),
  DATA_DIR: z.string().default('data'),
  /** Ports of the stand-ins; without them the shipped settings name the machine's own name server and no finder. */
  STANDIN_FINDER: z.coerce.number().int().optional(),
  STANDIN_DNS: z.coerce.number().int().optional(),
  STANDIN_SMTP: z.coerce.number().int().optional(),
  STANDIN_WEB: z.coerce.number().int().optional(),
  STANDIN_FIRMS: z.coerce.number().int().optional(),
  STANDIN_TOPICS: z.coerce.number().int().optional(),
  STANDIN_MODEL: z.coerce.number().int().optional(),
  STANDIN_DIRECTORY: z.coerce.number().int().optional(),
  LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
});

/** What the simulated world has of its own: its free and throw-away mailboxes, and words of its trade. */
const SIMULATED_LISTS = {
  freeMail: ['freepost.example'],
  disposableMail: ['throwaway.example'],
  companyWords: ['dairy', 'dairies', 'creamery', 'creameries', 'cheese', 'cheeses', 'cheesemakers', 'farmhouse'],
};

export interface Config {
  port: number;
  dataDir: string;
  logLevel: string;
  shipped: Settings;
}

/** The simulated finders, by what they charge: the first one at the root of their address, the others under their ids. */
const SIMULATED_FINDERS = [
  { id: 'lantern', name: 'Lantern', priceCents: 15, pays: 'valid', perSecond: 20 },
  { id: 'candle', name: 'Candle', priceCents: 4, pays: 'valid', perSecond: 20 },
  { id: 'beacon', name: 'Beacon', priceCents: 28, pays: 'answer', perSecond: 10, plan: { credits: 40, cents: 600 } },
  { id: 'seamark', name: 'Seamark', priceCents: 9, pays: 'valid', perSecond: 10 },
  { id: 'glowworm', name: 'Glowworm', priceCents: 2, pays: 'question', perSecond: 5 },
  { id: 'flicker', name: 'Flicker', priceCents: 6, pays: 'answer', perSecond: 15 },
];
const simulatedFinders = (url: string) =>
  SIMULATED_FINDERS.map((finder, i) => ({
    ...finder,
    url: i === 0 ? url : `${url}/${finder.id}`,
    key: `${finder.id}-demo-key`,
    simulated: true,
  }));

const SIMULATED_PHONES = [
  { id: 'doorchime', name: 'Doorchime', priceCents: 1, pays: 'question', perSecond: 40 },
  { id: 'bellpull', name: 'Bellpull', priceCents: 3, pays: 'answer', perSecond: 40 },
  { id: 'switchyard', name: 'Switchyard', priceCents: 11, pays: 'answer', perSecond: 20 },
];

const SIMULATED_VERIFIERS = [
  { id: 'plumbline', name: 'Plumbline', priceCents: 1, perSecond: 60 },
  { id: 'touchstone', name: 'Touchstone', priceCents: 2, perSecond: 40 },
];
/** Simulated services under their ids. */
const simulatedAt = <T extends { id: string }>(url: string, services: readonly T[]) =>
  services.map((service) => ({
    ...service,
    url: `${url}/${service.id}`,
    key: `${service.id}-demo-key`,
    simulated: true,
  }));

/** Reads the environment; throws with the culprit when a value cannot be used. */
export function readConfig(source: NodeJS.ProcessEnv): Config {
  const ports = env.parse(source);
  const { PORT, DATA_DIR, LOG_LEVEL, STANDIN_FINDER, STANDIN_DNS, STANDIN_SMTP, STANDIN_WEB, STANDIN_DIRECTORY } =
    ports;
  const { STANDIN_FIRMS, STANDIN_TOPICS, STANDIN_MODEL } = ports;
  const simulated = STANDIN_FINDER !== undefined;
  return {
    port: PORT,
    dataDir: DATA_DIR,
    logLevel: LOG_LEVEL,
    shipped: settings.parse({
      ...(simulated && {
        nameServer: `127.0.0.1:${STANDIN_DNS}`,
        lists: SIMULATED_LISTS,
        finders: simulatedFinders(`http://127.0.0.1:${STANDIN_FINDER}`),
        phoneServices: simulatedAt(`http://127.0.0.1:${STANDIN_FINDER}/phones`, SIMULATED_PHONES),
        verifiers: simulatedAt(`http://127.0.0.1:${STANDIN_FINDER}/verifiers`, SIMULATED_VERIFIERS),
        ...(STANDIN_DIRECTORY && {
          directory: {
            name: 'Waymark',
            url: `http://127.0.0.1:${STANDIN_DIRECTORY}`,
            key: 'waymark-demo-key',
            perSecond: 20,
            simulated: true,
          },
          pace: { rowsADay: 10_000, fromMinute: 0, toMinute: 1440, workingDays: false },
        }),
        ...(STANDIN_FIRMS && {
          companyService: {
            id: 'fernbank',
            name: 'Fernbank',
            url: `http://127.0.0.1:${STANDIN_FIRMS}`,
            key: 'fernbank-demo-key',
            priceCents: 3,
            perSecond: 40,
            simulated: true,
          },
        }),
        ...(STANDIN_TOPICS && {
          topicService: {
            id: 'weathercock',
            name: 'Weathercock',
            url: `http://127.0.0.1:${STANDIN_TOPICS}`,
            key: 'weathercock-demo-key',
            priceCents: 5,
            perSecond: 40,
            simulated: true,
          },
        }),
        ...(STANDIN_MODEL && {
          languageModel: {
            id: 'reeve',
            name: 'Reeve',
            url: `http://127.0.0.1:${STANDIN_MODEL}/v1`,
            key: 'reeve-demo-key',
            model: 'reeve-small',
            priceCents: 1,
            perSecond: 40,
            simulated: true,
          },
        }),
        web: {
          simulatedHosts: ['example'],
          simulatedAt: STANDIN_WEB ? `127.0.0.1:${STANDIN_WEB}` : '',
          perSitePerSecond: 20,
        },
        mail: {
          port: STANDIN_SMTP,
          helo: 'sieve.larkfell.example',
          from: 'verify@larkfell.example',
          perServerPerSecond: 20,
          timeoutMs: 2500,
          retryAfterSeconds: 2,
          simulated: true,
        },
      }),
    }),
  };
}
