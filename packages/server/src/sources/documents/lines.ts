import { createReadStream } from 'node:fs';

/** A line that is longer is cut there: what is behind it is of no record. */
const LONGEST_LINE = 4 * 1024 * 1024;

/** The lines of a text file, numbered from 1, without their ends (LF, CRLF or CR). Memory is bounded, however long a line is. */
export async function* linesOf(file: string, encoding: string): AsyncGenerator<{ line: number; text: string }> {
  const decoder = new TextDecoder(encoding);
  let rest = '';
  let line = 0;
  let isCut = false;
  const take = function* (text: string, isLast: boolean) {
    rest += text;
    // A CR at the end may be the first half of a CRLF.
    const known = rest.endsWith('\r') ? rest.length - 2 : rest.length - 1;
    const end = Math.max(rest.lastIndexOf('\n', known), rest.lastIndexOf('\r', known)) + 1;
    const whole = isLast ? rest : rest.slice(0, end);
    rest = rest.slice(whole.length);
    if (rest.length > LONGEST_LINE) {
      if (!isCut) yield { line: ++line, text: rest.slice(0, LONGEST_LINE) };
      isCut = true;
      rest = '';
    }
    if (whole === '') return;
    const lines = whole.split(/\r\n|\n|\r/);
    if (/[\r\n]$/.test(whole)) lines.pop();
    for (const one of lines) {
      if (!isCut) yield { line: ++line, text: one };
      isCut = false;
    }
  };
  for await (const chunk of createReadStream(file, { highWaterMark: 256 * 1024 }))
    yield* take(decoder.decode(chunk as Buffer, { stream: true }), false);
  yield* take(decoder.decode(), true);
}
