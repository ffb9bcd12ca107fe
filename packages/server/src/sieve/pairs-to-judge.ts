import { COMPARED, fullName, type Link, type Weights, type WordLists } from '@sieve/core';
import type { PairGroup, PairView, PairsView } from '@sieve/contract';
import type { Db } from '../db/open';
import { explained, recordViews, weightsOf } from './rows';
import { shownOutcome } from './outcomes';
import { pairsElsewhere } from './pairs-elsewhere';

const MOST_ALIKE = 1000;
const MOST_NAMES = 4;
/** Records that one picture holds. */
const MOST_IN_GROUP = 12;

/**
 * Pairs to judge, least certain first, each with those that hang together with it, and those that show the same; behind them those with
 * other jobs.
 *
 * @param limit most of either
 */
export function pairsToJudge(db: Db, jobId: number, limit: number, lists: WordLists): PairsView {
  const { pairs } = shownOutcome(db, jobId);
  const rows = db.outcomes
    .prepare(`SELECT a, b, chance, pattern FROM ${pairs} WHERE merged = 0 ORDER BY abs(chance - 0.5), a LIMIT ?`)
    .all(limit) as Link[];
  const total = db.outcomes.prepare(`SELECT count(*) FROM ${pairs} WHERE merged = 0`).pluck().get() as number;
  const weights = weightsOf(db, jobId);
  const viewOf = recordViews(db, jobId, lists);
  const alikeOf = alikePairs(db, pairs, rows);
  const groupOf = groupsOf(db, pairs);
  const nameOf = (id: number) => {
    const view = viewOf(id);
    return view ? fullName(view.person) || view.person.email : '';
  };
  const elsewhere = pairsElsewhere(db, jobId, limit);
  const here = rows.flatMap((row): PairView[] => {
    const [shown] = explained([row], viewOf, weights);
    if (!shown) return [];
    const alike = alikeOf(row);
    return [
      {
        ...shown,
        alike,
        alikeNames: alike.slice(0, MOST_NAMES).map(({ a, b }) => `${nameOf(a)} · ${nameOf(b)}`),
        group: groupView(groupOf(row), viewOf),
      },
    ];
  });
  return {
    total: total + elsewhere.total,
    pairs: [...here, ...elsewhere.pairs],
    taught: weights ? mostTaught(weights) : [],
  };
}

type Pair = Pick<Link, 'a' | 'b'>;

/** @returns the other doubtful pairs with the levels of one */
function alikePairs(db: Db, pairs: string, rows: readonly Link[]): (row: Link) => Pair[] {
  const all = db.outcomes
    .prepare(`SELECT a, b, pattern FROM ${pairs} WHERE merged = 0 AND pattern IN (SELECT value FROM json_each(?))`)
    .all(JSON.stringify(rows.map(({ pattern }) => pattern))) as Omit<Link, 'chance'>[];
  return (row) =>
    all
      .filter(({ a, b, pattern }) => pattern === row.pattern && !(a === row.a && b === row.b))
      .slice(0, MOST_ALIKE)
      .map(({ a, b }) => ({ a, b }));
}

type GroupLink = Pair & { chance: number; merged: boolean };

/** @returns all pairs that hang together with one, whether merged or doubtful */
function groupsOf(db: Db, pairs: string): (row: Pair) => GroupLink[] {
  const of = new Map<number, GroupLink[]>();
  const all = db.outcomes.prepare(`SELECT a, b, chance, merged FROM ${pairs}`).raw().all() as number[][];
  for (const [a, b, chance, merged] of all as [number, number, number, number][]) {
    const link = { a, b, chance, merged: merged === 1 };
    for (const record of [a, b]) {
      const known = of.get(record);
      if (known) known.push(link);
      else of.set(record, [link]);
    }
  }
  return ({ a, b }) => {
    const seen = new Set([a, b]);
    for (const record of seen)
      for (const link of of.get(record) ?? [])
        for (const other of [link.a, link.b]) if (seen.size < MOST_IN_GROUP) seen.add(other);
    const links = [...seen].flatMap((record) => of.get(record) ?? []);
    return [...new Set(links)].filter((link) => seen.has(link.a) && seen.has(link.b));
  };
}

function groupView(links: readonly GroupLink[], viewOf: ReturnType<typeof recordViews>): PairGroup | null {
  const ids = [...new Set(links.flatMap(({ a, b }) => [a, b]))].sort((a, b) => a - b);
  if (ids.length <= 2) return null;
  const records = ids.flatMap((id) => {
    const view = viewOf(id);
    if (!view) return [];
    const { person, source, line } = view;
    return [{ id, name: fullName(person) || person.email, company: person.company, source, line }];
  });
  return { records, links: [...links] };
}

const MOST_TAUGHT = 5;
/** Bits that are worth a word. */
const LEAST_BITS = 0.1;

/** The weights that judged pairs changed most. */
const mostTaught = ({ taught }: Weights): PairsView['taught'] =>
  (taught ?? [])
    .flatMap((levels, f) => levels.map((bits, level) => ({ field: COMPARED[f]!, level, bits })))
    .filter(({ bits }) => Math.abs(bits) >= LEAST_BITS)
    .sort((p, q) => Math.abs(q.bits) - Math.abs(p.bits))
    .slice(0, MOST_TAUGHT);
