// Writes the four messy files of the Larkfell demo from the simulated world. Run: npx tsx demo/make.ts
import { writeFileSync } from 'node:fs';
import { chance, pick } from '../packages/standins/src/kit/chance';
import { homeOf } from '../packages/standins/src/world/homes';
import { buildWorld, type Worker } from '../packages/standins/src/world/world';

const world = buildWorld(7);
const home = world.people.filter(
  ({ firm }) =>
    (firm.country === 'GB' || firm.country === 'IE') &&
    (firm.kind === 'dairy' || firm.kind === 'food' || chance('misfit', firm.id) < 0.35),
);
/** People that somebody who looks for them meets again and again. */
const pool = home.filter(({ id }) => chance('pool', id) < 0.1);
const sample = (name: string, share: number) => pool.filter(({ id }) => chance(name, id) < share);
const file = (name: string) => new URL(name, import.meta.url);
const local = (phone: string) => phone.replace(/^\+44(20|113)(\d{4}|\d{3})(\d{4})$/, '0$1 $2 $3');
const short: Record<string, string> = {
  Christopher: 'Chris',
  Elizabeth: 'Liz',
  Katherine: 'Kate',
  Catherine: 'Cath',
  Robert: 'Bob',
  William: 'Bill',
  Thomas: 'Tom',
  Rebecca: 'Becky',
  Jennifer: 'Jen',
  Susan: 'Sue',
  Margaret: 'Maggie',
  Michael: 'Mick',
  Andrew: 'Andy',
  Nicholas: 'Nick',
  Edward: 'Ted',
  Stephen: 'Steve',
};
const abbreviated = (title: string) =>
  title
    .replace('Manager', 'Mgr')
    .replace('Production', 'Prod.')
    .replace('Quality Assurance', 'QA')
    .replace('Director', 'Dir.');
const typo = (word: string, key: string) => {
  // In the last word, so that particles stay whole.
  const from = word.lastIndexOf(' ') + 2;
  const at = from + Math.floor(chance('typo', key) * Math.max(1, word.length - from - 1));
  return word.slice(0, at) + (word[at + 1] ?? '') + (word[at] ?? '') + word.slice(at + 2);
};
const shuffled = <T extends { id: number }>(list: T[], name: string) =>
  [...list].sort((a, b) => chance(name, 'order', a.id) - chance(name, 'order', b.id));

