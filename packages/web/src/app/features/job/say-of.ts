import type { DecisionBody, PersonField } from '@sieve/core';
import type { ContactView } from '@sieve/contract';

type Said = Pick<ContactView, 'recordIds' | 'fate' | 'title' | 'person'>;

/** What can be decided about a contact, wherever it is shown. */
export const sayOf = {
  keep: ({ recordIds, fate }: Said): DecisionBody => ({ kind: 'keep', recordIds, step: fate.step ?? 'verify' }),
  setAside: ({ recordIds }: Said): DecisionBody => ({ kind: 'set-aside', recordIds }),
  keepAllLikeIt: ({ title }: Said): DecisionBody => ({ kind: 'group', by: 'title', value: title, fate: 'keep' }),
  takeApart: ({ recordIds }: Said): DecisionBody => ({ kind: 'apart', recordIds }),
  /** '' for none of those that were found. */
  theirProfile: ({ recordIds }: Said, link: string): DecisionBody => ({ kind: 'profile', recordIds, link }),
  refuse: (recordId: number, field: PersonField): DecisionBody => ({ kind: 'refuse', recordId, field }),
  refuseLike: ({ field, was, is }: { field: PersonField; was: string; is: string }): DecisionBody => ({
    kind: 'refuse-like',
    field,
    was,
    is,
  }),
  /** Null where it says what stands there. */
  write: ({ recordIds, person }: Said, field: PersonField, value: string): DecisionBody | null =>
    value.trim() === person[field] ? null : { kind: 'edit', recordIds, field, value: value.trim() },
};
