import { pays } from '@sieve/core/facts/pays';
import { PHONE_PAYS } from '@sieve/core/facts/phones';
import { pace } from '@sieve/core/forecast/pace';
import { wordLists } from '@sieve/core/model/word-lists';
import * as z from 'zod';

const url = z.url({ protocol: /^https?$/ });

export const isTimeZone = (name: string): boolean => {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }));
  } catch {
    return false;
  }
};

export const serviceSetting = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  name: z.string().trim().min(1).max(100),
  url,
  key: z.string().max(200),
  priceCents: z.int().min(0).max(100_000),
  perSecond: z.number().min(0.01).max(1000),
  /** Cents that it may be paid in a day and in a month, over all jobs; 0: no cap. */
  capDayCents: z.int().min(0).max(100_000_000).default(0),
  capMonthCents: z.int().min(0).max(100_000_000).default(0),
  simulated: z.boolean().default(false),
});
export type ServiceSetting = z.output<typeof serviceSetting>;

/** What is paid for a month in advance: so many credits, of which each charge takes one in place of money; 0: none. They end with the month. */
export const plan = z.object({
  credits: z.int().min(0).max(10_000_000).default(0),
  cents: z.int().min(0).max(100_000_000).default(0),
});
export type Plan = z.output<typeof plan>;

/** A service that knows addresses, and what it charges for. */
export const finderSetting = serviceSetting.extend({ pays: pays.default('valid'), plan: plan.prefault({}) });
export type FinderSetting = z.output<typeof finderSetting>;

/** A service that lists phones, and what it charges for. */
export const phoneServiceSetting = serviceSetting.extend({ pays: z.enum(PHONE_PAYS).default('answer') });
export type PhoneServiceSetting = z.output<typeof phoneServiceSetting>;

export const directorySetting = z.object({
  name: z.string().trim().min(1).max(100),
  url,
  key: z.string().max(200),
  perSecond: z.number().min(0.01).max(1000),
  simulated: z.boolean().default(false),
});
export type DirectorySetting = z.output<typeof directorySetting>;

export const settings = z.object({
  /** ISO 4217. */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'three capital letters, like GBP')
    .default('GBP'),
  /** The person's, an IANA name: days and hours are its days and hours. Empty: the machine's own. */
  timeZone: z
    .string()
    .refine((zone) => zone === '' || isTimeZone(zone), 'no time zone has this name')
    .default(''),
  finders: z.array(finderSetting).max(20).default([]),
  phoneServices: z.array(phoneServiceSetting).max(20).default([]),
  /** Services that say whether an address takes mail, each answer at a price; one that cannot say is not paid. */
  verifiers: z.array(serviceSetting).max(20).default([]),
  directory: directorySetting.nullable().default(null),
  /** Finds the domain of a company, and sells what it knows of one. */
  companyService: serviceSetting.nullable().default(null),
  /** Says what the people of a company read about this week. */
  topicService: serviceSetting.nullable().default(null),
  /** Reads websites; a chat endpoint. */
  languageModel: serviceSetting
    .extend({ model: z.string().max(100).default('') })
    .nullable()
    .default(null),
  /** Beside the budget of each job. */
  budgets: z
    .object({
      /** Of all jobs in a month; 0: none. */
      monthCents: z.int().min(0).max(100_000_000).default(0),
      /** Of all jobs of a folder, for good. */
      folders: z
        .array(z.object({ folder: z.string().trim().min(1).max(100), cents: z.int().min(0).max(100_000_000) }))
        .max(200)
        .default([]),
    })
    .prefault({}),
  pace: pace.prefault({}),
  lists: wordLists.prefault({}),
  /** Address and port of the name server; empty: the machine's own. */
  nameServer: z.string().max(100).default(''),
  /** Web pages are fetched from public addresses only; these hosts and those under them are simulated, on this machine. */
  web: z
    .object({
      simulatedHosts: z.array(z.string().max(253)).max(20).default([]),
      /** Address and port; '' for none. */
      simulatedAt: z.string().max(100).default(''),
      /** Pages a second that one site is asked for, where its robots.txt does not ask for fewer. */
      perSitePerSecond: z.number().min(0.01).max(100).default(1),
    })
    .prefault({}),
  mail: z
    .object({
      /** The verifier that is asked in place of the mail servers, by its id; '': none. */
      through: z.string().max(40).default(''),
      port: z.int().min(1).max(65535).default(25),
      helo: z.string().min(1).max(200).default('localhost'),
      from: z.string().max(254).default(''),
      perServerPerSecond: z.number().min(0.01).max(1000).default(2),
      timeoutMs: z.int().min(100).max(300_000).default(20_000),
      retryAfterSeconds: z.int().min(0).max(86_400).default(300),
      simulated: z.boolean().default(false),
    })
    .prefault({}),
});
export type Settings = z.output<typeof settings>;

/** Every service in the settings that sells something; none before they are read. */
export const servicesIn = (settings: Settings | null): ServiceSetting[] =>
  settings
    ? [
        ...settings.finders,
        ...settings.phoneServices,
        ...settings.verifiers,
        settings.companyService,
        settings.topicService,
        settings.languageModel,
      ].filter((service) => service !== null)
    : [];

/** The verifier that is asked in place of mail servers; null while they are asked themselves. One that is gone has no price. */
export const verifierOf = ({ mail, verifiers }: Pick<Settings, 'mail' | 'verifiers'>): ServiceSetting | null =>
  verifiers.find(({ id }) => id === mail.through) ?? null;

/** The time zone in which days and hours are meant, as core's `Hours` names it. */
export const zoneOf = ({ timeZone }: Pick<Settings, 'timeZone'>): string => timeZone || 'system';

/** The settings with the number of their last change; a change names the one that it was made upon. */
export const settingsView = z.object({ version: z.int().min(0), settings });
export type SettingsView = z.output<typeof settingsView>;
