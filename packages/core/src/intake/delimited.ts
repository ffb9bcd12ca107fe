/** One row of a table as it came. `line` is the line it starts on, counting from 1. */
export interface RawRow {
  line: number;
  cells: string[];
  problem?: 'quote-not-closed' | 'text-after-quote' | 'cell-unreadable' | 'sheet-cut';
}

export interface DelimitedReader {
  /** Rows that are complete after this piece of text. */
  push(text: string): RawRow[];
  /** The rows that were still waiting for text. */
  end(): RawRow[];
}

/** A quoted cell longer than this is taken for a quote that was never closed. Characters. */
const LONGEST_QUOTED = 1 << 20;

/**
 * Reads delimited text piece by piece: RFC 4180 with any one-character delimiter and LF, CRLF or CR lines.
 *
 * A quote that is never closed, or that is closed by the opening quote of a later row, would swallow the
 * rows between. Such a line is read as plain text instead and says so, and reading goes on behind it.
 *
 * @example delimitedReader(',').push('a,"b ""c"""\n') // [{ line: 1, cells: ['a', 'b "c"'] }]
 */
export function delimitedReader(delimiter: string): DelimitedReader {
  let text = '';
  let line = 1;
  let newline: '\n' | '\r' | '' = '';

  function take(last: boolean): RawRow[] {
    const rows: RawRow[] = [];
    let start = 0;
    if (newline === '')
      newline = text.includes('\n') ? '\n' : /\r[^]/.test(text) || (last && text.includes('\r')) ? '\r' : '';
    const end = newline || '\n';
    let quote = text.indexOf('"');
    while (start < text.length) {
      const stop = text.indexOf(end, start);
      if (stop < 0 && !last) break;
      const lineEnd = stop < 0 ? text.length : stop;
      if (quote >= 0 && quote < start) quote = text.indexOf('"', start);
      if (quote < 0 || quote > lineEnd) {
        rows.push({ line, cells: withoutCr(text.slice(start, lineEnd)).split(delimiter) });
        line++;
        start = lineEnd + 1;
        continue;
      }
      const read = readQuoted(text, start, delimiter, end, last);
      if (read === 'more') break;
      rows.push({ line, cells: read.cells, ...(read.problem && { problem: read.problem }) });
      line += read.lines;
      start = read.next;
    }
    text = text.slice(start);
    return rows;
  }

  return {
    push: (piece) => {
      text += piece;
      return take(false);
    },
    end: () => take(true),
  };
}

interface QuotedRow {
  cells: string[];
  next: number;
  lines: number;
  problem?: RawRow['problem'];
}

function readQuoted(
  text: string,
  start: number,
  delimiter: string,
  newline: string,
  last: boolean,
): QuotedRow | 'more' {
  const cells: string[] = [];
  let at = start;
  let lines = 1;
  let problem: RawRow['problem'];
  for (;;) {
    let cell: string;
    if (text[at] === '"') {
      const close = closingQuote(text, at + 1);
      if (close < 0) {
        if (!last && text.length - at < LONGEST_QUOTED) return 'more';
        return readPlain(text, start, delimiter, newline);
      }
      const inner = text.slice(at + 1, close);
      const breaks = count(inner, newline);
      if (close - at > LONGEST_QUOTED) return readPlain(text, start, delimiter, newline);
      at = close + 1;
      cell = inner.includes('""') ? inner.replaceAll('""', '"') : inner;
      const after = nextOf(text, at, delimiter, newline);
      if (after === text.length && !last) return 'more';
      const rest = withoutCr(text.slice(at, after));
      if (rest.trim() !== '') {
        if (breaks > 0) return readPlain(text, start, delimiter, newline);
        problem = 'text-after-quote';
        cell += rest;
      }
      lines += breaks;
      at = after;
    } else {
      const after = nextOf(text, at, delimiter, newline);
      if (after === text.length && !last) return 'more';
      cell = text.slice(at, after);
      if (text[after] !== delimiter) cell = withoutCr(cell);
      at = after;
    }
    cells.push(cell);
    if (text[at] !== delimiter || at >= text.length) break;
    at++;
  }
  return { cells, next: at + 1, lines, ...(problem && { problem }) };
}

function readPlain(text: string, start: number, delimiter: string, newline: string): QuotedRow {
  const stop = text.indexOf(newline, start);
  const end = stop < 0 ? text.length : stop;
  return {
    cells: withoutCr(text.slice(start, end)).split(delimiter),
    next: end + 1,
    lines: 1,
    problem: 'quote-not-closed',
  };
}

function closingQuote(text: string, from: number): number {
  let at = text.indexOf('"', from);
  while (at >= 0 && text[at + 1] === '"') at = text.indexOf('"', at + 2);
  return at;
}

function nextOf(text: string, from: number, delimiter: string, newline: string): number {
  for (let at = from; at < text.length; at++) {
    const char = text[at];
    if (char === delimiter || char === newline) return at;
  }
  return text.length;
}

const withoutCr = (s: string) => (s.endsWith('\r') ? s.slice(0, -1) : s);

function count(text: string, piece: string): number {
  let n = 0;
  for (let at = text.indexOf(piece); at >= 0; at = text.indexOf(piece, at + 1)) n++;
  return n;
}
