/**
 * How many people a headcount as it is written stands for: `120`, `51-200`, `11 to 50`, `1,001+`, `over 500`, `under 10`.
 *
 * @returns the least and the most, both included; null where no number can be read
 */
export function headcountRange(text: string): { from: number; to: number } | null {
  const numbers = [...text.replaceAll(/(?<=\d)[,.' \u00a0\u202f](?=\d{3}(?!\d))/g, '').matchAll(/\d+/g)].map(Number);
  const [first, second] = numbers;
  if (first === undefined || numbers.length > 2) return null;
  if (second !== undefined) return { from: Math.min(first, second), to: Math.max(first, second) };
  if (/\+|>|\b(over|more than|above|from|min)\b/i.test(text)) return { from: first, to: Infinity };
  if (/<|\b(under|less than|below|up to|max)\b/i.test(text)) return { from: 0, to: first };
  return { from: first, to: first };
}
