// Whether the error of merging that is said is the true one: on lists of seven shapes, each with an error model of its own.
// npm run bench -- match-sets [SEED [TIMES]]      1 and 6 without arguments: 6 times as many people as 5,000 records are of, whose truth is known here alone
import { matchOptions, matchPeople, NO_LISTS, tidier, type Column, type Person, type Target } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import { FIRST, FIRM_WORDS, LAST, PLACES, STEMS, TITLES } from '../packages/standins/src/world/words';

const [seed, TIMES] = [Number(process.argv[2] ?? 1), Number(process.argv[3] ?? 6)];

type Row = Partial<Record<Target, string>>;
interface Entity extends Row {
  id: number;
}
type Random = ReturnType<typeof chooser>;
interface Shape {
  name: string;
  people: (r: Random) => Entity[];
  /** One record of somebody, as this list's sources write it. */
  record: (one: Entity, r: Random) => Row;
  /** Records of one person: chances of 1, 2, 3, ... */
  copies: readonly number[];
}

const chooser = (seed: number) => {
  const random = seededRandom(seed);
  const below = (n: number) => Math.floor(random() * n);
  return {
    chance: (share: number) => random() < share,
    below,
    pick: <T>(list: readonly T[]): T => list[below(list.length)]!,
    /** Few values often, many seldom. */
    skewed: <T>(list: readonly T[], power = 2): T => list[Math.floor(random() ** power * list.length)]!,
  };
};

const SHORT: Row & Record<string, string> = {
  William: 'Will',
  Robert: 'Rob',
  Thomas: 'Tom',
  Elizabeth: 'Liz',
  Michael: 'Mike',
  Stephen: 'Steve',
  Andrew: 'Andy',
  Rebecca: 'Becky',
  Nicholas: 'Nick',
  Christopher: 'Chris',
  Jennifer: 'Jenny',
  Susan: 'Sue',
  David: 'Dave',
  Peter: 'Pete',
};
const firm = (n: number) => ({
  company: `${STEMS[(n * 37) % STEMS.length]} ${FIRM_WORDS[n % FIRM_WORDS.length]}`,
  domain: `firm${n}.example`,
});
const slug = (text = '') => text.toLowerCase().replace(/[^a-z]/g, '');
const phone = (n: number) => `+1 212 ${200 + (n % 799)} ${String((n * 7919) % 10000).padStart(4, '0')}`;
const title = (r: Random) => r.pick(TITLES);
const titleOf = (r: Random): string => {
  const one = title(r);
  return typeof one === 'string' ? one : String(one[0]);
};
const streets = ['Mill Lane', 'High Street', 'Chapel Road', 'Orchard Way', 'Station Road', 'Church Street'];

/** A letter dropped, doubled, or put in another's place. */
function slip(text: string, r: Random): string {
  if (text.length < 4) return text;
  const at = 1 + r.below(text.length - 2);
  switch (r.below(3)) {
    case 0:
      return text.slice(0, at) + text.slice(at + 1);
    case 1:
      return text.slice(0, at) + text[at]! + text.slice(at);
    default:
      return text.slice(0, at) + text[at + 1]! + text[at]! + text.slice(at + 2);
  }
}
/** As a scanner misreads. */
const misread = (text: string, r: Random): string => {
  const [from, to] = r.pick([
    ['m', 'rn'],
    ['l', '1'],
    ['o', '0'],
    ['e', 'c'],
    ['h', 'b'],
    ['i', 'l'],
  ] as const);
  return text.replace(from, to);
};
/** As it is heard. */
const heard = (text: string): string =>
  text
    .replace(/ph/g, 'f')
    .replace(/ck\b/g, 'k')
    .replace(/ie\b/g, 'y')
    .replace(/^C(?=[aou])/, 'K')
    .replace(/ll/g, 'l')
    .replace(/th/g, 't');

/** In one family nobody is called as another, but for sons. */
const firstNames = (n: number, r: Random): string[] => {
  const names = new Set<string>();
  while (names.size < n) names.add(r.skewed(FIRST, 1.2));
  return [...names];
};
const count = (n: number) => Array.from({ length: Math.round(n * TIMES) }, (_, id) => id);
const plain = (id: number, r: Random, firms: number): Entity => {
  const where = r.below(firms);
  const place = PLACES[where % PLACES.length]!;
  return {
    id,
    firstName: r.skewed(FIRST, 1.5),
    lastName: r.chance(0.5) ? r.skewed(LAST) : r.skewed(STEMS, 1.5),
    ...(({ company, domain }) => ({ company, website: domain }))(firm(where)),
    title: titleOf(r),
    city: place[0],
  };
};

