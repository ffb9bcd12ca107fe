import { TARGETS, type Target } from '@sieve/core/model/target';
import { TARGET_WORDS } from '@sieve/contract';
import type { Option } from './select/select';

/** What a column can become, as a select lists it. */
export const targetOptions = (column: string): Option<Target>[] =>
  TARGETS.map((value) => ({ value, label: value === 'own' ? `Own field: ${column}` : TARGET_WORDS[value] }));
