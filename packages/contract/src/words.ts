import { NAME_FROM_EMAIL_SURE } from '@sieve/core/model/change';
import type {
  ChangeCode,
  IssueCode,
  Pays,
  PersonField,
  PhoneKind,
  PhonePass,
  SearchErrorCode,
  Target,
  VerdictReason,
} from '@sieve/core';

/** The words for every code, in one place. `{x}` is filled in from the facts that come with the code. */
export const CHANGE_WORDS: Record<ChangeCode, string> = {
  'symbols-removed': 'emoji and symbols removed',
  capitals: 'capitals set',
  'credentials-removed': 'degrees removed',
  'nickname-removed': 'nickname taken out',
  'first-of-several': 'the first of several in the cell; the others stand beside it',
  spaces: 'spaces removed',
  'name-split': 'split into first, middle, last',
  'order-turned': 'last name stood first',
  'slogan-removed': 'words after the name removed',
  'legal-form': 'legal form split off',
  abbreviation: 'abbreviation written out',
  'place-split': 'split into city, region, country',
  'canonical-link': 'link in its short form',
  'domain-from-link': 'domain of the website',
  'domain-from-email': 'domain of the email',
  'name-from-email': `the name that the address says, ${100 * NAME_FROM_EMAIL_SURE} % sure`,
  e164: 'international form (E.164)',
  'email-normalised': 'address in its plain form',
  'country-code': 'country code',
  edited: 'written by you',
};

export const ISSUE_WORDS: Record<IssueCode, string> = {
  'cell-too-long': 'a cell holds more than 32,767 characters',
  'quote-not-closed': 'a quotation mark is never closed',
  'row-too-long': 'a row of more than four million characters without an end; the file may be of another kind',
  'not-new': 'held already, or on the suppression list: only new ones were wanted',
  'exported-before': 'left with an export before: only those who had not were wanted',
  'record-unreadable': 'no record that can be read: not JSON, or a card without its end or its name',
  'sheet-cut': 'the sheet breaks off here or is damaged; rows may be lost or wrong: save it again and compare',
  'cell-unreadable': 'a cell that the workbook does not hold, or behind its last column',
  'looks-like-a-total': 'this row seems to sum the others up',
  'text-after-quote': 'text follows a closing quotation mark',
  'too-many-cells': 'more cells than the header has',
  'too-few-cells': 'fewer cells than the header has',
  'undecodable-characters': 'characters that the encoding does not know',
  'not-an-email': 'not an email address',
  'not-a-phone': 'not a phone number of its country',
  'digits-lost': 'digits lost to a spreadsheet',
  'not-a-link': 'not a web address',
  'not-of-its-type': 'no number, date, or yes or no as the field says; it stays as it came',
  'two-people': 'names more than one person: the first stands here, the others beside it',
  'nothing-to-identify': 'no name, email, phone or profile',
};

/** By kind. */
export const STEP_WORDS: Record<string, string> = {
  tidy: 'Tidy',
  match: 'Match duplicates',
  owner: 'Whose address',
  screen: 'Screen',
  profile: 'Find profiles',
  company: 'Companies',
  'append-email': 'Append email',
  verify: 'Verify',
  'append-phone': 'Append phone',
};
export const stepWords = (kind: string): string => STEP_WORDS[kind] ?? kind;

const WAITS: Record<string, readonly [one: string, many: string]> = {
  owner: ['address without a name', 'addresses without a name'],
  profile: ['person without a profile', 'people without a profile'],
  company: ['person whose company is to be asked about', 'people whose companies are to be asked about'],
  'append-email': ['person without an address', 'people without an address'],
  verify: ['address to verify', 'addresses to verify'],
  'append-phone': ['person without a phone', 'people without a phone'],
};
/** What waits at a step to be asked about. */
export const stepWaits = (kind: string, count: number): string =>
  (WAITS[kind] ?? ['contact to ask about', 'contacts to ask about'])[count === 1 ? 0 : 1];