const SHAPES: readonly Shape[] = [
  {
    name: 'badges: names as heard, private addresses, no firm beyond its name',
    copies: [0.6, 0.25, 0.15],
    people: (r) =>
      count(3600).map((id) => {
        const one = plain(id, r, 900);
        return {
          ...one,
          website: '',
          email: `${slug(one.firstName)}${r.pick(['', '.', '_'])}${slug(one.lastName)}${r.below(99)}@freepost.example`,
        };
      }),
    record: (one, r) => ({
      ...one,
      firstName: r.chance(0.12) ? heard(one.firstName!) : one.firstName,
      lastName: r.chance(0.15) ? heard(one.lastName!) : one.lastName,
      email: r.chance(0.55) ? one.email : '',
      city: r.chance(0.5) ? one.city : '',
      title: r.chance(0.7) ? one.title : titleOf(r),
    }),
  },
  {
    name: 'households: one line and one street for all, scanned, a fifth have moved',
    copies: [0.55, 0.35, 0.1],
    people: (r) =>
      count(1500).flatMap((home) => {
        const lastName = r.chance(0.5) ? r.skewed(LAST) : r.skewed(STEMS, 1.5);
        const shared = {
          lastName,
          phone: phone(home),
          street: `${1 + r.below(90)} ${r.pick(streets)}`,
          postcode: String(10000 + home),
          city: r.pick(PLACES)[0],
        };
        return firstNames(1 + r.below(4), r).map((firstName, k) => ({ id: home * 8 + k, firstName, ...shared }));
      }),
    record: (one, r) => ({
      ...one,
      firstName: r.chance(0.1) ? misread(one.firstName!, r) : r.chance(0.08) ? one.firstName![0] : one.firstName,
      lastName: r.chance(0.08) ? misread(one.lastName!, r) : one.lastName,
      phone: r.chance(0.25) ? '' : r.chance(0.15) ? phone(50_000 + r.below(9000)) : one.phone,
      ...(r.chance(0.2) && {
        street: `${1 + r.below(90)} ${r.pick(streets)}`,
        postcode: String(30000 + r.below(9000)),
      }),
    }),
  },
  {
    name: 'directory: new jobs, married names, no address at all',
    copies: [0.6, 0.3, 0.1],
    people: (r) => count(4000).map((id) => ({ ...plain(id, r, 1200), profile: `waymark.example/in/p${id}` })),
    record: (one, r) => {
      const moved = r.chance(0.2) ? firm(r.below(1200)) : null;
      return {
        ...one,
        ...(moved && { company: moved.company, website: moved.domain, title: titleOf(r) }),
        lastName: r.chance(0.03) ? r.pick(LAST) : one.lastName,
        profile: r.chance(0.3) ? one.profile : '',
        firstName: r.chance(0.2) ? (SHORT[one.firstName!] ?? one.firstName) : one.firstName,
        city: r.chance(0.8) ? one.city : '',
      };
    },
  },
  {
    name: 'firms: switchboards, office mailboxes, namesakes told apart by figures',
    copies: [0.5, 0.3, 0.2],
    people: (r) => {
      const seen = new Map<string, number>();
      return count(3200).map((id) => {
        const one = plain(id, r, 160);
        const local = `${slug(one.firstName)[0]}${slug(one.lastName)}`;
        const known = seen.get(`${local}@${one.website}`) ?? 0;
        seen.set(`${local}@${one.website}`, known + 1);
        return {
          ...one,
          email: `${local}${known || ''}@${one.website}`,
          phone: phone(Number(/\d+/.exec(one.website!)![0])),
        };
      });
    },
    record: (one, r) => ({
      ...one,
      firstName: r.chance(0.15)
        ? (SHORT[one.firstName!] ?? one.firstName)
        : r.chance(0.06)
          ? slip(one.firstName!, r)
          : one.firstName,
      lastName: r.chance(0.06) ? slip(one.lastName!, r) : one.lastName,
      email: r.chance(0.3) ? '' : r.chance(0.15) ? `office@${one.website}` : one.email,
      phone: r.chance(0.4) ? '' : one.phone,
      title: r.chance(0.3) ? '' : one.title,
    }),
  },
  {
    name: 'namesakes: few names in few towns, fields cut at ten letters',
    copies: [0.6, 0.3, 0.1],
    people: (r) =>
      count(4000).map((id) => ({
        ...plain(id, r, 1500),
        firstName: r.skewed(FIRST.slice(0, 60), 1.5),
        lastName: r.skewed(LAST.slice(0, 60), 1.5),
        phone: phone(id),
      })),
    record: (one, r) => ({
      ...one,
      company: one.company!.slice(0, r.chance(0.3) ? 10 : 60),
      website: r.chance(0.5) ? one.website : '',
      phone: r.chance(0.5) ? one.phone : '',
      title: one.title!.slice(0, r.chance(0.3) ? 10 : 60),
      firstName: r.chance(0.1) ? one.firstName![0] : one.firstName,
    }),
  },
  {
    name: 'scrapes: capitals, firms in many spellings, titles of every kind',
    copies: [0.5, 0.3, 0.15, 0.05],
    people: (r) =>
      count(3200).map((id) => {
        const one = plain(id, r, 700);
        return { ...one, email: `${slug(one.firstName)}.${slug(one.lastName)}@${one.website}` };
      }),
    record: (one, r) => ({
      ...one,
      firstName: r.chance(0.3)
        ? one.firstName!.toUpperCase()
        : r.chance(0.07)
          ? slip(one.firstName!, r)
          : one.firstName,
      lastName: r.chance(0.07) ? slip(one.lastName!, r) : one.lastName,
      company: r.pick([one.company!, `${one.company} Ltd`, one.company!.split(' ')[0]!, `The ${one.company}`]),
      email: r.chance(0.35) ? one.email : r.chance(0.2) ? `info@${one.website}` : '',
      website: r.chance(0.6) ? one.website : '',
      title: r.chance(0.5) ? one.title : titleOf(r),
      city: r.chance(0.3) ? '' : one.city,
    }),
  },
  {
    name: 'family firms: one name, one house, one mailbox; sons called as their fathers',
    copies: [0.55, 0.3, 0.15],
    people: (r) =>
      count(1400).flatMap((n) => {
        const lastName = r.chance(0.4) ? r.skewed(LAST) : r.skewed(STEMS, 1.5);
        const { company, domain } = { company: `${lastName} & Sons`, domain: `family${n}.example` };
        const shared = {
          lastName,
          company,
          website: domain,
          city: r.pick(PLACES)[0],
          street: `${1 + r.below(90)} ${r.pick(streets)}`,
          postcode: String(20000 + n),
          phone: phone(n),
        };
        const names = firstNames(1 + r.below(4), r);
        return names.map((firstName, k) => ({
          id: n * 8 + k,
          firstName: k === 1 && r.chance(0.04) ? names[0] : firstName,
          title: titleOf(r),
          ...shared,
          email: r.chance(0.5) ? `info@${domain}` : `k${k}@${domain}`,
        }));
      }),
    record: (one, r) => ({
      ...one,
      firstName: r.chance(0.08) ? slip(one.firstName!, r) : one.firstName,
      email: r.chance(0.5) ? '' : one.email,
      phone: r.chance(0.4) ? '' : one.phone,
      title: r.chance(0.4) ? '' : one.title,
      street: r.chance(0.3) ? '' : one.street,
    }),
  },
];

