import { chance } from '../kit/chance';
import { PROVIDERS } from '../dns/dns';
import type { World } from './world';

/** What becomes of mail to an address: `any`: the domain takes all of it; `unsure`: its server says nothing to anybody. */
export type Mailbox = 'open' | 'none' | 'full' | 'any' | 'unsure';

/** Some that take mail for anybody refuse what is seen to be nobody's. */
const isWary = (domain: string): boolean => chance('wary', domain) < 0.3;
const MADE_UP = /^[0-9a-f]{12,}@/;

export function mailboxAt(world: World, email: string): Mailbox {
  const domain = email.slice(email.lastIndexOf('@') + 1);
  if (PROVIDERS.has(domain)) return chance('provider', email) < 0.85 ? 'open' : 'none';
  const firm = world.firmByDomain.get(domain);
  if (!firm) return 'none';
  if (firm.manner === 'catch-all') return isWary(domain) && MADE_UP.test(email) ? 'none' : 'any';
  if (firm.manner === 'drop') return 'unsure';
  const person = world.personByEmail.get(email);
  if (!person) return /^(info|sales|office)@/.test(email) ? 'open' : 'none';
  if (person.mailbox === 'full') return 'full';
  return person.mailbox === 'moved' ? 'none' : 'open';
}
