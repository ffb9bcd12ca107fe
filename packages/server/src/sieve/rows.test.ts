import { BLANK } from '@sieve/core/steps/screen/rules';
import {
  rowQuery,
  SORTS,
  type ContactRow,
  type FoundThings,
  type HitRate,
  type Job,
  type RowPage,
  type WordChanges,
} from '@sieve/contract';
import { keepFact } from '../outside/facts';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
let job: number;
const TITLES = ['Owner', 'Head of Quality', 'Quality Manager', 'Delivery Driver', 'Äbtissin'];
const TOWNS = ['Wells', 'Settle', 'Bala', ''];
beforeAll(async () => {
  server = await harness();
  job = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Rows' })).body.id;
  await server.setUp(job, 'screen', {
    rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }],
  });
  const lines = Array.from({ length: 230 }, (_, i) => {
    const n = (i * 7919) % 230;
    return `Maren Oakhill${String.fromCharCode(97 + (n % 26))}${'xyz'[n % 3]},${TITLES[n % 5]},Firm ${n},m${n}@firm${n}.example,${TOWNS[n % 4]},https://www.people.example/p/m${n}`;
  });
  await server.bring(job, 'list.csv', `Name,Position,Company,Email,Town,Profile\n${lines.join('\n')}\n`);
});
afterAll(() => server.close());

const page = async (query: string) => (await server.call<RowPage>('GET', `/api/jobs/${job}/rows?${query}`)).body;
async function all(query: string): Promise<ContactRow[]> {
  const rows: ContactRow[] = [];
  for (let offset = 0; ; offset += 50) {
    const { rows: found, total } = await page(`${query}&offset=${offset}&limit=50`);
    rows.push(...found);
    if (rows.length >= total) return rows;
  }
}

test('pages of every order hold every row once, and turned round they are turned round', async () => {
  for (const sort of SORTS) {
    const up = await all(`step=screen&sort=${sort}`);
    expect(new Set(up.map(({ id }) => id)).size).toBe(184);
    const down = await all(`step=screen&sort=${sort}&desc=true`);
    expect(down.map(({ id }) => id)).toEqual(up.map(({ id }) => id).reverse());
    // The place of a row is said with any page, whatever page it stands on.
    const placeOf = async (id: number, more: string) =>
      (await page(`step=screen&limit=1&placeOf=${id}&sort=${sort}${more}`)).place;
    expect(await placeOf(up[131]!.id, '')).toBe(131);
    expect(await placeOf(up[131]!.id, '&desc=true')).toBe(184 - 132);
  }
  const titles = (await all('step=screen&sort=title')).map(({ title }) => title);
  expect(titles).toEqual([...titles].sort());
});

test('fields of one’s own are kept in the form of their type, shown, sorted by and screened by', async () => {
  const { body } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Own' });
  const rows = ['Ann Parry,"1,250",3/11/2026,Y', 'Bo Venn,90,2026-01-02,no', 'Cy Holm,7,,x', 'Di Farrow,,1 May 2026,N'];
  await server.bring(body.id, 'own.csv', `Name,Wheels,Joined,Opted in\n${rows.join('\n')}\n`);
  const own = await server.call<object[]>('GET', `/api/jobs/${body.id}/own-fields`);
  expect(own.body).toEqual([
    { name: 'Wheels', type: 'number' },
    { name: 'Joined', type: 'date' },
    { name: 'Opted in', type: 'yes-no' },
  ]);
  const sorted = async (name: string, more = '') =>
    (
      await server.call<RowPage>('GET', `/api/jobs/${body.id}/rows?step=screen&own=${name}&sort=own${more}`)
    ).body.rows.map((row) => `${row.firstName} ${row.own}`);
  expect(await sorted('Wheels')).toEqual(['Di ', 'Cy 7', 'Bo 90', 'Ann 1250']);
  expect(await sorted('Wheels', '&desc=true&limit=1')).toEqual(['Ann 1250']);
  expect(await sorted('Joined')).toEqual(['Cy ', 'Bo 2026-01-02', 'Di 2026-05-01', 'Ann 2026-11-03']);
  expect(await sorted('Opted in')).toEqual(['Bo no', 'Di no', 'Ann yes', 'Cy yes']);
  const rules = [{ conditions: [{ field: 'own:Wheels', values: ['50..'] }], fate: 'keep' }];
  await server.setUp(body.id, 'screen', { rules });
  await server.idle();
  expect(await sorted('Wheels')).toEqual(['Bo 90', 'Ann 1250']);
});

