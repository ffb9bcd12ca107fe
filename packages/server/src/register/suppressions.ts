import { isHost, normaliseEmail, type Person, type Suppression } from '@sieve/core';
import type { SuppressionRow } from '@sieve/contract';
import type { Db } from '../db/open';

export type SuppressionEntry = Pick<SuppressionRow, 'value' | 'kind'>;

/** Everybody who must not be contacted. */
export function suppressionList(db: Db): Suppression {
  const rows = db.$client.prepare('SELECT value, kind FROM suppressions').all() as SuppressionEntry[];
  const of = (kind: string) => new Set(rows.filter((row) => row.kind === kind).map((row) => row.value));
  return { emails: of('email'), domains: of('domain') };
}

/** The newest 5,000 entries. */
export const suppressionRows = (db: Db): SuppressionRow[] =>
  db.$client
    .prepare('SELECT value, kind, at FROM suppressions ORDER BY at DESC, value LIMIT 5000')
    .all() as SuppressionRow[];

/** What of the list names somebody: their address, its domain or the firm's; null: nothing. */
export function suppressedBy(
  { emails, domains }: Suppression,
  { email, domain }: Pick<Person, 'email' | 'domain'>,
): 'email' | 'domain' | null {
  if (email !== '' && emails.has(email)) return 'email';
  const isOfDomain = (email !== '' && domains.has(email.slice(email.indexOf('@') + 1))) || domains.has(domain);
  return isOfDomain ? 'domain' : null;
}

/** Whether somebody must not be contacted. */
export const isSuppressed = (list: Suppression, person: Pick<Person, 'email' | 'domain'>): boolean =>
  suppressedBy(list, person) !== null;

/** Reads addresses and domains from a text, one a word; `refused` are neither. */
export function readEntries(text: string): { entries: SuppressionEntry[]; refused: string[] } {
  const entries: SuppressionEntry[] = [];
  const refused: string[] = [];
  for (const word of text.split(/[\s,;]+/).filter(Boolean)) {
    const email = normaliseEmail(word);
    const domain = word.toLowerCase().replace(/^@/, '');
    if (email) entries.push({ value: email, kind: 'email' });
    else if (isHost(domain)) entries.push({ value: domain, kind: 'domain' });
    else refused.push(word.slice(0, 100));
  }
  return { entries, refused };
}

/** Puts entries on the list or takes them off. @returns those that were not so before */
export function setSuppressed(
  db: Db,
  entries: readonly SuppressionEntry[],
  isIn: boolean,
  now: number,
): SuppressionEntry[] {
  const add = db.$client.prepare('INSERT OR IGNORE INTO suppressions (value, kind, at) VALUES (?, ?, ?)');
  const remove = db.$client.prepare('DELETE FROM suppressions WHERE value = ?');
  return entries.filter(({ value, kind }) => (isIn ? add.run(value, kind, now) : remove.run(value)).changes > 0);
}

export const suppressionEntry = (db: Db, value: string): SuppressionEntry | undefined =>
  db.$client.prepare('SELECT value, kind FROM suppressions WHERE value = ?').get(value) as SuppressionEntry | undefined;
