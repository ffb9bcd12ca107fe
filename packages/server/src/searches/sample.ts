import {
  briefFit,
  describeCondition,
  looseTerms,
  misfits,
  quoted,
  split,
  wilson,
  parseTitle,
  titleReader,
  type Brief,
  type Search,
  type WordLists,
} from '@sieve/core';
import { FATE_WORDS, MISFIT_WORDS, say, type DirectoryRow, type SampleView } from '@sieve/contract';
import { capOf, type Directory } from '../outside/directory/port';

/**
 * Draws rows at random over the whole result, each with the same chance: where the directory shows only a part of it, over
 * the batches of its split. Each is checked against the search, phrases meant as phrases, and against all of a brief.
 */
export async function drawSample(
  directory: Directory,
  search: Search,
  size: number,
  brief: Brief | null,
  { titleWords }: Pick<WordLists, 'titleWords'>,
  random: () => number,
  signal: AbortSignal,
): Promise<SampleView> {
  const total = await directory.count(search, signal);
  const cap = capOf(directory, search.about);
  const parts =
    total <= cap
      ? [{ search, count: total }]
      : (
          await split(search, cap, {
            count: (asked) => directory.count(asked, signal),
            facet: (asked, field) => directory.facet(asked, field, signal),
          })
        ).batches.map((part) => ({ search: part.search, count: Math.min(part.count, cap) }));
  const reach = parts.reduce((sum, { count }) => sum + count, 0);
  const places = [...drawn(parts, Math.min(size, reach), directory.pageSize, random)].flatMap(([part, pages]) =>
    [...pages].map(([page, at]) => ({ part, page, at })),
  );
  const rows = await Promise.all(
    places.map(async ({ part, page, at }): Promise<DirectoryRow[]> => {
      const shown = (await directory.page(part.search, page, signal)).rows;
      return at.flatMap((place) => shown[place] ?? []);
    }),
  ).then((found) => found.flat());
  const meaningOf = titleReader(titleWords);
  const fits = brief && briefFit(brief, meaningOf);
  const checked = rows.map((row) => {
    const lacks = misfits(search, row.found);
    const why = lacks.map(
      ({ condition, code }) =>
        `${describeCondition(search.conditions[condition]!, 1).split(':')[0]}: ${MISFIT_WORDS[code]}`,
    );
    const titled = lacks.some(({ condition }) => search.conditions[condition]!.field === 'title');
    const misfit = fits?.(personOf(row, meaningOf), (part) => titled && part === 'title');
    if (misfit) why.push(say(FATE_WORDS[misfit.code]!, misfit.why));
    return { row, fits: why.length === 0, why };
  });
  const fit = checked.filter(({ fits }) => fits).length;
  const { low, high } = wilson(fit, checked.length);
  const loose = looseTerms(
    search,
    checked.map(({ row, fits }) => ({ found: row.found, fits })),
  ).slice(0, 3);
  return {
    total,
    reach,
    rows: checked,
    fit,
    promised: {
      low: Math.floor(low * total),
      likely: checked.length > 0 ? Math.round((fit / checked.length) * total) : 0,
      high: Math.ceil(high * total),
    },
    loose: await Promise.all(
      loose.map(async ({ condition, term, text, misfits: count }) => ({
        condition,
        term,
        text,
        misfits: count,
        quotedCount: await directory.count(quoted(search, { condition, term }), signal),
      })),
    ),
  };
}

/** Different places over all parts, by part and page. */
function drawn<T extends { count: number }>(parts: readonly T[], size: number, pageSize: number, random: () => number) {
  const whole = parts.reduce((sum, { count }) => sum + count, 0);
  const chosen = new Set<number>();
  while (chosen.size < size) chosen.add(Math.floor(random() * whole));
  const out = new Map<T, Map<number, number[]>>();
  for (const place of [...chosen].sort((a, b) => a - b)) {
    let left = place;
    const part = parts.find(({ count }) => left < count || ((left -= count), false))!;
    const pages = out.get(part) ?? new Map<number, number[]>();
    const page = Math.floor(left / pageSize) + 1;
    pages.set(page, [...(pages.get(page) ?? []), left % pageSize]);
    out.set(part, pages);
  }
  return out;
}

/** What the brief looks at, of a row as the directory shows it; level and team as the sieve will read them. */
function personOf({ title, found }: DirectoryRow, meaningOf: ReturnType<typeof titleReader>) {
  const text = (key: string) => (typeof found[key] === 'string' ? found[key] : '');
  const { level, team } = parseTitle(title, meaningOf);
  return {
    title,
    level,
    team,
    city: text('city'),
    region: text('region'),
    country: text('country'),
    sector: text('sector'),
    headcount: text('headcount'),
  };
}
