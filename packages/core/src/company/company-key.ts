import { fold } from '../text/fold';

/** By what contacts are of one company before companies are matched: its domain, else its folded name; '' for neither. */
export const companyKey = ({ domain, company }: { domain: string; company: string }): string =>
  domain || (company === '' ? '' : fold(company));
