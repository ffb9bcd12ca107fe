/** Every code of a thing that can be wrong with data. A bad row is data, not an exception. */
export type IssueCode =
  // intake: the row could not be read
  | 'cell-too-long'
  | 'quote-not-closed'
  | 'row-too-long'
  | 'sheet-cut'
  | 'record-unreadable'
  | 'not-new'
  | 'exported-before'
  // intake: the row was read, but is worth a look
  | 'text-after-quote'
  | 'cell-unreadable'
  | 'looks-like-a-total'
  | 'too-many-cells'
  | 'too-few-cells'
  | 'undecodable-characters'
  // tidy
  | 'not-an-email'
  | 'not-a-phone'
  | 'digits-lost'
  | 'not-a-link'
  | 'not-of-its-type'
  | 'two-people'
  | 'nothing-to-identify';

export interface Issue {
  code: IssueCode;
  field: string;
  input: string;
}

/** A thing that was wrong with one row of a file. `line` counts from 1, as an editor does. */
export interface RowIssue extends Issue {
  line: number;
  /** false when the row did not come in. */
  kept: boolean;
}