test('fates, and words of a filter that hold a sign of the query language', async () => {
  expect((await all('step=screen&fate=aside')).every(({ title }) => title === 'Delivery Driver')).toBe(true);
  expect((await page('step=screen&fate=aside')).total).toBe(46);
  expect((await page('step=tidy')).total).toBe(230);
  const [driver] = (await page('step=screen&fate=aside')).rows;
  expect((await page(`step=screen&placeOf=${driver!.id}`)).place).toBeNull();
  const ofWells = await all('step=screen&q=wells');
  expect((await page(`step=screen&q=wells&placeOf=${ofWells[9]!.id}`)).place).toBe(9);
  for (const sign of ['%', '_', '\\']) expect((await page(`step=tidy&q=${encodeURIComponent(sign)}`)).total).toBe(0);
  expect(
    (await page(`step=tidy&q=${encodeURIComponent('QUALITY wells')}`)).rows.every(({ place }) =>
      place.includes('Wells'),
    ),
  ).toBe(true);
  expect((await page('step=screen&fate=aside&why=rule-0')).total).toBe(46);
  expect((await page('step=screen&fate=aside&why=rule-0&q=wells')).total).toBe(
    (await page('step=screen&fate=aside&q=wells')).total,
  );
  for (const none of ['rule-1', 'suppressed', "' OR '1'='1"])
    expect((await page(`step=screen&fate=aside&why=${encodeURIComponent(none)}`)).total).toBe(0);
  expect((await page(`step=tidy&q=${encodeURIComponent("'; DROP TABLE contacts; --")}`)).total).toBe(0);
});

test('what other rules of the screen would take is what they take once they stand', async () => {
  const { body } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Effect' });
  const lines = [
    'Ann Parry,Owner,Firm 1,+44 20 7946 0018',
    'Bo Venn,Driver,Firm 2,',
    'Cy Holm,Miller,Firm 3,',
    'Di Farrow,Owner,Firm 1,',
  ];
  await server.bring(body.id, 'few.csv', `Name,Position,Company,Phone\n${lines.join('\n')}\n`);
  const rules = [
    { conditions: [{ field: 'title', values: ['driv*'] }], fate: 'aside' },
    { conditions: [{ field: 'phone', values: [BLANK] }], fate: 'aside' },
  ];
  const effect = (options: object) => server.call('POST', `/api/jobs/${body.id}/screen/effect`, options);
  expect((await effect({})).body).toEqual({ came: 4, pass: 4, rules: [] });
  expect((await effect({ rules, atMostPerCompany: 1 })).body).toEqual({ came: 4, pass: 1, rules: [1, 2] });
  await server.setUp(body.id, 'screen', { rules });
  await server.idle();
  const step = (fate: string) =>
    server.call<RowPage>('GET', `/api/jobs/${body.id}/rows?step=screen&fate=${fate}`).then(({ body }) => body.total);
  expect([await step('pass'), await step('aside')]).toEqual([1, 3]);
  expect((await effect({ rules: [{ conditions: [{ field: 'any', values: [BLANK] }], fate: 'aside' }] })).status).toBe(
    400,
  );
});

test('how much of each source passes, why not the rest, and how many more rows the target needs', async () => {
  const { body } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Rate', targetValid: 30 });
  await server.setUp(body.id, 'screen', {
    rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }],
  });
  const line = (n: number, title: string) => `Person Oak${n},${title},Firm ${n},p${n}@firm${n}.example`;
  const lines = (from: number, to: number, title: (n: number) => string) =>
    Array.from({ length: to - from }, (_, i) => line(from + i, title(from + i))).join('\n');
  const head = 'Name,Position,Company,Email';
  await server.bring(body.id, 'a.csv', `${head}\n${lines(0, 20, (n) => (n % 4 === 0 ? 'Driver' : 'Owner'))}\n`);
  await server.bring(body.id, 'b.csv', `${head}\n${lines(10, 30, () => 'Owner')}\n`);
  const rates = (await server.call<HitRate[]>('GET', `/api/jobs/${body.id}/hit-rates`)).body;
  const { summary } = (await server.call<Job>('GET', `/api/jobs/${body.id}`)).body;
  const passed = summary!.steps.find(({ id }) => id === 'screen')!.pass;
  expect(rates.map(({ name, rows, came, fits, why }) => ({ name, rows, came, fits, why }))).toEqual([
    { name: 'a.csv', rows: 20, came: 20, fits: 15, why: { 'rule-0': 5 } },
    { name: 'b.csv', rows: 20, came: 20, fits: 18, why: { 'rule-0': 2 } },
  ]);
  // Wilson 1927 for 15 of 20, from the formula by hand.
  expect([rates[0]!.low, rates[0]!.high].map((share) => share.toFixed(3))).toEqual(['0.531', '0.888']);
  // Ten people of b.csv were new, half of its rows.
  const valid = summary!.likelyValid / passed;
  expect(rates[1]!.toGo!.likely).toBe(Math.ceil((30 - summary!.likelyValid) / (valid * 0.5)));
  expect(rates.every(({ searchId, tighter }) => searchId === null && tighter.length === 0)).toBe(true);

  // Four of the fifteen that fit are verified and two were paid for: 12 cents each valid one; a list is not pulled.
  expect(rates.map(({ eachCents }) => eachCents)).toEqual([null, null]);
  for (const n of [1, 2, 3, 5]) {
    const domain = `firm${n}.example`;
    const charge = n < 3 ? { jobId: body.id, reason: 'asked', contact: null } : null;
    const email = `p${n}@${domain}`;
    keepFact(server.db, { kind: 'mail-host', domain }, { state: 'hosts', hosts: ['mx.example'] }, Date.now(), null);
    const answer = { state: 'accepted' as const, code: 0, by: 'touchstone', takesAny: false };
    const { rows } = (
      await server.call<RowPage>(
        'GET',
        `/api/jobs/${body.id}/rows?step=screen&fate=pass&q=${encodeURIComponent(email)}`,
      )
    ).body;
    const contact = rows[0]!.id;
    keepFact(
      server.db,
      { kind: 'mailbox', email },
      { ...answer, cents: charge ? 24 : 0 },
      Date.now(),
      charge && { ...charge, contact },
    );
  }
  await server.setUp(body.id, 'verify', { freshDays: 60 });
  await server.idle();
  const [paid] = (await server.call<HitRate[]>('GET', `/api/jobs/${body.id}/hit-rates`)).body;
  expect(paid).toMatchObject({ valid: 4, spentCents: 48, doneAt: null, eachCents: { likely: 12 } });
  // Wilson 1927 for 4 of 15, from the formula by hand: 0.1090 to 0.5195.
  expect([paid!.eachCents!.low, paid!.eachCents!.high].map((cents) => cents.toFixed(1))).toEqual(['6.2', '29.4']);
});

