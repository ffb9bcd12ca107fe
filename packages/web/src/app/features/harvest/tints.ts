/** Colours of the fields, in their order and again from the first: as the page's own tints, stronger. */
const TINTS = ['#1d5b50', '#8fa56b', '#c4a855', '#7c9bb8', '#a77f97', '#8e978d', '#b28a5c', '#6ea3a3'] as const;
export const tintOf = (field: number): string => TINTS[field % TINTS.length]!;
