import { chance, pick, weighted } from '../kit/chance';
import type { Firm, Worker, World } from './world';

/** What the directory knows of a firm beyond its name and place. */
export interface FirmProfile {
  firm: Firm;
  sector: string;
  staff: number;
  staffBand: string;
  staffGrowth: number | null;
  teamGrowth: number | null;
  tools: string[];
  about: string[];
  vacancies: string[];
}

/** What the directory knows of a person. */
export interface PersonProfile {
  person: Worker;
  /** The name as its owner wrote it. */
  shownName: string;
  firm: FirmProfile;
  /** What the person wrote under the name: a loose search looks here too. */
  headline: string;
  rank: string;
  team: string;
  yearsInRole: number | null;
  earlier: string[];
  /** What the profile is written in. */
  language: string;
  school: string;
  certificates: string[];
  reads: string[];
  about: string[];
  /** Days from the first start until the person joins; 0: always there. */
  joinsAfterDays: number;
}

export interface Vacancy {
  id: number;
  role: string;
  firm: FirmProfile;
  ageDays: number;
}

export interface Profiles {
  firms: FirmProfile[];
  people: PersonProfile[];
  vacancies: Vacancy[];
}

const BANDS: [most: number, band: string][] = [
  [4, '1-4'],
  [10, '5-10'],
  [50, '11-50'],
  [200, '51-200'],
  [500, '201-500'],
  [Infinity, '501+'],
];
const SECTORS: Record<string, string> = {
  Dairy: 'Dairy processing',
  Dairies: 'Dairy processing',
  Creamery: 'Dairy processing',
  'Ice Cream': 'Ice cream',
  'Cold Stores': 'Cold storage',
  'Cold Storage': 'Cold storage',
  Foods: 'Food production',
  'Dairy Equipment': 'Equipment',
  'Food Consultancy': 'Consultancy',
  Packaging: 'Packaging',
  'Refrigeration Services': 'Refrigeration services',
};
const TOOLS = ['data loggers', 'ERP', 'barcode scanners', 'paper records', 'SCADA', 'web shop', 'stock control'];
const TOPICS = ['cheese', 'ageing', 'cold chain', 'food safety', 'raw milk', 'export', 'organic', 'rind', 'audits'];
const ROLES = [
  'Quality Manager',
  'Production Supervisor',
  'Cheesemaker',
  'Maintenance Engineer',
  'Technical Manager',
  'Delivery Driver',
];
const SCHOOLS = [
  'Fellside Agricultural College',
  'Moorgate Dairy School',
  'Harbour Technical Institute',
  'Tarnside University',
];
const CERTIFICATES = ['HACCP level 3', 'HACCP level 4', 'Lead auditor', 'Cheese grading', 'Cold chain operator'];
const READS = ['The Ageing Room', 'Cold Chain Letter', 'A. Bramwell on rinds', 'Dairy Notes'];

const RANK: [RegExp, string][] = [
  [/owner|founder/i, 'owner'],
  [/director/i, 'director'],
  [/head/i, 'head'],
  [/manager/i, 'manager'],
  [/lead|supervisor/i, 'lead'],
  [/intern/i, 'intern'],
  [/assistant|administrator/i, 'assistant'],
  [/./, 'staff'],
];
const TEAM: [RegExp, string][] = [
  [/quality|food safety/i, 'quality'],
  [/production|cheesemaker/i, 'production'],
  [/technical|technologist/i, 'technical'],
  [/operations|site/i, 'operations'],
  [/owner|founder|managing/i, 'management'],
  [/maintenance/i, 'engineering'],
  [/sales/i, 'sales'],
  [/marketing/i, 'marketing'],
  [/finance/i, 'finance'],
  [/driver/i, 'logistics'],
  [/./, 'administration'],
];
const OTHER_LANGUAGE: Record<string, string> = { GB: 'cy', IE: 'ga', CA: 'fr' };
const first = (table: [RegExp, string][], text: string) => table.find(([pattern]) => pattern.test(text))![1];
const some = (list: readonly string[], share: number, ...words: (string | number)[]) =>
  list.filter((one) => chance(one, ...words) < share);

