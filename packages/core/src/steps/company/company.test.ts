import { NONE_MADE } from '../../model/made';
import type { DecisionBody } from '../../decisions/decision';
import { sortDecisions } from '../../decisions/sort-decisions';
import type { Answer, Question } from '../../facts/facts';
import type { FirmRecord } from '../../facts/firms';
import type { SitePage } from '../../facts/website';
import { newContact } from '../../model/contact';
import { emptyPerson, type Person } from '../../model/person';
import { NOWHERE } from '../../model/elsewhere';
import { NO_LISTS } from '../../model/word-lists';
import { answeredFacts, keyOf } from '../../testing/answered-facts';
import { company } from './company';
import { readingFor } from './evidence';
import { weighFirms } from './find-domain';
import { learnAnswer, whatTeaches } from './learn';
import { companyOptions, type CompanyOptions } from './options';
import { isParked } from './parked';

const QUESTION = {
  question: 'Do they make cheese here?',
  speaksFor: ['make cheese', 'cheesemaker*'],
  speaksAgainst: ['cheese vats'],
};
const site = (...lines: string[]): SitePage[] => [{ path: '/', title: 'Home', lines }];
const firm = (more: Partial<Person> = {}): Person => ({
  ...emptyPerson(),
  lastName: 'Oakhill',
  company: 'Brackenfold Dairy',
  domain: 'brackenfold.example',
  ...more,
});
const known: FirmRecord = {
  sector: 'Cheese making',
  headcount: 18,
  growth: 12,
  city: 'Wells',
  region: 'Somerset',
  country: 'GB',
  technology: ['Wheelbook'],
  hiring: [],
};

/** Takes somebody through the step in a world of websites and companies. */
function through(
  person: Person,
  options: Partial<CompanyOptions>,
  world: {
    sites?: Record<string, SitePage[] | 'no-domain' | 'no-answer'>;
    firms?: { name: string; domain: string; city: string; country: string }[];
    record?: FirmRecord | null;
  } = {},
  decisions: DecisionBody[] = [],
) {
  const asked: Question['kind'][] = [];
  const answers = new Map<string, Answer>();
  const env = {
    facts: answeredFacts(answers),
    decisions: sortDecisions(decisions.map((body, i) => ({ id: i + 1, body }))),
    suppression: new Map(),
    elsewhere: () => NOWHERE,
    made: NONE_MADE,
    lists: NO_LISTS,
    phoneCountry: 'GB',
  };
  const answerTo = (ask: Question): Answer => {
    switch (ask.kind) {
      case 'website': {
        const pages = world.sites?.[ask.domain] ?? 'no-domain';
        return typeof pages === 'string' ? { state: pages } : { state: 'read', pages };
      }
      case 'firm-search':
        return { firms: world.firms ?? [] };
      case 'firm-offer':
        return { record: world.record ? `record of ${ask.domain}` : null, priceCents: 3 };
      default:
        return world.record!;
    }
  };
  const contact = newContact(1, person, false);
  const advance = company.prepare([contact], companyOptions.parse(options), env);
  for (;;) {
    const stop = advance(contact, false);
    if (stop?.state !== 'waits')
      return { code: stop?.code ?? null, why: stop && 'why' in stop ? stop.why : {}, contact, asked };
    if (stop.silent) return { code: `waits: ${stop.silent}`, contact, asked };
    asked.push(stop.ask.kind);
    answers.set(keyOf(stop.ask), answerTo(stop.ask));
  }
}

