import { harmlessLine } from '@sieve/core';
import { REASON_WORDS } from '@sieve/contract';
import type { VerdictReason } from '@sieve/core';
import type { Db } from '../db/open';
import { recordsBehind, sourcesIn } from '../sources/store';
import { shownOutcome } from './outcomes';
import { CONTACT_COLUMNS, fromColumns, type ContactColumns } from './stored-contact';

const AT_ONCE = 1000;
const ADDED = ['Address as verified', 'Verdict', 'Reason'] as const;

/**
 * Every row of a job about people as it came, in its order, with what was found of its address behind it: the lines of a CSV. Rows of sources with other
 * columns have theirs side by side; a row that was merged says what its contact says, one that is not sifted yet nothing.
 */
export function* verdictList(db: Db, jobId: number): Generator<string> {
  const sources = sourcesIn(db, jobId).filter(({ about }) => about === 'people');
  const headings = [...new Set(sources.flatMap(({ columns }) => columns.map(({ name }) => name)))];
  const said = verdictsOf(db, jobId);
  yield `\uFEFF${harmlessLine([...headings, ...ADDED])}`;
  for (const { id, columns } of sources) {
    const at = headings.map((heading) => columns.findIndex(({ name }) => name === heading));
    const email = columns.findIndex(({ target }) => target === 'email');
    const next = recordsBehind(db, id, AT_ONCE);
    for (let rows = next(0); rows.length > 0; rows = next(rows.at(-1)![0]))
      yield rows
        .map(([record, cells]) =>
          harmlessLine([...at.map((place) => cells[place] ?? ''), ...saidOf(said.get(record), cells[email] ?? '')]),
        )
        .join('');
  }
}

/** What stands in the cell of the address and is none is invalid. */
const saidOf = (said: Said = ['', '', ''], cell: string): Said =>
  said[0] === '' && cell.trim() !== '' ? ['', 'invalid', REASON_WORDS['not-an-address']] : said;

type Said = [address: string, verdict: string, reason: string];

/** By record: the address, its verdict and why. */
function verdictsOf(db: Db, jobId: number): Map<number, Said> {
  const { contacts } = shownOutcome(db, jobId);
  const rows = db.outcomes
    .prepare(`SELECT ${CONTACT_COLUMNS.join(', ')} FROM ${contacts}`)
    .raw()
    .iterate() as Iterable<ContactColumns>;
  const said = new Map<number, Said>();
  for (const columns of rows) {
    const { person, verdict, reason, recordIds } = fromColumns(columns);
    const words = REASON_WORDS[reason as VerdictReason] ?? '';
    for (const record of recordIds)
      said.set(record, [person.email, verdict || (person.email ? 'not verified' : 'none'), words]);
  }
  return said;
}
