import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import Pick from 'stream-json/filters/Pick.js';
import Parser from 'stream-json/Parser.js';
import StreamArray from 'stream-json/streamers/StreamArray.js';
import StreamValues from 'stream-json/streamers/StreamValues.js';

/** Where a list stands in a document: the names that lead to it; none for a document that is a list itself. */
type Path = readonly string[];

/**
 * The list that a JSON document is, or the longest list of objects that it holds, one item after the other, however long the document
 * is; a document without one is its only item. Throws for what is no JSON.
 */
export async function* listStream(file: string, encoding: string): AsyncGenerator {
  const path = await longestList(file, encoding);
  const tokens = readTokens(file, encoding);
  const items =
    path === null
      ? tokens.pipe(StreamValues.streamValues())
      : path.length === 0
        ? tokens.pipe(StreamArray.streamArray())
        : tokens.pipe(Pick.pick({ filter: (at) => isSame(at, path), once: true })).pipe(StreamArray.streamArray());
  tokens.on('error', (error) => items.destroy(error));
  for await (const { value } of items as AsyncIterable<{ value: unknown }>) yield value;
}

const isSame = (at: readonly (string | number | null)[], path: Path) =>
  at.length === path.length && at.every((part, i) => part === path[i]);

function readTokens(file: string, encoding: string) {
  const source = Readable.from(decoded(file, encoding));
  const tokens = source.pipe(Parser.parser({ streamValues: false }));
  source.on('error', (error) => tokens.destroy(error));
  // Who has read enough lets go of the file, too.
  tokens.on('close', () => source.destroy());
  return tokens;
}

async function* decoded(file: string, encoding: string): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  for await (const bytes of createReadStream(file)) yield decoder.decode(bytes as Buffer, { stream: true });
  yield decoder.decode();
}

interface Token {
  name: string;
  value?: unknown;
}

/** Goes through the document once for its lists, as deep as objects hold objects. Null: there is none of objects. */
async function longestList(file: string, encoding: string): Promise<Path | null> {
  const path: string[] = [];
  let best: { path: Path; items: number } | null = null;
  let list: { items: number; isOfObjects: boolean } | null = null;
  /** How deep inside the list, from 1 among its items; 0: in none. */
  let depth = 0;
  let isList: boolean | null = null;
  const take = ({ name, value }: Token) => {
    const opens = name === 'startObject' || name === 'startArray';
    const closes = name === 'endObject' || name === 'endArray';
    isList ??= name === 'startArray';
    if (depth > 0) {
      if (depth === 1 && !closes && name !== 'keyValue') {
        list!.items++;
        list!.isOfObjects &&= name === 'startObject';
      }
      depth += opens ? 1 : closes ? -1 : 0;
      if (depth === 0) {
        if (list!.isOfObjects && list!.items > (best?.items ?? 0)) best = { path: [...path], items: list!.items };
        path.pop();
      }
    } else if (name === 'keyValue') path.push(String(value));
    else if (name === 'startArray') [list, depth] = [{ items: 0, isOfObjects: true }, 1];
    else if (name !== 'startObject') path.pop();
  };
  for await (const token of readTokens(file, encoding) as AsyncIterable<Token>) {
    take(token);
    // A document that is a list is that list.
    if (isList) break;
  }
  return isList ? [] : ((best as { path: Path } | null)?.path ?? null);
}
