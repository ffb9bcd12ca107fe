import { companyOf } from '../company/company-of';
import type { CompanyRow } from '../company/match-companies';
import { heldRulesOf, type HeldRules } from '../match/held-rules';
import type { Person } from '../model/person';
import type { Column } from '../model/target';
import { tidier, type TidyWith } from '../tidy/tidy-row';
import { applyEdits } from '../decisions/apply-edits';
import type { Sorted } from '../decisions/sort-decisions';

/** A record as sifting takes it: tidied, with what a person refused or wrote put over it. */
export interface SiftRow {
  recordId: number;
  person: Person;
  extra: Record<string, string>;
  /** How many of its fields were changed. */
  changes: number;
  /** Nothing in it says who it is. */
  nobody: boolean;
  /** What its source does to what is held already; null: nothing of its own. */
  rules?: HeldRules | null;
}

/** Makes rows about companies of records. */
export function companySifter(options: TidyWith) {
  const tidy = tidier(options);
  return (recordId: number, cells: readonly string[], columns: readonly Column[]): CompanyRow => {
    const { person, extra } = tidy(cells, columns);
    return { recordId, company: companyOf(person), extra };
  };
}

/** Makes rows to sift of records, with what was said of them. */
export function rowSifter(options: TidyWith, said: Sorted) {
  const tidy = tidier(options);
  return (recordId: number, cells: readonly string[], columns: readonly Column[]): SiftRow => {
    const { person, extra, changes, issues } = applyEdits(recordId, tidy(cells, columns), said);
    const nobody = issues.some(({ code }) => code === 'nothing-to-identify');
    return { recordId, person, extra, changes: changes.length, nobody, rules: heldRulesOf(columns) };
  };
}
