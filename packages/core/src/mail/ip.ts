/** 4 or 6 for an IP address in the text form of RFC 5321 4.1.3, 0 for anything else. */
export function isIP(text: string): 0 | 4 | 6 {
  if (isV4(text)) return 4;
  return isV6(text) ? 6 : 0;
}

const isV4 = (text: string): boolean => {
  const parts = text.split('.');
  return parts.length === 4 && parts.every((part) => /^\d{1,3}$/.test(part) && Number(part) <= 255);
};

function isV6(text: string): boolean {
  const halves = text.split('::');
  if (halves.length > 2) return false;
  const groups = halves.flatMap((half) => (half === '' ? [] : half.split(':')));
  const last = groups.at(-1) ?? '';
  const v4 = last.includes('.');
  if (v4 && !isV4(last)) return false;
  const hex = v4 ? groups.slice(0, -1) : groups;
  if (!hex.every((group) => /^[0-9A-Fa-f]{1,4}$/.test(group))) return false;
  const width = hex.length + (v4 ? 2 : 0);
  return halves.length === 2 ? width <= 7 : width === 8;
}
