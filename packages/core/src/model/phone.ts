/**
 * What a number reaches. `landline`: a fixed line of which nobody says more; `unclear`: not even its plan does; `none`: one was looked for
 * and none is known.
 */
export const PHONE_KINDS = ['mobile', 'direct', 'switchboard', 'landline', 'unclear', 'none'] as const;
export type PhoneKind = (typeof PHONE_KINDS)[number];

/** Passes of asking for a phone, each wider than the one before: as somebody is named, by the last name alone, at earlier addresses. */
export const PHONE_PASSES = ['full', 'last', 'earlier'] as const;
export type PhonePass = (typeof PHONE_PASSES)[number];

/** What is known of somebody's phone, or that none was found. */
export interface KnownPhone {
  kind: PhoneKind;
  /** The pass that found it; null: it was not looked for. */
  pass: PhonePass | null;
  /** Under whose name it is listed, '' when it was not looked for. */
  listedAs: string;
  /** How likely it reaches them, 0 to 1. */
  sure: number;
  /** People of another firm carry it too. */
  doubted: boolean;
  /** Further numbers, the likeliest first. */
  others: string[];
}
