import type { PersonField } from '../model/person';
import type { TidyRow } from '../tidy/tidy-row';
import type { Sorted } from './sort-decisions';

/**
 * What a person refused or wrote by hand, put over what tidying made of a row. A row that nobody spoke of is
 * returned as it is.
 */
export function applyEdits(recordId: number, row: TidyRow, decisions: Sorted): TidyRow {
  const { person, changes } = row;
  const refused = new Map<PersonField, string>();
  for (const change of changes) {
    const one = decisions.refused.get(recordId)?.has(change.field);
    const all = decisions.refusedLike.some(
      (like) => like.field === change.field && like.was === change.was && like.is === change.is,
    );
    if (one || all) refused.set(change.field, change.was);
  }
  const edits = decisions.edits.get(recordId);
  if (refused.size === 0 && !edits) return row;
  const out: TidyRow = {
    ...row,
    person: { ...person },
    changes: changes.filter((change) => !refused.has(change.field)),
  };
  for (const [field, was] of refused) out.person[field] = was;
  for (const [field, value] of edits ?? []) {
    const was = out.changes.find((change) => change.field === field)?.was ?? out.person[field];
    out.person[field] = value;
    out.changes = [
      ...out.changes.filter((change) => change.field !== field),
      { field, was, is: value, why: ['edited'] },
    ];
  }
  return out;
}
