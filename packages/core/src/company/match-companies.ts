import { COMPANY_FIELDS, type Company } from '../model/company';
import { groupCompanies } from './group-companies';

/** A record about a company, tidied. */
export interface CompanyRow {
  recordId: number;
  company: Company;
  extra: Record<string, string>;
}

/** A company after matching: one or more records of it. */
export interface KnownCompany {
  /** The lowest id of its records. */
  id: number;
  recordIds: number[];
  company: Company;
  extra: Record<string, string>;
}

/**
 * Puts records of one company together: by domain, else by name and place. The first record that has a value gives it.
 *
 * @param rows in the order of their ids
 */
export function matchCompanies(rows: readonly CompanyRow[]): KnownCompany[] {
  const first = groupCompanies(rows.map(({ company }) => company));
  const known = new Map<number, KnownCompany>();
  for (const [i, { recordId, company, extra }] of rows.entries()) {
    const one = known.get(first[i]!);
    if (!one) {
      known.set(first[i]!, { id: recordId, recordIds: [recordId], company: { ...company }, extra: { ...extra } });
      continue;
    }
    one.recordIds.push(recordId);
    for (const field of COMPANY_FIELDS) one.company[field] ||= company[field];
    one.extra = { ...extra, ...one.extra };
  }
  return [...known.values()];
}