test('a domain is found by name and place; one that nobody holds or that is for sale is passed over', () => {
  const firms = [
    { name: 'Brackenfold Dairy Ltd', domain: 'gone.example', city: 'Wells', country: 'GB' },
    { name: 'Brackenfold Dairy Ltd', domain: 'sold.example', city: 'Wells', country: 'GB' },
    { name: 'Brackenfold Dairy', domain: 'brackenfold.example', city: 'Wells', country: 'GB' },
    { name: 'Brackenfold Packaging', domain: 'other.example', city: 'Wells', country: 'GB' },
  ];
  const at = { company: 'Brackenfold Dairy', city: 'Wells', country: 'GB' };
  const by = 'fernbank';
  const one = weighFirms(at, [
    { ...firms[2]!, by },
    { ...firms[2]!, domain: 'far.example', city: 'Cork', country: 'IE', by },
  ]);
  expect(one.map(({ domain, sure }) => [domain, sure > 0.9])).toEqual([
    ['brackenfold.example', true],
    ['far.example', false],
  ]);
  // Three alike share what there is: none of them is sure enough to be taken.
  const sites = { 'sold.example': site('Buy this domain today.'), 'brackenfold.example': site('Welcome.') };
  const many = through(firm({ ...at, domain: '' }), { findBy: 'fernbank' }, { firms, sites });
  expect([many.contact.person.domain, many.asked]).toEqual(['', ['firm-search', 'website', 'website', 'website']]);
  // It is offered for judging.
  expect(many).toMatchObject({ code: 'domain-doubtful', why: { domain: 'brackenfold.example', chance: 33 } });
  const found = through(firm({ ...at, domain: '' }), { findBy: 'fernbank' }, { firms: [firms[2]!], sites });
  expect(found.contact.person.domain).toBe('brackenfold.example');
  expect(found.contact.added.domain).toMatchObject({ via: 'fernbank' });
  // The directory is asked too; what both know counts once.
  const both = { findBy: 'fernbank', findInDirectory: true };
  const twice = through(firm({ ...at, domain: '' }), both, { firms: [firms[2]!], sites });
  expect(twice.contact.person.domain).toBe('brackenfold.example');
  expect(twice.contact.added.domain).toMatchObject({ via: 'directory', sure: 0.97 });
});

test('who reads like a competitor is out: by the words that few sites say', () => {
  const sites = {
    'rival.example': site('We make washed rind cheese in Wells.', 'Our cheesemakers age it in caves.'),
    'alike.example': site('Washed rind cheese from caves.', 'Our cheesemakers are proud.'),
    'other.example': site('We sell packaging in Wells.', 'Our boxes are proud.'),
  };
  const options = { competitors: ['rival.example', 'Some Name Ltd'], likeCompetitors: 0.4 };
  const one = (domain: string, more: Partial<CompanyOptions> = {}) =>
    through(firm({ domain }), { ...options, ...more }, { sites });
  const alike = one('alike.example');
  expect(alike).toMatchObject({ code: 'like-competitor', why: { is: 'rival.example' } });
  expect(alike.asked).toEqual(['website', 'website']);
  expect(one('other.example').code).toBeNull();
  expect(one('alike.example', { likeCompetitors: 0 })).toMatchObject({ code: null, asked: [] });
  expect(one('gone.example').code).toBeNull();
});

test('a sentence speaks for or against; one that denies is turned round', () => {
  const read = readingFor(companyOptions.parse(QUESTION));
  const said = read(
    site(
      'We make cheese by hand.',
      'We do not make cheese ourselves.',
      'Our cheesemakers like cheese vats.',
      'We don’t sell cheese vats.',
      'Welcome to the land of the cheesemaker.',
      'Cheesemongers since last year.',
    ),
  );
  expect(said.map(({ line, speaks, word }) => [line, speaks, word])).toEqual([
    [1, 'for', 'make cheese'],
    [2, 'against', 'make cheese'],
    [3, 'against', 'cheese vats'],
    [5, 'for', 'cheesemaker'],
  ]);
});

test('a website that says no is set aside before anything is bought; a person’s answer wins', () => {
  const sites = { 'brackenfold.example': site('We do not make cheese.') };
  const options = { ...QUESTION, detailsBy: 'fernbank' };
  const no = through(firm(), options, { sites, record: known });
  expect([no.code, no.asked, no.contact.firm]).toMatchObject(['website-says-no', ['website'], { answer: 'no' }]);
  const said: DecisionBody = {
    kind: 'site-answer',
    question: 'do they make cheese here',
    domain: 'brackenfold.example',
    answer: 'yes',
  };
  const yes = through(firm(), options, { sites, record: known }, [said]);
  expect([yes.code, yes.asked]).toEqual([null, ['website', 'firm-offer', 'firm-record']]);
  expect(yes.contact.firm).toMatchObject({ answer: 'yes', by: 'hand', growth: 12, technology: ['Wheelbook'] });
  expect(yes.contact.person).toMatchObject({ sector: 'Cheese making', headcount: '18', city: 'Wells' });
  // An answer to another question is none to this one.
  expect(through(firm(), options, { sites }, [{ ...said, question: 'Do they export?' }]).code).toBe('website-says-no');
});

