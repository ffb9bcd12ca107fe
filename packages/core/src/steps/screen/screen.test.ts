import { NOWHERE } from '../../model/elsewhere';
import { NO_LISTS } from '../../model/word-lists';
import type * as z from 'zod';
import { emptyPerson, type Person } from '../../model/person';
import { suppressionKey } from '../../suppression/suppression';
import { suppressionEntry, type Suppression } from '../../model/suppression';
import { sortDecisions } from '../../decisions/sort-decisions';
import { briefFit } from './brief';
import { titleReader } from '../../tidy/title-meaning';
import { titleFitter } from './title-fit';
import { screenOptions, type ScreenOptions } from './options';
import { BLANK, type ScreenRule } from './rules';
import { groupKey, type Groups } from './groups';
import { screener } from './screen';

const person = (values: Partial<Person>): Person => ({ ...emptyPerson(), ...values });
const nobody: Suppression = new Map();
const listOf = (...entries: z.input<typeof suppressionEntry>[]): Suppression =>
  new Map(entries.map((entry) => [suppressionKey(entry), suppressionEntry.parse(entry)]));

type Rules = {
  conditions: (Omit<ScreenRule['conditions'][number], 'not'> & { not?: boolean })[];
  fate: ScreenRule['fate'];
}[];

function fates(
  options: Partial<Omit<ScreenOptions, 'rules'> & { rules: Rules }>,
  people: Partial<Person>[],
  { suppression = nobody, groups = new Map() as Groups, kept = [] as number[] } = {},
) {
  const screened = screener(screenOptions.parse(options), {
    suppression,
    elsewhere: () => NOWHERE,
    lists: NO_LISTS,
    decisions: { groups },
  });
  return people.map((values, i) => {
    const stop = screened(person(values), kept.includes(i));
    return { state: stop?.state ?? 'pass', code: 'passed', why: {}, ...stop };
  });
}
const codes = (...given: Parameters<typeof fates>) => fates(...given).map(({ code }) => code);

test('a rule finds whole words in its own field only, whatever their case, and says which', () => {
  const rules = [
    { conditions: [{ field: 'title' as const, values: ['driver', 'head chef'] }], fate: 'aside' as const },
  ];
  const given = fates({ rules }, [
    { title: 'Delivery DRIVER' },
    { title: 'Head Chef' },
    { title: 'Head of Drivers’ Club' },
    { title: 'Owner', company: 'Driver & Sons' },
  ]);
  expect(given.map(({ code }) => code)).toEqual(['rule-words', 'rule-words', 'passed', 'passed']);
  expect(given[1]!.why).toEqual({ rule: 0, field: 'title', word: 'Head Chef' });
});

test('a field of the person’s own is screened by its words, or by a range of its type', () => {
  const rules: Rules = [
    { conditions: [{ field: 'own:Member', values: ['no'] }], fate: 'aside' },
    { conditions: [{ field: 'own:Wheels', values: ['40..'] }], fate: 'keep' },
    { conditions: [{ field: 'own:Joined', values: ['2020-01-01..2020-12-31'] }], fate: 'aside' },
  ];
  const screened = screener(screenOptions.parse({ rules }), {
    suppression: nobody,
    elsewhere: () => NOWHERE,
    lists: NO_LISTS,
    decisions: { groups: new Map() },
  });
  const stopped = (extra: Record<string, string>) => {
    const stop = screened(person({}), false, extra);
    return stop && 'why' in stop ? stop.why : 'passed';
  };
  expect(stopped({ Member: 'no', Wheels: '900' })).toEqual({ rule: 0, field: 'own:Member', word: 'no' });
  expect(stopped({ Member: 'yes', Wheels: '9' })).toEqual({ rule: 1, field: 'own:Wheels' });
  expect(stopped({ Wheels: 'some' })).toEqual({ rule: 1, field: 'own:Wheels' });
  expect(stopped({ Wheels: '40', Joined: '2020-12-31' })).toEqual({ rule: 2, field: 'own:Joined', word: '2020-12-31' });
  expect(stopped({ Wheels: '100', Joined: '2021-01-01' })).toBe('passed');
  const faults = ['..', 'many..', '1..some'].map(
    (values) =>
      screenOptions.safeParse({ rules: [{ conditions: [{ field: 'own:Wheels', values: [values] }], fate: 'keep' }] })
        .success,
  );
  expect(faults).toEqual([false, false, false]);
});

