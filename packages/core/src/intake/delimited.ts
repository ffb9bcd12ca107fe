/** One row of a table as it came. `line` is the line it starts on, counting from 1. */
export interface RawRow {
  line: number;
  cells: string[];
  problem?:
    'quote-not-closed' | 'text-after-quote' | 'row-too-long' | 'cell-unreadable' | 'sheet-cut' | 'record-unreadable';
}

export interface DelimitedReader {
  /** Rows that are complete after this piece of text. */
  push(text: string): RawRow[];
  /** The rows that were still waiting for text. */
  end(): RawRow[];
}

/** A quoted cell longer than this is taken for a quote that was never closed. Characters. */
const LONGEST_QUOTED = 1 << 20;
/** A row longer than this is told and passed over, so that a file without line ends takes no more memory than others. Characters. */
const LONGEST_ROW = 1 << 22;
const SHOWN_OF_LONG = 300;

/**
 * Reads delimited text piece by piece: RFC 4180 with any one-character delimiter; a row ends with LF, CRLF or CR, also mixed.
 *
 * A quote that is never closed, or that is closed by the opening quote of a later row, would swallow the
 * rows between. Such a line is read as plain text instead and says so, and reading goes on behind it.
 *
 * @example delimitedReader(',').push('a,"b ""c"""\n') // [{ line: 1, cells: ['a', 'b "c"'] }]
 */
export function delimitedReader(delimiter: string): DelimitedReader {
  let text = '';
  let line = 1;
  /** Behind the beginning of a row that is too long. */
  let passing = false;

  function take(last: boolean): RawRow[] {
    const rows: RawRow[] = [];
    let start = 0;
    const ends = rowEnds(text);
    let quote = text.indexOf('"');
    while (start < text.length) {
      const stop = ends.from(start);
      // A CR at the very end may be half of a CRLF.
      const whole = stop < text.length && (last || stop + 1 < text.length || text[stop] === '\n');
      if (passing) {
        start = whole ? behind(text, stop) : stop;
        if (!whole) break;
        passing = false;
        line++;
        continue;
      }
      if (quote >= 0 && quote < start) quote = text.indexOf('"', start);
      if (quote < 0 || quote > stop) {
        if (!whole && !last) break;
        rows.push({ line, cells: text.slice(start, stop).split(delimiter) });
        line++;
        start = behind(text, stop);
        continue;
      }
      const read = readQuoted(text, start, delimiter, ends, last);
      if (read === 'more') break;
      rows.push({ line, cells: read.cells, ...(read.problem && { problem: read.problem }) });
      line += read.lines;
      start = read.next;
    }
    text = text.slice(start);
    if (text.length > LONGEST_ROW) {
      rows.push({ line, cells: [text.slice(0, SHOWN_OF_LONG)], problem: 'row-too-long' });
      text = '';
      passing = true;
    }
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

/** Finds the ends of rows in a text, in order. */
function rowEnds(text: string) {
  let lf = -1;
  let cr = -1;
  const next = (char: string, from: number) => {
    const at = text.indexOf(char, from);
    return at < 0 ? text.length : at;
  };
  return {
    /** Where the row ends that begins here: at its LF or CR, or at the end of the text. */
    from(start: number): number {
      if (lf < start) lf = next('\n', start);
      if (cr < start) cr = next('\r', start);
      return Math.min(lf, cr);
    },
  };
}

type RowEnds = ReturnType<typeof rowEnds>;

/** Where the next row begins when one ends here. */
const behind = (text: string, end: number): number => end + (text[end] === '\r' && text[end + 1] === '\n' ? 2 : 1);

interface QuotedRow {
  cells: string[];
  next: number;
  lines: number;
  problem?: RawRow['problem'];
}

function readQuoted(text: string, start: number, delimiter: string, ends: RowEnds, last: boolean): QuotedRow | 'more' {
  /** More text may still belong to the cell that ends here: it is the end, or a CR that an LF may follow. */
  const isOpen = (at: number) => !last && (at >= text.length || (at === text.length - 1 && text[at] === '\r'));
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
        return readPlain(text, start, delimiter, ends);
      }
      const inner = text.slice(at + 1, close);
      const breaks = inner.match(/\r\n?|\n/g)?.length ?? 0;
      if (close - at > LONGEST_QUOTED) return readPlain(text, start, delimiter, ends);
      at = close + 1;
      cell = inner.includes('""') ? inner.replaceAll('""', '"') : inner;
      const after = nextOf(text, at, delimiter);
      if (isOpen(after)) return 'more';
      const rest = text.slice(at, after);
      if (rest.trim() !== '') {
        if (breaks > 0) return readPlain(text, start, delimiter, ends);
        problem = 'text-after-quote';
        cell += rest;
      }
      lines += breaks;
      at = after;
    } else {
      const after = nextOf(text, at, delimiter);
      if (isOpen(after)) return 'more';
      cell = text.slice(at, after);
      at = after;
    }
    cells.push(cell);
    if (text[at] !== delimiter || at >= text.length) break;
    at++;
  }
  return { cells, next: behind(text, at), lines, ...(problem && { problem }) };
}

function readPlain(text: string, start: number, delimiter: string, ends: RowEnds): QuotedRow {
  const end = ends.from(start);
  return {
    cells: text.slice(start, end).split(delimiter),
    next: behind(text, end),
    lines: 1,
    problem: 'quote-not-closed',
  };
}

function closingQuote(text: string, from: number): number {
  let at = text.indexOf('"', from);
  while (at >= 0 && text[at + 1] === '"') at = text.indexOf('"', at + 2);
  return at;
}

function nextOf(text: string, from: number, delimiter: string): number {
  for (let at = from; at < text.length; at++) {
    const char = text[at];
    if (char === delimiter || char === '\n' || char === '\r') return at;
  }
  return text.length;
}
