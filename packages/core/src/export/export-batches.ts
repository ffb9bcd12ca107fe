/** A part of an export: `from` is the index of its first row, `rows` how many it holds. */
export interface ExportBatch {
  name: string;
  from: number;
  rows: number;
}

/**
 * Cuts an export into files of at most `each` rows; 0 for one file. The rows are kept in order, none twice, none lost.
 *
 * @param pattern file name with `{job}`, `{date}` and `{n}`; `{n}` is added when several files need it
 */
export function exportBatches(
  total: number,
  each: number,
  pattern: string,
  extension: string,
  words: { job: string; date: string },
): ExportBatch[] {
  const size = each > 0 ? each : Math.max(1, total);
  const count = Math.max(1, Math.ceil(total / size));
  const width = String(count).length;
  const template = count > 1 && !pattern.includes('{n}') ? `${pattern}-{n}` : pattern;
  const numbers = Array.from({ length: count }, (_, i) => String(i + 1).padStart(width, '0'));
  const named = (n: string) => fileName(template, { ...words, n });
  let names = numbers.map(named);
  // What is cut is never the number: no two files have one name.
  if (names.some((name) => name.length > LONGEST) || new Set(names).size < count)
    names = numbers.map((n) =>
      count > 1 ? `${named('').slice(0, LONGEST - width - 1)}-${n}` : named(n).slice(0, LONGEST),
    );
  return names.map((name, i) => ({
    name: `${RESERVED.test(name) ? 'export-' : ''}${name}.${extension}`,
    from: i * size,
    rows: Math.min(size, total - i * size),
  }));
}

const LONGEST = 100;
/** Names that Windows keeps for devices, whatever follows the first dot. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/;

function fileName(template: string, words: Record<string, string>): string {
  const filled = template.replace(/\{(\w+)\}/g, (whole, key: string) =>
    Object.hasOwn(words, key) ? words[key]! : whole,
  );
  return (
    filled
      .normalize('NFKD')
      .replace(/[^\w.\- ]+/g, '')
      .trim()
      .replace(/\s+/g, '-')
      .replace(/^[.-]+/, '')
      .toLowerCase() || 'export'
  );
}