test('a star in the words of a rule is any letters of the same word', () => {
  const rules = [
    { conditions: [{ field: 'any' as const, values: ['manag*', 'info@*', '*keeper'] }], fate: 'aside' as const },
  ];
  const given = fates({ rules }, [
    { title: 'Managing Director' },
    { title: 'Stage Hand, Manage' },
    { email: 'info@mill.example' },
    { title: 'Bookkeeper' },
    { title: 'Keeper of the Bees' },
    { title: 'Mismanaged' },
    { email: 'tinfo@mill.example' },
    { title: 'C*O' },
  ]);
  expect(given.map(({ why }) => ('word' in why ? why['word'] : ''))).toEqual([
    'Managing',
    'Manage',
    'info@mill.example',
    'Bookkeeper',
    'Keeper',
    '',
    '',
    '',
  ]);
});

test('blank or not, and a headcount within bounds wherever its band may lie', () => {
  const rules: Rules = [
    { conditions: [{ field: 'phone', values: [BLANK] }], fate: 'aside' },
    { conditions: [{ field: 'profile', not: true, values: [BLANK] }], fate: 'keep' },
    { conditions: [{ field: 'headcount', values: ['50..500'] }], fate: 'keep' },
  ];
  const reached = { phone: '+441632960001', profile: 'https://www.people.example/p/a' };
  const given = fates({ rules }, [
    {},
    { phone: ' ', profile: reached.profile },
    { phone: reached.phone },
    { ...reached, headcount: '11-50' },
    { ...reached, headcount: '501-1000' },
    reached,
  ]);
  expect(given.map(({ code, why }) => ({ code, ...why }))).toEqual([
    { code: 'rule-blank', rule: 0, field: 'phone', word: 'blank' },
    { code: 'rule-blank', rule: 0, field: 'phone', word: 'blank' },
    { code: 'rule-blank', rule: 1, field: 'profile', word: 'blank' },
    { code: 'passed' },
    { code: 'rule-lacks', rule: 2, field: 'headcount' },
    { code: 'rule-lacks', rule: 2, field: 'headcount' },
  ]);
});

test('conditions of a rule hold together, some turned round; patterns are found; a slow or broken one is refused', () => {
  const rules: Rules = [
    {
      conditions: [
        { field: 'title', values: ['assistant', '/^(sub|vice)-/'] },
        { field: 'sector', not: true, values: ['dairy', BLANK] },
      ],
      fate: 'aside',
    },
    {
      conditions: [
        { field: 'place', values: ['GB', 'IE'] },
        { field: 'note', not: true, values: ['closed'] },
      ],
      fate: 'keep',
    },
  ];
  const given = fates({ rules }, [
    { title: 'Assistant', sector: 'Haulage', country: 'GB' },
    { title: 'Vice-Chair', sector: 'Haulage', country: 'GB' },
    { title: 'Assistant', sector: 'Dairy', country: 'GB' },
    { title: 'Assistant', country: 'IE' },
    { title: 'Advice-giver', sector: 'Haulage', country: 'FR' },
    { title: 'Owner', country: 'GB', note: 'Closed in May' },
  ]);
  expect(given.map(({ code, why }) => [code, ...Object.values(why)])).toEqual([
    ['rule-met', 0, 'title', 'Assistant'],
    ['rule-met', 0, 'title', 'Vice-'],
    ['passed'],
    ['passed'],
    ['rule-lacks', 1, 'place'],
    ['rule-words', 1, 'note', 'Closed'],
  ]);
  const isRule = (value: string) =>
    screenOptions.safeParse({ rules: [{ conditions: [{ field: 'any', values: [value] }], fate: 'aside' }] }).success;
  expect(['/a(b/', '/(a+)+$/', '(blank)', '/a|b/'].map(isRule)).toEqual([false, false, false, true]);
});

test('rules that were made before they had several conditions say the same', () => {
  const made = [
    { field: 'title', words: ['driver', '(blank)'], fate: 'aside' },
    { field: 'own:Code', words: ['a..b'], fate: 'aside' },
    { field: 'phone', is: 'filled', fate: 'keep' },
    { field: 'headcount', type: 'number', from: '50', to: '', fate: 'keep' },
  ];
  expect(screenOptions.parse({ rules: made }).rules).toEqual([
    { conditions: [{ field: 'title', not: false, values: ['driver', '/\\(blank\\)/'] }], fate: 'aside' },
    { conditions: [{ field: 'own:Code', not: false, values: ['/a\\.\\.b/'] }], fate: 'aside' },
    { conditions: [{ field: 'phone', not: true, values: [BLANK] }], fate: 'keep' },
    { conditions: [{ field: 'headcount', not: false, values: ['50..'] }], fate: 'keep' },
  ]);
});

