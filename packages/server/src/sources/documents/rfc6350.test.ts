import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openTable } from '../table/read-table';

const dir = mkdtempSync(join(tmpdir(), 'rfc6350-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

async function read(text: string): Promise<Record<string, string>[]> {
  const file = join(dir, 'card.vcf');
  writeFileSync(file, text.replace(/\n/g, '\r\n'));
  const { rows } = await openTable(file, 'card.vcf', {});
  const all: string[][] = [];
  for await (const some of rows) all.push(...some.map(({ cells }) => cells));
  const [names = [], ...cards] = all;
  return cards.map((cells) => Object.fromEntries(cells.flatMap((cell, i) => (cell ? [[names[i]!, cell]] : []))));
}

// RFC 6350, in the shapes of its examples (section 8, 6.2.2, 3.2, 3.4); people, firms and numbers are invented.
test('an author’s card as in section 8: structured names, types, a work address, a phone as tel: URI, a key that is nobody’s', async () => {
  const [card] = await read(`BEGIN:VCARD
VERSION:4.0
FN:Simon Oakhill
N:Oakhill;Simon;;;ing. jr,M.Sc.
BDAY:--0203
ANNIVERSARY:20090808T1430-0500
GENDER:M
LANG;PREF=1:fr
LANG;PREF=2:en
ORG;TYPE=work:Brackenfold
ADR;TYPE=work:;Suite D2-630;2875 Mill Lane;Wells;Somerset;BA5 2PX;United Kingdom
TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+44-113-496-0417;ext=102
TEL;VALUE=uri;TYPE="work,cell,voice,video,text":tel:+44-20-7946-0417
EMAIL;TYPE=work:simon.oakhill@brackenfold.example
GEO;TYPE=work:geo:46.772673,-71.282945
KEY;TYPE=work;VALUE=uri:http://www.brackenfold.example/simon/simon.asc
TZ:-0500
URL;TYPE=home:http://nomis80.example
END:VCARD
`);
  expect(card).toMatchObject({
    'Full name': 'Simon Oakhill',
    'First name': 'Simon',
    'Last name': 'Oakhill',
    Company: 'Brackenfold',
    Email: 'simon.oakhill@brackenfold.example',
  });
  expect(Object.values(card!).join(' ')).toMatch(/\+44-113-496-0417/);
  expect(Object.values(card!).join(' ')).toMatch(/2875 Mill Lane.*Wells/);
});

test('folded lines (3.2), escapes (3.4), groups (3.3), and a name without a family name (6.2.2)', async () => {
  expect(
    await read(`BEGIN:VCARD
VERSION:4.0
FN:Mr. John Q. Venn\\, Esq.
N:Venn;John;Quinlan;Mr.;Esq.
item1.EMAIL:john.venn@
 edale.example
NOTE:This is a long descrip
 tion that exists o
 n a long line.
TITLE:Research\\, and more
END:VCARD
BEGIN:VCARD
VERSION:3.0
FN:Maren
N:;Maren;;;
TEL:0113 496 0001
END:VCARD
`),
  ).toMatchObject([
    {
      'Full name': 'Mr. John Q. Venn, Esq.',
      'Last name': 'Venn',
      'First name': 'John',
      Email: 'john.venn@edale.example',
      Note: 'This is a long description that exists on a long line.',
      'Job title': 'Research, and more',
    },
    { 'Full name': 'Maren', 'First name': 'Maren', Phone: '0113 496 0001' },
  ]);
});
