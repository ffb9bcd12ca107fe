const LONGEST_WAIT_MS = 30_000;

/**
 * How long to wait before a question is asked again: what the answer says in Retry-After, in seconds or as a date (RFC 9110
 * 10.2.3), else `usualMs`; never longer than `longestMs`, half a minute where somebody waits.
 */
export function retryAfterMs(headers: Headers, usualMs: number, now: number, longestMs = LONGEST_WAIT_MS): number {
  const said = headers.get('retry-after');
  if (said === null || said.trim() === '') return usualMs;
  const seconds = Number(said);
  const ms = Number.isFinite(seconds) ? seconds * 1000 : Date.parse(said) - now;
  return Number.isNaN(ms) ? usualMs : Math.min(longestMs, Math.max(0, ms));
}
