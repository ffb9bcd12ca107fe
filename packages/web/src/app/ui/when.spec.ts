import { whenWords } from './when';

it('a time is said as one says it', () => {
  const now = new Date('2026-11-25T10:00').getTime();
  const words = (at: string) => whenWords(new Date(at).getTime(), now);
  expect([words('2026-11-25T14:20'), words('2026-11-26T08:30'), words('2026-11-30T08:30')]).toEqual([
    'today 14:20',
    'tomorrow 08:30',
    'Mon 30 Nov 08:30',
  ]);
});
