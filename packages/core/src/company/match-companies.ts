import { COMPANY_FIELDS, type Company } from '../model/company';
import { fold } from '../text/fold';

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
 * Puts records of one company together: those of one domain, and those without a domain that share name and country with it.
 * The first record that has a value gives it.
 *
 * @param rows in the order of their ids
 */
export function matchCompanies(rows: readonly CompanyRow[]): KnownCompany[] {
  const byDomain = new Map<string, KnownCompany>();
  const byName = new Map<string, KnownCompany>();
  const out: KnownCompany[] = [];
  // Those with a domain first, so that one without finds them whatever came first.
  for (const row of [
    ...rows.filter(({ company }) => company.domain),
    ...rows.filter(({ company }) => !company.domain),
  ]) {
    const { domain } = row.company;
    const name = nameKey(row.company);
    const known = domain ? byDomain.get(domain) : byName.get(name);
    if (known) {
      join(known, row);
      continue;
    }
    const { recordId, company, extra } = row;
    const one = { id: recordId, recordIds: [recordId], company: { ...company }, extra: { ...extra } };
    out.push(one);
    if (domain) byDomain.set(domain, one);
    if (!byName.has(name)) byName.set(name, one);
  }
  return out.sort((a, b) => a.id - b.id);
}

const nameKey = ({ name, country }: Company) => `${fold(name)} ${country}`;

function join(known: KnownCompany, { recordId, company, extra }: CompanyRow) {
  known.recordIds.push(recordId);
  known.recordIds.sort((a, b) => a - b);
  known.id = known.recordIds[0]!;
  for (const field of COMPANY_FIELDS) known.company[field] ||= company[field];
  known.extra = { ...extra, ...known.extra };
}
