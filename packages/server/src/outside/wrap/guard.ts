import ipaddr from 'ipaddr.js';

/**
 * Whether an address that came from data may be connected to: a public one. Loopback, private, link-local, unspecified and
 * reserved addresses are this machine's and its neighbours', IPv4 in IPv6 included (IANA's special-purpose registries).
 */
export const isPublic = (address: string): boolean =>
  ipaddr.isValid(address) && ipaddr.process(address).range() === 'unicast';