const TARGETS = [
  'firstName',
  'lastName',
  'email',
  'phone',
  'profile',
  'company',
  'website',
  'title',
  'street',
  'postcode',
  'city',
] as const;
const columns = TARGETS.map((target) => ({ name: target, target })) as unknown as Column[];

function listOf({ people, record, copies }: Shape, seed: number): { list: Person[]; truth: number[] } {
  const r = chooser(seed);
  const tidy = tidier({ phoneCountry: 'US', lists: { ...NO_LISTS, freeMail: ['freepost.example'] } });
  const [list, truth]: [Person[], number[]] = [[], []];
  for (const one of people(r)) {
    let left = seededRandom(seed * 7919 + one.id)();
    const n = 1 + copies.findIndex((share) => (left -= share) < 0);
    for (let k = 0; k < Math.max(1, n); k++) {
      const row = record(one, r);
      list.push(
        tidy(
          TARGETS.map((target) => row[target] ?? ''),
          columns,
        ).person,
      );
      truth.push(one.id);
    }
  }
  return { list, truth };
}

const pairsOf = (keys: readonly (string | number)[]) => {
  const sizes = new Map<string | number, number>();
  for (const key of keys) sizes.set(key, (sizes.get(key) ?? 0) + 1);
  return [...sizes.values()].reduce((sum, n) => sum + (n * (n - 1)) / 2, 0);
};
const { mergeFrom, judgeFrom } = matchOptions.parse({});
let held = 0;
for (const shape of SHAPES) {
  const { list, truth } = listOf(shape, seed);
  const out = matchPeople(list, { mergeFrom, judgeFrom });
  const found = pairsOf([...out.roots]);
  const right = pairsOf(truth.map((one, i) => `${one} ${out.roots[i]}`));
  const is = (found - right) / Math.max(1, found);
  const { low, high } = out.errorRange;
  if (low <= is && is <= high) held++;
  const inThousand = (share: number) => (share * 1000).toFixed(1);
  process.stdout.write(
    `${shape.name}\n  ${list.length} records, ${found} merged pairs: precision ${(right / found).toFixed(4)}, recall ${(right / pairsOf(truth)).toFixed(4)}; ` +
      `wrong in 1,000: said ${inThousand(out.expectedError)} (${inThousand(low)} to ${inThousand(high)}), is ${inThousand(is)}, ${found - right} pairs\n`,
  );
}
process.stdout.write(`the range holds the truth in ${held} of ${SHAPES.length}\n`);
