import { Resolver } from 'node:dns/promises';
import type { AnswerOf } from '@sieve/core';

export interface MailResolver {
  /** Where mail for a domain goes (RFC 5321 5.1): MX by preference, else the domain's own address; null MX (RFC 7505). */
  hosts(domain: string): Promise<AnswerOf<'mail-host'>>;
  /** The IP addresses of a mail host; null when nobody could say. */
  addresses(host: string): Promise<string[] | null>;
}

/** The name server answered: there is no such thing. Anything else is no answer. */
const saysNo = (error: unknown) => ['ENOTFOUND', 'ENODATA'].includes((error as NodeJS.ErrnoException).code ?? '');

/** @param server `address:port` of a name server, '' for the machine's own */
export function mailResolver(server: string): MailResolver {
  const resolver = new Resolver({ timeout: 3000, tries: 2 });
  if (server !== '') resolver.setServers([server]);
  const addresses = async (host: string) => {
    const found = await Promise.allSettled([resolver.resolve4(host), resolver.resolve6(host)]);
    const all = found.flatMap((result) => (result.status === 'fulfilled' ? result.value : []));
    const isUnknown = found.some((result) => result.status === 'rejected' && !saysNo(result.reason));
    return all.length === 0 && isUnknown ? null : all;
  };
  return {
    addresses,
    async hosts(domain) {
      try {
        const records = await resolver.resolveMx(domain);
        const hosts = records.sort((a, b) => a.priority - b.priority).map((mx) => mx.exchange.toLowerCase());
        return hosts.every((host) => host === '' || host === '.')
          ? { state: 'none' }
          : { state: 'hosts', hosts: hosts.filter(Boolean) };
      } catch (error) {
        const { code } = error as NodeJS.ErrnoException;
        if (code === 'ENOTFOUND') return { state: 'no-domain' };
        if (code !== 'ENODATA') return { state: 'failed' };
        const own = await addresses(domain);
        if (own === null) return { state: 'failed' };
        return own.length > 0 ? { state: 'hosts', hosts: [domain] } : { state: 'none' };
      }
    },
  };
}
