/**
 * One form for an email address: no display name, no mailto, no trailing punctuation, the domain in lower case.
 * The local part is lowered too: no mail system in use tells addresses apart by it (common practice, no source).
 *
 * @returns '' when there is no address in the input
 * @example normaliseEmail('Maren <mailto:M.Oakhill@Brackenfold.example>;') // 'm.oakhill@brackenfold.example'
 */
export function normaliseEmail(input: string): string {
  const text = input
    .trim()
    .replace(/\s*(\(|\[)\s*at\s*(\)|\])\s*/i, '@')
    .replace(/\s*(\(|\[)\s*dot\s*(\)|\])\s*/gi, '.');
  const inner = /<\s*(?:mailto:)?([^<>]+?)\s*>/i.exec(text)?.[1] ?? text.replace(/^mailto:/i, '');
  const address = inner
    .split(/[;,]\s*|\s+(?=\S+@)/)[0]!
    .replace(/[?].*$/, '')
    .replace(/[.;,\s]+$/, '')
    .trim();
  return /^[^\s@]+@[^\s@]+$/.test(address) ? address.toLowerCase() : '';
}
