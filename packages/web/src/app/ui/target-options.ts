import { OWN_TYPES, TARGETS, type OwnType, type Target } from '@sieve/core/model/target';
import { TARGET_WORDS } from '@sieve/contract';
import type { Option } from './select/select';

/** What a column can become, as a select lists it. */
export const targetOptions: Option<Target>[] = TARGETS.map((value) => ({ value, label: TARGET_WORDS[value] }));

const TYPE_WORDS: Record<OwnType, string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  'month-date': 'date, month first',
  'yes-no': 'yes or no',
};

/** What the values of an own field can be. */
export const typeOptions: Option<OwnType>[] = OWN_TYPES.map((value) => ({ value, label: TYPE_WORDS[value] }));