test('a contact of any job is found by its address or link, or the beginning of a name, a firm or an address', async () => {
  const found = async (q: string) =>
    (await server.call<FoundThings>('GET', `/api/found?q=${encodeURIComponent(q)}`)).body.contacts;
  const named = await found('maren oakhillax');
  expect(named.length).toBeGreaterThan(1);
  expect(named.every(({ jobId, name }) => jobId === job && name === 'Maren Oakhillax')).toBe(true);
  expect((await found('m17@')).map(({ email }) => email)).toEqual(['m17@firm17.example']);
  for (const whole of ['Maren <M17@Firm17.Example>', 'people.example/p/m17/?from=list'])
    expect((await found(whole)).map(({ email }) => email)).toEqual(['m17@firm17.example']);
  expect((await found('firm 229')).map(({ company }) => company)).toEqual([]);
  expect(await found('nobody')).toEqual([]);
});

test('a query that cannot be is refused', () => {
  for (const query of [
    { step: 'tidy', limit: 10_000 },
    { step: 'tidy', offset: -1 },
    { step: 'tidy', sort: 'x' },
  ])
    expect(rowQuery.safeParse(query).success).toBe(false);
});

test('searches, pick lists and sources are found by words of their names', async () => {
  const search = { about: 'people', conditions: [] };
  const { id } = (await server.call<{ id: number }>('POST', '/api/searches', { name: 'Cheese leads 100%', search }))
    .body;
  await server.call('POST', '/api/pick-lists', { name: 'Cheese firms', about: 'companies' });
  const found = async (q: string) =>
    (await server.call<FoundThings>('GET', `/api/found?q=${encodeURIComponent(q)}`)).body;
  expect(await found('leads cheese')).toMatchObject({ searches: [{ id, name: 'Cheese leads 100%' }], pickLists: [] });
  expect((await found('0%')).searches).toHaveLength(1);
  expect((await found('cheese')).pickLists).toMatchObject([{ name: 'Cheese firms' }]);
  expect((await found('list.csv')).sources).toMatchObject([{ name: 'list.csv', jobId: job }]);
});

test('what another list of words would change is counted over all jobs', async () => {
  const { body } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Words' });
  const lines = ['Baroness Ann Parry,Larkfell Sp. z o.o.', 'Bo Venn,Edale Sp. z o.o.', 'Cy Holm,Tidewell Ltd'];
  await server.bring(body.id, 'words.csv', `Name,Company\n${lines.join('\n')}\n`);
  const changes = async (list: object) => (await server.call<WordChanges>('POST', '/api/words/changes', list)).body;
  expect(await changes({ legalForms: ['Sp. z o.o.'] })).toMatchObject({
    contacts: 2,
    values: [
      { value: 'Edale Sp. z o.o.', was: 'Edale Sp. z o.o.', is: 'Edale, Sp. z o.o.' },
      { value: 'Larkfell Sp. z o.o.' },
    ],
  });
  expect((await changes({ nameParts: [{ word: 'Baroness', is: 'honorific' }] })).values).toEqual([
    {
      value: 'Baroness Ann Parry',
      count: 1,
      was: '– · Baroness · Ann · Parry · –',
      is: 'Baroness · Ann · – · Parry · –',
    },
  ]);
});
