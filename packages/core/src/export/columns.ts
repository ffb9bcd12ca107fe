import { fullName, PERSON_FIELDS, type Person } from '../model/person';

/** What is known beside the fields of the person. */
const BESIDE = [
  'verdict',
  'verdictReason',
  'emailVia',
  'profileSure',
  'websiteSays',
  'growth',
  'technology',
  'hiring',
  'topics',
  'phoneKind',
  'phoneFoundBy',
  'phoneSure',
  'otherPhones',
  'sources',
] as const;

/** What an export can hold. `own:Name` is a field of the person's own. */
export const EXPORT_FIELDS = ['fullName', ...PERSON_FIELDS, ...BESIDE] as const;

export interface ExportColumn {
  field: string;
  heading: string;
}

/** A contact as an export sees it. */
export interface ExportRow {
  person: Person;
  extra: Record<string, string>;
  verdict: string;
  verdictReason: string;
  emailVia: string;
  /** How likely the profile link that was found is theirs, 0 to 1; '' where none was found. */
  profileSure: string;
  /** What the company's website answers; '' where it was not asked. */
  websiteSays: string;
  /** In per cent a year. */
  growth: string;
  technology: string;
  hiring: string;
  topics: string;
  /** What the phone reaches, how it was found, how likely it reaches them, 0 to 1; '' where that was not looked at. */
  phoneKind: string;
  phoneFoundBy: string;
  phoneSure: string;
  otherPhones: string;
  sources: string;
}

/** The value of one column; unknown fields are blank. */
export function exportCell(row: ExportRow, field: string): string {
  if (field.startsWith('own:')) {
    const name = field.slice(4);
    return Object.hasOwn(row.extra, name) ? row.extra[name]! : '';
  }
  if (field === 'fullName') return fullName(row.person);
  if (BESIDE.some((one) => one === field)) return row[field as (typeof BESIDE)[number]];
  return Object.hasOwn(row.person, field) ? row.person[field as keyof Person] : '';
}

/** Columns for a mail-out, the usual choice. */
export const MAIL_OUT: ExportColumn[] = [
  { field: 'firstName', heading: 'First name' },
  { field: 'lastName', heading: 'Last name' },
  { field: 'title', heading: 'Job title' },
  { field: 'company', heading: 'Company' },
  { field: 'email', heading: 'Email' },
  { field: 'phone', heading: 'Phone' },
  { field: 'city', heading: 'City' },
  { field: 'country', heading: 'Country' },
];
