/** 31 December 9999, the last day that a workbook knows. */
const LAST_DAY = 2_958_465;

/** The index of the column of a reference like `AB12`; null when it names none. */
export function columnOf(reference: string): number | null {
  let column = 0;
  for (let i = 0; i < reference.length && i < 8; i++) {
    const letter = reference.charCodeAt(i) & ~32;
    if (letter < 65 || letter > 90) break;
    column = column * 26 + letter - 64;
  }
  return column === 0 ? null : column - 1;
}

/** A number as it is written out; one that no cell can show in full keeps its own spelling. */
export function numberText(value: string): string {
  const number = Number(value);
  return Number.isFinite(number) && (Number.isSafeInteger(number) || !/^-?\d+$/.test(value)) ? String(number) : value;
}

/**
 * A count of days as an ISO date, with the time where it has one, or a time alone within the first day. What is no day of a
 * workbook, a phone number in a date's cell for instance, stays a number.
 */
export function dateText(value: string, from1904: boolean): string {
  const days = Number(value);
  if (value.trim() === '' || !Number.isFinite(days) || days < 0 || days > LAST_DAY) return numberText(value);
  // The first is 1 January 1900, and by an old mistake 29 February 1900 is counted as well.
  const first = from1904 ? Date.UTC(1904, 0, 1) : Date.UTC(1899, 11, days < 60 ? 31 : 30);
  const iso = new Date(first + Math.round(days * 86_400) * 1000).toISOString();
  if (days < 1) return iso.slice(11, 19);
  return Number.isInteger(days) ? iso.slice(0, 10) : iso.slice(0, 19).replace('T', ' ');
}
