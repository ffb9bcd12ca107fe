import * as z from 'zod';
import { ownValue } from '../../text/own-value';

export const RULE_FIELDS = [
  'any',
  'name',
  'title',
  'level',
  'team',
  'company',
  'sector',
  'headcount',
  'place',
  'domain',
  'email',
  'phone',
  'profile',
  'note',
] as const;
export type RuleField = (typeof RULE_FIELDS)[number];

/** A field of the person's own, by its name. */
export const ownField = z.templateLiteral(['own:', z.string().min(1).max(200)]);

/** The value that a field without one has in a rule. */
export const BLANK = '(blank)';

/** What a value in a rule asks of a field. Bounds are among what lies between them; '' is no bound. */
export type RuleValue =
  | { kind: 'words'; text: string }
  | { kind: 'pattern'; source: string }
  | { kind: 'range'; type: 'number' | 'date'; from: string; to: string }
  | { kind: 'blank' };

export type Fault = 'blank-anywhere' | 'bad-pattern' | 'slow-pattern' | 'bad-bounds';

/**
 * Reads a value of a rule: `(blank)`; `/^(sub|vice)-/`, a regular expression; `50..200`, `2024-01-01..`, a range, of headcounts and of
 * fields of one's own; else whole words in which a star is any letters.
 */
export function readValue(field: string, text: string): RuleValue | { fault: Fault } {
  if (text.toLowerCase() === BLANK) return field === 'any' ? { fault: 'blank-anywhere' } : { kind: 'blank' };
  const pattern = /^\/(.+)\/$/.exec(text)?.[1];
  if (pattern !== undefined) return readPattern(pattern);
  if (field === 'headcount' && /^\d+$/.test(text)) return { kind: 'range', type: 'number', from: text, to: text };
  const bounds = field === 'headcount' || field.startsWith('own:') ? /^(.*?)\s*\.\.\s*(.*)$/.exec(text) : null;
  if (!bounds) return { kind: 'words', text };
  const [from, to] = [bounds[1]!, bounds[2]!];
  for (const type of ['number', 'date'] as const) {
    const [first, last] = [from, to].map((bound) => (bound === '' ? '' : ownValue(type, bound)));
    if (first != null && last != null && first + last !== '') return { kind: 'range', type, from: first, to: last };
  }
  return { fault: 'bad-bounds' };
}

function readPattern(source: string): RuleValue | { fault: Fault } {
  // What is repeated within what is repeated can take a time that doubles with each letter.
  if (/\([^)]*[+*}][^)]*\)[+*{]/.test(source)) return { fault: 'slow-pattern' };
  try {
    new RegExp(source, 'iu');
    return { kind: 'pattern', source };
  } catch {
    return { fault: 'bad-pattern' };
  }
}

/** That a field says one of some values, or, turned round, none of them. */
export const ruleCondition = z
  .object({
    field: z.union([z.enum(RULE_FIELDS), ownField]),
    not: z.boolean().default(false),
    values: z.array(z.string().trim().min(1).max(2000)).min(1).max(500),
  })
  .superRefine(({ field, values }, context) => {
    for (const value of values) {
      const read = readValue(field, value);
      if ('fault' in read) context.addIssue({ code: 'custom', path: ['values'], message: `${read.fault}: ${value}` });
    }
  });
export type RuleCondition = z.output<typeof ruleCondition>;

/** Rules had one condition of one kind before they had several. */
const earlierRule = z.union([
  z.object({ field: z.string(), words: z.array(z.string()), fate: z.string() }),
  z.object({ field: z.string(), is: z.enum(['blank', 'filled']), fate: z.string() }),
  z.object({ field: z.string(), from: z.string(), to: z.string(), fate: z.string() }),
]);

/** A word as it was meant before values could be more than words. */
function asWord(field: string, word: string): string {
  const read = readValue(field, word.trim());
  return 'kind' in read && read.kind === 'words' ? word : `/${word.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&')}/`;
}

function ofEarlier(given: unknown): unknown {
  const { success, data } = earlierRule.safeParse(given);
  if (!success) return given;
  const { field, fate } = data;
  if ('words' in data) return { fate, conditions: [{ field, values: data.words.map((word) => asWord(field, word)) }] };
  if ('is' in data) return { fate, conditions: [{ field, values: [BLANK], not: data.is === 'filled' }] };
  return { fate, conditions: [{ field, values: [`${data.from}..${data.to}`] }] };
}

/** Those of whom all conditions hold are set aside, or only they are kept. */
export const screenRule = z.preprocess(
  ofEarlier,
  z.object({ conditions: z.array(ruleCondition).min(1).max(20), fate: z.enum(['keep', 'aside']) }),
);
export type ScreenRule = z.output<typeof screenRule>;
