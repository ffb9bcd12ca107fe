const CODE: Record<string, string> = {};
for (const [digit, letters] of ['', 'BFPV', 'CGJKQSXZ', 'DT', 'L', 'MN', 'R'].entries()) {
  for (const letter of letters) CODE[letter] = String(digit);
}

/**
 * Soundex as the US National Archives code it: letters around an H or W that share a code count once.
 *
 * @param name letters A to Z in any case; others are passed over
 * @returns four characters, '' for a name without letters
 * @example soundex('Ashcraft') // 'A261'
 */
export function soundex(name: string): string {
  const letters = name.toUpperCase().replace(/[^A-Z]/g, '');
  if (letters === '') return '';
  let out = letters[0]!;
  let last = CODE[out] ?? '';
  for (let i = 1; i < letters.length && out.length < 4; i++) {
    const letter = letters[i]!;
    const code = CODE[letter] ?? '';
    if (code !== '' && code !== last) out += code;
    if (letter !== 'H' && letter !== 'W') last = code;
  }
  return out.padEnd(4, '0');
}
