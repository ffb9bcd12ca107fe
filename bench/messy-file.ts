import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { seededRandom } from '../packages/core/src/text/random';

const FIRST =
  'Maren Robert Aoife William Priya Conor Helen Idris Saoirse Tobias Elizabeth Callum Niamh Piers Oluchi Eilidh Jasper Ffion Margaret Thomas'.split(
    ' ',
  );
const SYLLABLES =
  'bra cken hol lin sor rel ti de in ish pen ny stra thorn dun nock clo on mar lar ach ter ven tol'.split(' ');
const TITLES = ['Head of Quality', 'Production Mgr', 'TECHNICAL DIRECTOR', 'Owner', 'Delivery Driver', 'QA Manager'];
const TOWNS = ['Wells, Somerset', 'Settle, N Yorks', 'Macroom, Co. Cork', 'Bala LL23, Gwynedd', 'Gort, Galway'];
const SHORT: Record<string, string> = { Robert: 'Bob', William: 'Bill', Elizabeth: 'Liz', Margaret: 'Maggie' };

/** Writes a messy list of people, 12 columns; three rows in ten repeat a person in another spelling. */
export async function writeMessyFile(file: string, rows: number): Promise<void> {
  const random = seededRandom(rows);
  const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
  const word = (length: number) => Array.from({ length }, () => pick(SYLLABLES)).join('');
  const capital = (s: string) => s[0]!.toUpperCase() + s.slice(1);
  const out = createWriteStream(file);
  out.write('No,Name,Position,Company,Web,E-Mail,Tel,Town,Country,Visited,Stand,Notes\n');
  const people: { first: string; last: string; firm: string }[] = [];
  for (let i = 0; i < rows; i++) {
    const again = random() < 0.3 ? people[Math.floor(random() * people.length)] : undefined;
    const person = again ?? {
      first: pick(FIRST),
      last: capital(word(3)),
      firm: `${capital(word(2))} ${capital(word(2))} Dairy`,
    };
    if (!again) people.push(person);
    const { firm } = person;
    const first = again && random() < 0.3 ? (SHORT[person.first] ?? person.first) : person.first;
    const last =
      again && random() < 0.1 ? `${person.last.slice(0, -2)}${person.last.at(-1)}${person.last.at(-2)}` : person.last;
    const domain = `${firm.toLowerCase().replace(/[^a-z]/g, '')}.example`;
    const name = random() < 0.2 ? `${first} ${last} ★`.toUpperCase() : `${first} ${last}`;
    const phone = `0113 496 0${String(Math.floor(random() * 1000)).padStart(3, '0')}`;
    const email = random() < 0.3 ? `${first}.${last}@${domain}`.toLowerCase() : '';
    const note = random() < 0.05 ? '"asked for a price, twice"' : '';
    const line = `${i},${name},${pick(TITLES)},${firm} Ltd,www.${domain},${email},${random() < 0.5 ? phone : ''},"${pick(TOWNS)}",UK,14/03/2026,A${i % 90},${note}\n`;
    if (!out.write(line)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
}