test('keep only: what lacks all of the words is set aside by that rule', () => {
  const rules = [
    { conditions: [{ field: 'company' as const, values: ['dairy', 'creamery'] }], fate: 'keep' as const },
    { conditions: [{ field: 'any' as const, values: ['closed'] }], fate: 'aside' as const },
  ];
  expect(
    codes({ rules }, [
      { company: 'Brackenfold Dairy' },
      { company: 'Sorrel Creamery', note: 'closed in May' },
      { company: 'Tidewell' },
      {},
    ]),
  ).toEqual(['passed', 'rule-words', 'rule-lacks', 'rule-lacks']);
});

test('the suppression list holds addresses and whole domains, and can be switched off', () => {
  const suppression = listOf({ kind: 'email', value: 'm@one.example' }, { kind: 'domain', value: 'two.example' });
  const people = [
    { email: 'm@one.example' },
    { email: 'n@one.example' },
    { email: 'x@two.example' },
    { domain: 'two.example' },
    {},
  ];
  expect(codes({}, people, { suppression })).toEqual(['suppressed', 'passed', 'suppressed', 'suppressed', 'passed']);
  expect(new Set(codes({ suppression: false }, people, { suppression }))).toEqual(new Set(['passed']));
  expect(fates({}, people, { suppression })[3]!.why).toEqual({ entry: 'two.example', because: 'asked not to be' });
});

test('a title of the brief passes, a near one wants a look, others are set aside', () => {
  const given = fates({ briefTitles: ['Quality Manager', 'Head of Production'] }, [
    { title: 'Group Quality Manager' },
    { title: 'Quality Director' },
    { title: 'Production Lead' },
    { title: 'Sales Manager' },
    { title: '' },
  ]);
  expect(given.map(({ state }) => state)).toEqual(['pass', 'look', 'look', 'aside', 'aside']);
  expect(given[1]!.why).toMatchObject({ title: 'Quality Director', near: 'Quality Manager' });
});

test('what a person said of a group of titles wins over the brief and over rules about titles', () => {
  const groups: Groups = new Map([
    [
      'title',
      new Map([
        [groupKey('Sales Manager'), 'keep'],
        [groupKey('Quality Manager'), 'aside'],
      ]),
    ],
  ]);
  const options = {
    briefTitles: ['Quality Manager'],
    rules: [{ conditions: [{ field: 'title' as const, values: ['sales'] }], fate: 'aside' as const }],
  };
  expect(codes(options, [{ title: 'SALES MANAGER' }, { title: 'quality-manager' }], { groups })).toEqual([
    'passed',
    'group-aside',
  ]);
});

test('a group of any field goes whole; kept by its field, no rule and no part of the brief about it takes anybody', () => {
  const groups: Groups = sortDecisions([
    { id: 1, body: { kind: 'group', by: 'company', value: 'Mill & Sons', fate: 'aside' } },
    { id: 2, body: { kind: 'group', by: 'city', value: 'Wells', fate: 'aside' } },
    { id: 3, body: { kind: 'group', by: 'city', value: 'WELLS', fate: 'keep' } },
  ]).groups;
  const options = {
    briefPlaces: ['Ireland'],
    rules: [
      { conditions: [{ field: 'place' as const, values: ['somerset'] }], fate: 'aside' as const },
      { conditions: [{ field: 'title' as const, values: ['driver'] }], fate: 'aside' as const },
    ],
  };
  const given = fates(
    options,
    [
      { company: 'MILL AND SONS', city: 'Bala' },
      { company: 'mill & sons', city: 'wells' },
      { company: 'Other', city: 'Wells', region: 'Somerset', country: 'United Kingdom' },
      { city: 'Wells', title: 'Driver' },
      { city: 'Bath', region: 'Somerset' },
      {},
    ],
    { groups },
  );
  expect(given.map(({ code }) => code)).toEqual([
    'place-not-in-brief',
    'group-aside',
    'passed',
    'rule-words',
    'rule-words',
    'passed',
  ]);
  expect(given[1]!.why).toEqual({ field: 'company', value: 'mill & sons' });
});