// The list of an exhibition: semicolons, Windows-1252, three title lines, capitals, a stand number, spreadsheet damage.
const show = shuffled(sample('show', 0.52), 'show').slice(0, 1120);
const showRow = (p: Worker) => {
  const loud = chance('loud', p.id) < 0.25;
  const name = `${p.firstName} ${chance('typo-show', p.id) < 0.05 ? typo(p.lastName, String(p.id)) : p.lastName}`;
  const company = `${p.firm.name} ${p.firm.legalForm}`.trim();
  const tel = chance('cut', p.id) < 0.006 ? `${p.phone.slice(3, 4)}.${p.phone.slice(4, 9)}E+09` : local(p.phone);
  return [
    loud ? name.toUpperCase() : name,
    chance('abbr', p.id) < 0.3 ? abbreviated(p.title) : p.title,
    loud ? company.toUpperCase() : company,
    `${pick(['A', 'B', 'C', 'D'], 'hall', p.id)}${Math.floor(chance('stand', p.id) * 90) + 1}`,
    chance('has-tel', p.id) < 0.6 ? tel : '',
    chance('has-mail', p.id) < 0.2 ? p.email : '',
    chance('has-web', p.id) < 0.85 ? `www.${p.firm.domain}` : '',
    `${p.firm.city}${p.firm.country === 'GB' ? ` ${pick(['BA5', 'LL23', 'BD24', 'SY8'], 'code', p.id)}` : ''}, ${p.firm.region}`,
    `${1 + Math.floor(chance('day', p.id) * 3) + 13}/03/2026`,
    chance('note', p.id) < 0.08
      ? pick(
          [
            'rind humidity; wants a trial',
            '"two stores, one logger"',
            'asked for price',
            '=HYPERLINK("http://trap.example","see")',
          ],
          'note',
          p.id,
        )
      : '',
  ];
};
const semicolons = (cells: string[]) =>
  cells.map((cell) => (/[";\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(';');
const lines = [
  'Dairy & Cold Chain Show 2026;;;;;;;;;',
  'Visitors of hall A to D;;;;;;;;;',
  ';;;;;;;;;',
  'Contact Name;Position;Firma;Stand;Tel;E-Mail;Web;Town;Visited;Notes',
  ...show.map((p) => semicolons(showRow(p))),
];
lines.splice(180, 0, 'Torn "off;Quality Manager;"Half a row');
lines.splice(640, 0, 'MISSING CELLS;Owner');
// Latin 1 is Windows-1252 but for the apostrophe.
writeFileSync(
  file('show-list-2026.csv'),
  Buffer.from((lines.join('\r\n') + '\r\n').replaceAll('’', '\u0092'), 'latin1'),
);

// A list saved over months: emoji, stars, degrees, nicknames, profile links; commas, UTF-8.
const saved = shuffled(sample('saved', 0.4), 'saved').slice(0, 820);
const decorated = (name: string, id: number) =>
  pick(
    [
      name,
      name,
      name,
      `${name} ★`,
      `🧀 ${name}`,
      `${name}, PhD`,
      `Dr. ${name}`,
      name.toUpperCase(),
      name.toLowerCase(),
      `${name} | Cheese is life`,
      `✨${name}✨`,
    ],
    'decor',
    id,
  );
const savedRow = (p: Worker) => {
  // Some have moved to another firm since the other lists were made.
  const firm = chance('moved', p.id) < 0.06 ? pick(pool, 'new firm', p.id).firm : p.firm;
  const first = short[p.firstName] && chance('short', p.id) < 0.5 ? short[p.firstName]! : p.firstName;
  return [
    decorated(`${first} ${p.lastName}`, p.id),
    pick([p.title, p.title, `${p.title} at ${firm.name}`, `${p.title} 🚀`, p.title.toUpperCase()], 'title-decor', p.id),
    pick(
      [firm.name, `${firm.name} 🐄`, `${firm.name} | Made by hand since 1982`, `${firm.name} ${firm.legalForm}`.trim()],
      'firm-decor',
      p.id,
    ),
    `${firm.city}, ${firm.region}, ${firm.country === 'GB' ? 'United Kingdom' : 'Ireland'}`,
    `https://www.directory.example/p/${p.id}/?ref=list`,
    chance('saved-mail', p.id) < 0.12 ? ` ${p.email.toUpperCase()} ` : '',
  ];
};
const commas = (cells: string[]) =>
  cells.map((cell) => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(',');
writeFileSync(
  file('saved-leads.csv'),
  ['Name,Headline,Current company,Location,Profile link,Email', ...saved.map((p) => commas(savedRow(p)))].join('\n') +
    '\n',
);

// The members of a guild: tabs, UTF-16, first and last name apart, another order, emails where known.
const guild = shuffled(sample('guild', 0.31), 'guild').slice(0, 640);
const guildRow = (p: Worker) => {
  // A line that somebody wrote in haste: an initial, the short name of the firm, hardly anything else.
  const hasty = chance('hasty', p.id) < 0.16;
  const region = p.firm.region.startsWith('North')
    ? 'N Yorks'
    : p.firm.country === 'IE'
      ? `Co. ${p.firm.region}`
      : p.firm.region;
  return [
    p.lastName,
    hasty || chance('initial', p.id) < 0.06 ? `${p.firstName[0]!}.` : p.firstName,
    hasty ? p.firm.name.split(' ')[0]! : `${p.firm.name}${p.firm.legalForm ? `, ${p.firm.legalForm}` : ''}`,
    hasty && chance('vague', p.id) < 0.4
      ? pick(['Quality', 'Production', 'Owner'], 'hasty title', p.id)
      : abbreviated(p.title),
    !hasty && chance('guild-mail', p.id) < 0.38
      ? chance('guild-role', p.id) < 0.06
        ? `info@${p.firm.domain}`
        : p.email
      : '',
    !hasty && chance('guild-tel', p.id) < 0.5 ? p.phone : '',
    hasty ? '' : p.firm.domain,
    hasty && chance('no town', p.id) < 0.6 ? '' : p.firm.city,
    hasty ? '' : region,
    p.firm.country === 'GB' ? 'UK' : 'Ireland',
  ];
};
const tabs =
  [
    'Surname\tForename\tMember\tRole\tE-mail\tTelephone\tWebsite\tTown\tCounty\tCountry',
    ...guild.map((p) => guildRow(p).join('\t')),
  ].join('\r\n') + '\r\n';
writeFileSync(file('guild-members.txt'), Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(tabs, 'utf16le')]));

// Judges of a cheese contest, with their postal addresses: short names, an earlier address where one is known, a phone now and then.
const judges = shuffled(sample('judges', 0.12), 'judges').slice(0, 160);
const line = ({ street, city, postcode }: { street: string; city: string; postcode: string }) =>
  `${street}, ${city}, ${postcode}`;
const judgeRow = (p: Worker) => {
  const home = homeOf(p)!;
  return [
    short[p.firstName] && chance('judge short', p.id) < 0.6 ? short[p.firstName]! : p.firstName,
    p.lastName,
    p.firm.name,
    p.firm.domain,
    home.street,
    home.city,
    home.postcode,
    home.before && chance('judge before', p.id) < 0.8 ? line(home.before) : '',
    chance('judge tel', p.id) < 0.12 ? local(p.phone) : '',
    p.firm.country === 'GB' ? 'UK' : 'Ireland',
  ];
};
writeFileSync(
  file('contest-judges.csv'),
  [
    'First name,Last name,Employer,Website,Street,Town,Postcode,Previous address,Telephone,Country',
    ...judges.map((p) => commas(judgeRow(p))),
  ].join('\n') + '\n',
);
process.stdout.write(`${show.length} + ${saved.length} + ${guild.length} + ${judges.length} rows\n`);
