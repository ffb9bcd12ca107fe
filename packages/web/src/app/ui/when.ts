const DAY_MS = 86_400_000;

/** A time as one says it: 'today 14:20', 'tomorrow 08:30', 'Mon 30 Nov 08:30'. */
export function whenWords(at: number, now = Date.now()): string {
  const day = (ms: number) => new Date(ms).setHours(0, 0, 0, 0);
  const time = new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  const days = Math.round((day(at) - day(now)) / DAY_MS);
  if (days === 0) return `today ${time}`;
  if (days === 1) return `tomorrow ${time}`;
  const date = new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
  return `${date} ${time}`;
}

/** A day as one says it: 'today', '23 Nov', '12 Mar 2024'. */
export function dayWords(at: number, now = Date.now()): string {
  const [day, today] = [new Date(at), new Date(now)];
  if (day.toDateString() === today.toDateString()) return 'today';
  const year = day.getFullYear() === today.getFullYear() ? undefined : 'numeric';
  return day.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year });
}
