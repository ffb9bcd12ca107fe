import { LONGEST_CELL } from '@sieve/core';
import { broken, type Parts } from './zip';
import { attribute, hearAll, type Heard } from './xml';

/** What the sheets of a workbook share (ECMA-376, part 1, chapter 18). */
export interface Book {
  sheets: { name: string; part: string }[];
  /** Text that cells refer to by number. */
  strings: string[];
  /** For each style of cells, whether it shows a date. */
  dates: boolean[];
  /** Days are counted from 1904, as old Macs did. */
  from1904: boolean;
  /** Its strings or styles are not what they were when it was saved. */
  damaged: boolean;
}

export async function readBook(parts: Parts, name: string): Promise<Book> {
  try {
    const workbook = (await related(parts, '_rels/.rels', '')).find(({ type }) => type === 'officeDocument')?.part;
    const main = workbook ?? 'xl/workbook.xml';
    const folder = main.slice(0, main.lastIndexOf('/') + 1);
    const relations = await related(parts, `${folder}_rels/${main.slice(folder.length)}.rels`, folder);
    const sheets: Book['sheets'] = [];
    let from1904 = false;
    await hearAll(await parts.read(main), {
      open(tag, attributes) {
        if (tag === 'workbookPr') from1904 = ['1', 'true'].includes(attribute(attributes, 'date1904') ?? '');
        if (tag !== 'sheet') return;
        const id = Object.entries(attributes).find(([key]) => /:id$/.test(key))?.[1];
        const found = relations.find((relation) => relation.id === id);
        if (found?.type === 'worksheet') sheets.push({ name: attribute(attributes, 'name') ?? '', part: found.part });
      },
    });
    if (sheets.length === 0) throw new Error('it holds no sheet');
    const partOf = (type: string) => relations.find((relation) => relation.type === type)?.part;
    const strings = await readStrings(parts, partOf('sharedStrings'));
    const styles = await readStyles(parts, partOf('styles'));
    return {
      sheets,
      from1904,
      strings: strings.read,
      dates: styles.read,
      damaged: strings.damaged || styles.damaged,
    };
  } catch (error) {
    throw broken(name, error as Error);
  }
}

interface Relation {
  id: string;
  /** The last word of its type. */
  type: string;
  part: string;
}

async function related(parts: Parts, part: string, folder: string): Promise<Relation[]> {
  const out: Relation[] = [];
  if (!parts.has(part)) return out;
  await hearAll(await parts.read(part), {
    open(tag, attributes) {
      const target = attribute(attributes, 'Target') ?? '';
      if (tag === 'Relationship')
        out.push({
          id: attribute(attributes, 'Id') ?? '',
          type: (attribute(attributes, 'Type') ?? '').split('/').at(-1)!,
          part: target.startsWith('/') ? target.slice(1) : new URL(folder + target, 'zip://parts/').pathname.slice(1),
        });
    },
  });
  return out;
}

interface Shared<T> {
  read: T[];
  damaged: boolean;
}

/** Strings up to where the part breaks, if it does: cells that refer to a later one are told as unreadable. */
async function readStrings(parts: Parts, part: string | undefined): Promise<Shared<string>> {
  const read: string[] = [];
  const heard = textOf('si', (whole) => read.push(whole));
  return { read, damaged: !(await wholly(parts, part, heard)) };
}

/** Reads a part that may be missing. @returns false when it breaks; what was heard before is heard */
async function wholly(parts: Parts, part: string | undefined, heard: Heard): Promise<boolean> {
  if (part === undefined || !parts.has(part)) return true;
  try {
    await hearAll(await parts.read(part), heard);
    return true;
  } catch {
    return false;
  }
}

/** Gathers the text of an element: what its `t` hold, without what tells how to say it (`rPh`). */
export function textOf(element: string, done: (whole: string) => void) {
  let whole = '';
  let within = false;
  let said = false;
  let depth = 0;
  return {
    open(tag: string) {
      if (tag === element) {
        whole = '';
        within = true;
      } else if (tag === 'rPh') depth++;
      else if (tag === 't') said = within && depth === 0;
    },
    text(text: string) {
      // One character more than a cell may have is enough to know that it has too many.
      if (said && whole.length <= LONGEST_CELL) whole += text.slice(0, LONGEST_CELL + 1);
    },
    close(tag: string) {
      if (tag === 't') said = false;
      else if (tag === 'rPh') depth--;
      else if (tag === element) {
        within = false;
        done(unescaped(whole));
      }
    },
  };
}

/** Characters that XML cannot hold stand in a workbook as `_x000D_` (ECMA-376, 22.9.2.19). */
export const unescaped = (text: string): string =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
    : text;

/** Without its styles a workbook shows dates as numbers; its cells are all there. */
async function readStyles(parts: Parts, part: string | undefined): Promise<Shared<boolean>> {
  const read: boolean[] = [];
  const formats = new Map<number, boolean>();
  let inCells = false;
  const whole = await wholly(parts, part, {
    open(tag, attributes) {
      if (tag === 'cellXfs') inCells = true;
      if (tag === 'numFmt')
        formats.set(Number(attribute(attributes, 'numFmtId')), showsDate(attribute(attributes, 'formatCode') ?? ''));
      if (tag === 'xf' && inCells) {
        const id = Number(attribute(attributes, 'numFmtId') ?? 0);
        read.push(formats.get(id) ?? isDateFormat(id));
      }
    },
    close(tag) {
      if (tag === 'cellXfs') inCells = false;
    },
  });
  return { read, damaged: !whole };
}

/** The built-in formats of dates and times (ECMA-376, 18.8.30), those of East Asian languages included. */
const isDateFormat = (id: number) =>
  (id >= 14 && id <= 22) || (id >= 27 && id <= 36) || (id >= 45 && id <= 47) || (id >= 50 && id <= 58);

/** Whether a format has a part of a date or a time outside of quotes, escapes and brackets. */
const showsDate = (code: string) =>
  /[dmyhs]/i.test(code.replace(/"[^"]*"|\\.|_.|\*.|\[(?!h+\]|m+\]|s+\])[^\]]*\]/gi, ''));
