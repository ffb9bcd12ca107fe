import { fold } from '../../text/fold';
import type { GroupField, RuleField } from './options';

/** What was said of all who share a value of a field, by field and folded value. */
export type Groups = ReadonlyMap<GroupField, ReadonlyMap<string, 'keep' | 'aside'>>;

/** Values are one group whatever their case, accents and spaces. */
export const groupKey = (value: string): string => fold(value);

/** A rule about a field does not take those who were kept by a group of it. */
export const covers = (by: GroupField, field: string): boolean =>
  by === field || (field === ('place' satisfies RuleField) && (by === 'city' || by === 'region' || by === 'country'));
