import type { Company } from '../model/company';
import { fold } from '../text/fold';

/** The keys by which a company is known over all jobs: its domain, else its name with its country. */
export const companyKeys = ({
  domain,
  name,
  country,
}: Readonly<Pick<Company, 'domain' | 'name' | 'country'>>): string[] =>
  domain !== '' ? [`domain:${domain}`] : name !== '' ? [`firm:${fold(name)} ${country}`] : [];