/** By code, of whatever step. */
export const FATE_WORDS: Record<string, string> = {
  passed: 'passes',
  // any step
  'by-hand': 'set aside by you',
  'to-ask': 'waits to be asked about',
  'no-answer-yet': 'waits: {reason}; it can be asked again',
  'no-longer-fresh': 'waits: what is known is too old; it is asked again',
  // tidy
  'nothing-to-identify': 'no name, email, phone or profile link',
  // owner
  'owner-doubtful': 'may be {name}, {sure} % sure: R takes the name, X sets aside',
  // screen
  'group-aside': 'you set aside all of the {field} “{value}”',
  'rule-words': '{field} says “{word}”',
  'rule-blank': '{field} is {word}',
  'rule-lacks': '{field} says none of the words of rule {rule}',
  'rule-met': '{field} says “{word}”, and all else of rule {rule} holds',
  'title-near-brief': 'the title is close to “{near}” ({fit}) but not in the brief',
  'title-not-in-brief': 'title: none of the brief’s',
  'level-not-in-brief': 'level: {level}, none of the brief’s',
  'team-not-in-brief': 'team: {team}, none of the brief’s',
  'place-not-in-brief': 'place: {place}, none of the brief’s',
  'sector-not-in-brief': 'sector: {sector}, none of the brief’s',
  'headcount-not-in-brief': 'headcount: {headcount}, outside the brief’s',
  suppressed: 'on the suppression list ({entry}): {because}',
  'held-elsewhere': 'held in {jobs} too',
  'likely-elsewhere': '{percent} % likely held in {jobs} too: R keeps, X sets aside',
  'alike-elsewhere': '{jobs} holds somebody of this name at a like company: R keeps, X sets aside',
  'left-elsewhere': 'left with an export of {jobs}',
  'company-full': 'already {most} of {company}',
  // profile
  'profile-doubtful': '{sure} % sure at best',
  'no-profile-found': 'no profile was found that could be theirs',
  'no-name-to-find': 'no first and last name to look for',
  // company
  'website-says-no': 'its website says no',
  'website-unclear': 'its website does not say',
  'domain-doubtful': 'may be {name} at {domain}, {chance} % sure',
  'website-unknown': 'no website of the company is known',
  'website-no-domain': 'the domain of the company does not exist',
  'website-no-site': 'the company has no website at its domain',
  'website-parked': 'the domain of the company is for sale',
  'website-refused': 'the website of the company keeps its pages to itself (robots.txt)',
  competitor: 'a competitor: {is}',
  'like-competitor': 'its website reads like that of {is}, a competitor ({percent} %)',
  'company-sector-out': 'sector: {is}',
  'company-sector': 'sector: {is}, none of those wanted',
  'company-headcount': 'headcount: {is}, outside what is wanted',
  'company-growth': 'growth: {is}, outside what is wanted',
  'company-place': 'place: {is}, none of those wanted',
  'company-technology': 'uses {is}, none of what is wanted',
  'company-hiring': 'is hiring for {is}, none of what is wanted',
  'company-topics': 'reads about {is}, none of what is wanted',
  // append-email
  'no-name-or-domain': 'no full name or no domain to build an address from',
  'no-address-found': 'no address was found',
  // append-phone
  'no-name-or-address': 'no last name or no postal address to look a phone up by',
  'no-phone-found': 'no phone was found',
  'not-to-be-called': 'asked not to be called',
  // verify
  verdict: '{verdict}: {reason}',
};

/** What a service charges for. */
export const PAYS_WORDS: Record<Pays, string> = {
  valid: 'each that verifies',
  answer: 'each answer',
  question: 'each question',
};

export const PHONE_KIND_WORDS: Record<PhoneKind, string> = {
  mobile: 'mobile',
  direct: 'direct',
  switchboard: 'switchboard',
  landline: 'landline',
  unclear: 'mobile or landline',
  none: 'none found',
};

/** By what a phone was found. */
export const PASS_WORDS: Record<PhonePass, string> = {
  full: 'full name and address',
  last: 'last name and address',
  earlier: 'an earlier address',
};

