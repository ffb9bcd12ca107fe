const PLAIN = /^[a-z0-9]*$/;

/** Letters and digits only, lower case, without accents: 'O’Connor-Núñez' becomes 'oconnornunez'. */
export function fold(text: string): string {
  if (PLAIN.test(text)) return text;
  const lower = text.toLowerCase();
  const plain = /^[\x20-\x7e]*$/.test(lower)
    ? lower
    : lower
        .normalize('NFKD')
        .replace(/ß/g, 'ss')
        .replace(/æ/g, 'ae')
        .replace(/ø/g, 'o')
        .replace(/ł/g, 'l')
        .replace(/đ/g, 'd');
  return plain.replace(/[^\p{L}\p{N}]+/gu, '');
}
