/** What is known of a contact's company beside the fields of the person. */
export interface Firm {
  /** What its website answers to the job's question; '' when it was not asked, or could not be. */
  answer: 'yes' | 'no' | 'unclear' | '';
  /** How likely a yes is, 0 to 1; 0.5 where nothing speaks. */
  yes: number;
  by: 'words' | 'learned' | 'model' | 'hand' | '';
  /** In per cent a year; null when that is not known. */
  growth: number | null;
  technology: readonly string[];
  hiring: readonly string[];
  /** What its people read about this week; null when that is not known. */
  topics: readonly string[] | null;
}

export const NOTHING_KNOWN: Firm = {
  answer: '',
  yes: 0.5,
  by: '',
  growth: null,
  technology: [],
  hiring: [],
  topics: null,
};