/** The profiles of the whole world, each always the same for the same seed. */
export function buildProfiles(world: World): Profiles {
  const firms = world.firms.map(firmProfile);
  const people = world.people.map((person) => personProfile(person, firms));
  const vacancies = firms.flatMap((firm) =>
    firm.vacancies.map((role, i): Vacancy => ({
      id: firm.firm.id * 10 + i,
      role,
      firm,
      ageDays: Math.floor(chance('age', role, firm.firm.id) ** 2 * 150),
    })),
  );
  return { firms, people, vacancies };
}

function firmProfile(firm: Firm): FirmProfile {
  const { id } = firm;
  const staff = Math.max(1, Math.round(Math.exp(0.5 + chance('staff', id) * 3.2 + chance('staff more', id) ** 3 * 4)));
  const words = Object.keys(SECTORS).find((closing) => firm.name.endsWith(closing));
  const growth = (kind: string) =>
    chance('no growth', kind, id) < 0.08
      ? null
      : Math.round((chance(kind, id) + chance(kind, id, 2) + chance(kind, id, 3) - 1.45) * 40);
  return {
    firm,
    sector: words ? SECTORS[words]! : 'Cheese making',
    staff,
    staffBand: BANDS.find(([most]) => staff <= most)![1],
    staffGrowth: growth('growth'),
    teamGrowth: growth('team growth'),
    tools: some(TOOLS, 0.25, 'tool', id),
    about: some(TOPICS, 0.3, 'topic', id),
    vacancies: chance('hires', id) < 0.3 ? some(ROLES, 0.3, 'vacancy', id) : [],
  };
}

function personProfile(person: Worker, firms: readonly FirmProfile[]): PersonProfile {
  const { id, title } = person;
  const firm = firms[person.firm.id]!;
  const before = chance('before', id) < 0.45 ? pick(firms, 'earlier', id).firm.name : '';
  const beforeTitle = pick(
    [
      'Quality Manager',
      'Production Manager',
      'Head of Quality',
      'Technical Manager',
      'Sales Manager',
      'Chef',
      'Auditor',
    ],
    'earlier title',
    id,
  );
  return {
    person,
    shownName: shownName(person),
    firm,
    headline: before
      ? `${title} at ${person.firm.name}, once ${beforeTitle} at ${before}`
      : `${title} at ${person.firm.name}`,
    rank: chance('no rank', id) < 0.06 ? '' : first(RANK, title),
    team: chance('no team', id) < 0.08 ? '' : first(TEAM, title),
    yearsInRole: chance('no years', id) < 0.05 ? null : Math.floor(chance('years', id) ** 2 * 25),
    earlier: before ? [before] : [],
    language: chance('language', id) < 0.97 ? 'en' : (OTHER_LANGUAGE[person.firm.country] ?? 'en'),
    school: chance('school', id) < 0.5 ? pick(SCHOOLS, 'which school', id) : '',
    certificates: some(CERTIFICATES, 0.12, 'certificate', id),
    reads: some(READS, 0.1, 'reads', id),
    about: some(TOPICS, 0.15, 'person topic', id),
    joinsAfterDays: chance('joins', id) < 0.02 ? 0.2 + chance('joins when', id) * 10 : 0,
  };
}

const shownName = ({ id, firstName, lastName }: Worker): string => {
  const name = `${firstName} ${lastName}`;
  return weighted({ plain: 86, star: 4, capitals: 4, degree: 3, small: 3 }, 'shown', id) === 'plain'
    ? name
    : pick([`${name} ★`, name.toUpperCase(), `${name}, PhD`, name.toLowerCase(), `🧀 ${name}`], 'shown how', id);
};