test('what cannot be read wants a look; a site that does not answer is no “no”', () => {
  const read = (pages: SitePage[] | 'no-domain' | 'no-answer') =>
    through(firm(), QUESTION, { sites: { 'brackenfold.example': pages } }).code;
  expect(read(site('Welcome.'))).toBe('website-unclear');
  expect(read('no-domain')).toBe('website-no-domain');
  expect(read(site('This domain may be for sale.'))).toBe('website-parked');
  expect(isParked(site(...Array.from({ length: 40 }, () => 'A long text.'), 'Buy this domain'))).toBe(false);
  expect(read('no-answer')).toBe('waits: site-no-answer');
  expect(through(firm({ domain: '', company: '' }), QUESTION).code).toBe('website-unknown');
});

test('rules take what is known of a company; what is not known breaks none', () => {
  const bought = (options: Partial<CompanyOptions>, record: FirmRecord | null = known) =>
    through(firm(), { detailsBy: 'fernbank', ...options }, { record }).code;
  expect(bought({})).toBeNull();
  expect(bought({ notSectors: ['cheese'] })).toBe('company-sector-out');
  expect(bought({ sectors: ['storage'] })).toBe('company-sector');
  expect(bought({ headcountFrom: 20 })).toBe('company-headcount');
  expect(bought({ growthTo: 10 })).toBe('company-growth');
  expect(bought({ places: ['IE'] })).toBe('company-place');
  expect(bought({ technology: ['Curdlog'] })).toBe('company-technology');
  // Nobody is hired there, as far as is known; a service that knows nothing says nothing.
  expect(bought({ hiring: ['Affineur'], growthFrom: 5 })).toBeNull();
  expect(bought({ sectors: ['storage'], headcountTo: 5 }, null)).toBeNull();
  // A competitor is known for nothing: nothing is bought.
  const { code, asked } = through(firm(), { detailsBy: 'fernbank', competitors: ['Brackenfold dairy'] });
  expect([code, asked]).toEqual(['competitor', []]);
});

test('from twelve answers on, three of each kind, the reader learns; until then the clearest are proposed too', () => {
  const lesson = (answer: boolean, i: number) => ({
    pages: site(
      answer ? `Our curd is ladled, batch ${i}.` : `Our vans are washed, round ${i}.`,
      'Welcome to our farm.',
    ),
    byWords: 0.5,
    answer,
  });
  const lessons = (yes: number, no: number) => [
    ...Array.from({ length: yes }, (_, i) => lesson(true, i)),
    ...Array.from({ length: no }, (_, i) => lesson(false, i)),
  ];
  expect(learnAnswer(lessons(6, 5))).toBeNull();
  expect(learnAnswer(lessons(10, 2))).toBeNull();
  const learned = learnAnswer(lessons(6, 6))!;
  expect(learned({ pages: site('The curd is ladled twice.'), byWords: 0.5 })).toBeGreaterThan(0.8);
  expect(learned({ pages: site('Vans are washed at noon.'), byWords: 0.5 })).toBeLessThan(0.2);
  expect(learned({ pages: site('Bonjour.'), byWords: 0.5 })).toBeCloseTo(0.5, 1);
  // What the lists of words say still counts.
  expect(learned({ pages: site('Bonjour.'), byWords: 0.9 })).toBeGreaterThan(0.6);

  const open = [0.9, 0.6, 0.5, 0.1].map((yes) => ({ yes }));
  expect(whatTeaches(open, { yes: 3, no: 3 }, 2).map(({ yes }) => yes)).toEqual([0.5, 0.6]);
  expect(whatTeaches(open, { yes: 0, no: 0 }, 3).map(({ yes }) => yes)).toEqual([0.5, 0.9, 0.1]);
  expect(whatTeaches(open, { yes: 0, no: 0 }, 9)).toHaveLength(4);
});