export const REASON_WORDS: Record<VerdictReason, string> = {
  accepted: 'mailbox accepted',
  'catch-all': 'the domain takes mail for anybody',
  'bounces-later': 'the domain accepts mail and sends it back later',
  role: 'a shared address',
  disposable: 'a throw-away address',
  'mailbox-full': 'mailbox full',
  'not-an-address': 'not an address',
  'no-domain': 'the domain does not exist',
  'no-mail-server': 'the domain takes no mail',
  'no-mailbox': 'no such mailbox',
  'refused-us': 'the server would not talk to us',
  'try-later': 'the server kept saying try later',
  'no-answer': 'the server did not answer',
  'lookup-failed': 'the domain could not be looked up',
};

export const FIELD_WORDS: Record<PersonField | 'fullName', string> = {
  fullName: 'Name',
  honorific: 'Honorific',
  firstName: 'First name',
  middleName: 'Middle name',
  lastName: 'Last name',
  suffix: 'Suffix',
  title: 'Title',
  level: 'Level',
  team: 'Team',
  company: 'Company',
  legalForm: 'Legal form',
  sector: 'Sector',
  headcount: 'Headcount',
  domain: 'Domain',
  email: 'Email',
  phone: 'Phone',
  street: 'Street',
  city: 'City',
  postcode: 'Postcode',
  region: 'Region',
  country: 'Country',
  earlierAddress: 'Earlier address',
  profile: 'Profile link',
  note: 'Note',
};

export const TARGET_WORDS: Record<Target, string> = {
  fullName: 'Full name',
  honorific: 'Honorific',
  firstName: 'First name',
  middleName: 'Middle name',
  lastName: 'Last name',
  suffix: 'Suffix',
  title: 'Title',
  company: 'Company',
  website: 'Website',
  email: 'Email',
  phone: 'Phone',
  place: 'Place',
  street: 'Street',
  city: 'City',
  postcode: 'Postcode',
  region: 'Region',
  country: 'Country',
  earlierAddress: 'Earlier address',
  profile: 'Profile link',
  note: 'Note',
  sector: 'Sector',
  headcount: 'Headcount',
  own: 'Own field',
  skip: 'Skip',
};

const LOWER: Record<string, string> = {
  any: 'the row',
  name: 'name',
  title: 'title',
  company: 'company',
  place: 'place',
  domain: 'domain',
  email: 'email',
  note: 'note',
};

/** Why an answer says nothing, where that is no verdict. */
const SILENCE_WORDS: Record<string, string> = {
  'site-no-answer': 'the website did not answer',
  'site-try-later': 'the website asked to be asked later',
};

/** The words of a code with its facts filled in. */
export function say(words: string, facts: Record<string, string | number>): string {
  return words.replace(/\{(\w+)\}/g, (_, key: string) => {
    const fact = facts[key] ?? '';
    if (key === 'field') return LOWER[String(fact)] ?? String(fact).replace(/^own:/, '');
    if (key === 'rule') return String(Number(fact) + 1);
    if (key === 'reason') return REASON_WORDS[fact as VerdictReason] ?? SILENCE_WORDS[fact] ?? String(fact);
    return String(fact);
  });
}

/** Why a row of a sample does not fit. */
export const MISFIT_WORDS = {
  loose: 'the words are there, not the phrase',
  lacks: 'none of these',
  brief: 'Title: none of the brief’s',
};

/** Why a search in words cannot be read; `{x}` is the place. */
export const SEARCH_ERROR_WORDS: Record<SearchErrorCode, string> = {
  'no-such-field': 'There is no condition “{x}” for this kind of search',
  'colon-missing': 'A colon is missing after “{x}”',
  'value-missing': 'A value is missing here',
  'quote-not-closed': 'The quotation mark is never closed',
  'not-a-number': '“{x}” is no whole number and no range like 1..7',
  'range-turned': '“{x}” ends before it begins',
  'not-a-value': '“{x}” is not one of the values of this condition',
  'too-many': 'A list takes at most 500 names',
};
