import { placesIn, REST, type FieldPlace, type HarvestField } from './fields';
import type { PageNode } from './page';
import type { RecordSet } from './record-sets';

/** What a set is known by on the pages after: where it stands, and what its records hold. */
export interface KnownSet {
  /** Tags and classes from the body down to the first record. */
  path: string[];
  fields: FieldPlace[];
  /** The key of the field by which a record is itself; '' for all of them together. */
  identity: string;
}

/** The field by which a record is itself, whatever else of it changes: the first link that each record has, and no two the same; '' for none. */
export const identityOf = (fields: readonly HarvestField[]): string =>
  fields.find(
    ({ key, values }) => /@link(~\d+)?$/.test(key) && values.every(Boolean) && new Set(values).size === values.length,
  )?.key ?? '';

/** So much of what the records hold has to be as it was; less is another layout, which nobody wants to be guessed. */
const ALIKE = 0.5;
/** What standing at the same place counts beside holding the same. */
const PLACE = 0.4;
const LOOKED_AT = 50;

export const pathOf = ({ records }: RecordSet): string[] => {
  const path: string[] = [];
  for (let at: PageNode | null = records[0]![0]!; at?.parent; at = at.parent)
    path.unshift([at.tag, ...at.classes].join('.'));
  return path;
};

/** Finds a set again among those of another page; undefined where nothing there is like it. */
export function sameSet(sets: readonly RecordSet[], known: Pick<KnownSet, 'path' | 'fields'>): RecordSet | undefined {
  const keys = known.fields.map(({ key }) => key).filter((key) => key !== REST.key);
  let best: { set: RecordSet; likeness: number } | undefined;
  for (const set of sets) {
    const holds = holdsOf(set, known.fields, keys);
    if (holds < ALIKE) continue;
    const likeness = holds + PLACE * shareInCommon(pathOf(set), known.path);
    if (!best || likeness > best.likeness) best = { set, likeness };
  }
  return best?.set;
}

/** How alike: how much of what each record holds is among the fields, and how many of the fields are held by any. */
function holdsOf(set: RecordSet, fields: readonly FieldPlace[], keys: readonly string[]): number {
  const places = placesIn({ ...set, records: set.records.slice(0, LOOKED_AT) }, fields);
  const known = new Set(keys);
  const seen = new Set(places.flatMap((some) => [...some]));
  const shares = places.map((some) =>
    some.size === 0 ? 0 : [...some].filter((key) => known.has(key)).length / some.size,
  );
  const mean = shares.reduce((sum, share) => sum + share, 0) / Math.max(1, shares.length);
  const found = keys.filter((key) => seen.has(key)).length / Math.max(1, keys.length);
  return (2 * mean + found) / 3;
}

function shareInCommon(a: readonly string[], b: readonly string[]): number {
  const longest = Math.max(a.length, b.length);
  let same = 0;
  while (same < Math.min(a.length, b.length) && a[same] === b[same]) same++;
  return longest === 0 ? 1 : same / longest;
}
