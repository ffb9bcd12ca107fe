import { titleReader, type TitleWord } from '@sieve/core';
import type { TitleChanges } from '@sieve/contract';
import type { Db } from '../db/open';
import { shownOutcomes } from './outcomes';

/** What other words of titles would change over all jobs: contacts, and the titles that most of them have. */
export function titleChanges(
  db: Db,
  now: readonly TitleWord[],
  then: readonly TitleWord[],
  most: number,
): TitleChanges {
  const [before, after] = [titleReader(now), titleReader(then)];
  const counted = new Map<string, number>();
  for (const { contacts } of shownOutcomes(db))
    for (const { title, count } of db.outcomes
      .prepare(`SELECT title, count(*) AS count FROM ${contacts} WHERE title <> '' GROUP BY title`)
      .all() as { title: string; count: number }[])
      counted.set(title, (counted.get(title) ?? 0) + count);
  const titles = [...counted].flatMap(([title, count]) => {
    const [was, is] = [before(title), after(title)];
    return was.level === is.level && was.team === is.team ? [] : [{ title, count, was, is }];
  });
  titles.sort((a, b) => b.count - a.count);
  return { contacts: titles.reduce((sum, { count }) => sum + count, 0), titles: titles.slice(0, most) };
}
