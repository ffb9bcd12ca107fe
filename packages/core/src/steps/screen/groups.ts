import { fold } from '../../text/fold';
import type { Person } from '../../model/person';
import type { GroupBy, GroupField } from './options';
import { ownText, type Extra } from './rule-test';
import type { RuleField } from './rules';

/** What was said of all who share a value of a field, by field and folded value. */
export type Groups = ReadonlyMap<GroupBy, ReadonlyMap<string, 'keep' | 'aside'>>;

/** Values are one group whatever their case, accents and spaces. */
export const groupKey = (value: string): string => fold(value);

const isOwn = (by: GroupBy): by is Exclude<GroupBy, GroupField> => by.startsWith('own:');

/** The value by which somebody is in a group; '' for none. */
export const groupValue = (by: GroupBy, p: Person, extra: Extra): string => (isOwn(by) ? ownText(by, extra) : p[by]);

/** A rule about a field does not take those who were kept by a group of it. */
export const covers = (by: GroupBy, field: string): boolean =>
  by === field || (field === ('place' satisfies RuleField) && (by === 'city' || by === 'region' || by === 'country'));
