import { elementsOf, textOf, walk, type PageNode } from './page';
import type { RecordSet } from './record-sets';

const HEADING = /^(h[1-6]|caption|legend|summary)$/;
const LONGEST = 160;

/** What stands over the records of a set: the caption of their table, else the nearest heading right before them; '' for none. */
export function headingOf({ records }: RecordSet): string {
  for (let at: PageNode | null = records[0]![0]!; at?.parent; at = at.parent) {
    const siblings = elementsOf(at.parent);
    for (let i = siblings.indexOf(at) - 1; i >= 0; i--) {
      // What says more than a heading is about something else.
      if (siblings[i]!.textLength > LONGEST) return '';
      const headings = [...walk(siblings[i]!)].filter(({ tag }) => HEADING.test(tag));
      const words = headings.length > 0 ? textOf(headings.at(-1)!) : '';
      if (words !== '') return words;
    }
  }
  return '';
}
