import type { DecisionBody } from '@sieve/core';
import { FIELD_WORDS, STEP_WORDS } from '@sieve/contract';

const people = (n: number) => (n === 1 ? '1 record' : `${n.toLocaleString('en-GB')} records`);

/** What a person decided, in a few words. */
export function decisionWords(body: DecisionBody): string {
  switch (body.kind) {
    case 'bring-in':
      return `${body.name} brought in`;
    case 'set-aside':
      return `${people(body.recordIds.length)} set aside`;
    case 'keep':
      return `${people(body.recordIds.length)} kept`;
    case 'group':
      return `all “${body.title}” ${body.fate === 'aside' ? 'set aside' : 'kept'}`;
    case 'same':
      return 'two records are the same person';
    case 'different':
      return 'two records are two people';
    case 'apart':
      return `${people(body.recordIds.length)} taken apart`;
    case 'edit':
      return `${FIELD_WORDS[body.field]} is “${body.value}”`;
    case 'refuse':
      return `${FIELD_WORDS[body.field]} stays as it came`;
    case 'refuse-like':
      return `${FIELD_WORDS[body.field]} “${body.was}” stays as it came, everywhere`;
    case 'configure':
      return `${STEP_WORDS[body.options.kind]} set up anew`;
  }
}
