import { SEARCH_FIELDS, type Condition, type Search } from '../model/search';
import { printRange } from './print';

const labelOf = (key: string) => SEARCH_FIELDS.find((field) => field.key === key)?.label ?? key;

/** A condition as a person would say it, short: of a long list the first values and how many more. */
export function describeCondition(given: Condition, most = 3): string {
  const values =
    'terms' in given
      ? given.terms.map(({ text }) => text)
      : given.ranges.map(({ from, to }) =>
          from === null && to === null
            ? 'known'
            : from === null
              ? `up to ${to}`
              : to === null
                ? `${from} and up`
                : printRange({ from, to }).replace('..', ' to '),
        );
  const more = values.length - most;
  const shown = values.slice(0, more > 0 ? most : undefined).join(', ') + (more > 0 ? ` and ${more} more` : '');
  return `${labelOf(given.field)}: ${given.not ? 'not ' : ''}${shown}`;
}

/** A name for a search, from its conditions. */
export function proposeName({ about, conditions }: Search): string {
  const first = { people: 'People', companies: 'Companies', postings: 'Postings' }[about];
  const said = conditions
    .filter(({ not }) => !not)
    .slice(0, 3)
    .map((given) => describeCondition(given, 2).replace(/^[^:]+: /, ''));
  const name = [first, ...said].join(' · ');
  return name.length > 80 ? `${name.slice(0, 79).trimEnd()}…` : name;
}