test('at most n of a company: by its domain, else by its name; those that are not known are not counted', () => {
  const people = [
    { company: 'Brackenfold Dairy', domain: 'brackenfold.example' },
    { company: 'BFD', domain: 'brackenfold.example' },
    { company: 'Brackenfold Dairy', domain: 'brackenfold.example' },
    { company: 'Tidewell' },
    { company: 'TIDEWELL' },
    { company: 'Tidewell' },
    {},
    {},
    {},
  ];
  expect(codes({ atMostPerCompany: 2 }, people)).toEqual([
    'passed',
    'passed',
    'company-full',
    'passed',
    'passed',
    'company-full',
    'passed',
    'passed',
    'passed',
  ]);
});

test('only who passes takes a place of the company; who is kept by hand takes one and is never too many', () => {
  const rules = [{ conditions: [{ field: 'title' as const, values: ['driver'] }], fate: 'aside' as const }];
  const people = [{ title: 'Driver' }, { title: 'Owner' }, { title: 'Head' }].map((one) => ({
    ...one,
    company: 'Tidewell',
  }));
  expect(codes({ rules, atMostPerCompany: 1 }, people)).toEqual(['rule-words', 'passed', 'company-full']);
  expect(codes({ rules, atMostPerCompany: 1 }, people, { kept: [0] })).toEqual([
    'passed',
    'company-full',
    'company-full',
  ]);
  expect(codes({ rules, atMostPerCompany: 1 }, people, { kept: [0, 2] })).toEqual(['passed', 'company-full', 'passed']);
});

test.each([
  ['Group Quality Manager', ['Quality Manager'], 1],
  ['Manager, Quality', ['Quality Manager'], 1],
  ['Qualty Manager', ['Quality Manager'], 0.96],
  ['Manager', ['Quality Manager'], 0.23],
  ['Quality Manager', [], 0],
  ['Quality Manager', ['of the'], 0],
])('%s fits %j by %d', (title, brief, fit) => {
  expect(titleFitter(brief, titleReader())({ title, ...titleReader()(title) }).share).toBeCloseTo(fit, 1);
});

test('all of a brief is looked at, beside titles; what is not known is no misfit', () => {
  const fits = briefFit({
    briefTitles: ['Quality Manager'],
    briefLevels: ['manager', 'head'],
    briefTeams: ['quality'],
    briefPlaces: ['ie', 'Cumbria'],
    briefSectors: ['cheese', 'cold stores'],
    briefHeadcountFrom: 11,
    briefHeadcountTo: 200,
  });
  const person = emptyPerson();
  const known = { ...person, title: 'Quality Manager', level: 'manager', team: 'quality', country: 'IE' };
  const code = (more: object, fine = false) => fits({ ...known, ...more }, (part) => fine && part === 'title')?.code;
  expect(code({})).toBeUndefined();
  expect(code({ country: 'GB', region: 'Cumbria' })).toBeUndefined();
  expect(code({ country: '', level: '' })).toBeUndefined();
  expect(code({ country: 'US', city: 'Wells' })).toBe('place-not-in-brief');
  expect(code({ sector: 'Cheese making', headcount: '201-500' })).toBe('headcount-not-in-brief');
  expect(code({ sector: 'Cheese making', headcount: '5-11' })).toBeUndefined();
  expect(code({ sector: 'Cheesecake design' })).toBe('sector-not-in-brief');
  expect(code({ headcount: '10' })).toBe('headcount-not-in-brief');
  expect(code({ level: 'assistant' })).toBe('level-not-in-brief');
  expect(code({ team: 'sales' })).toBe('team-not-in-brief');
  expect(code({ title: 'Owner', level: 'owner', team: 'management' })).toBe('level-not-in-brief');
  expect(code({ title: 'Baker', level: '', team: '' })).toBe('title-not-in-brief');
  expect(code({ title: 'Head of QA', level: 'head' })).toBe('title-near-brief');
  // A title that was kept by hand is fine whatever it says; where somebody is, it does not say.
  expect(code({ title: 'Owner', level: 'assistant' }, true)).toBeUndefined();
  expect(code({ country: 'US' }, true)).toBe('place-not-in-brief');
});
