import type { FirmEffect, FirmPairs, FirmPage } from '@sieve/contract';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const LIST = `Name,Company,Website,Sector,Employees,Town,Country
Maren Oakhill,Brackenfold Dairy,brackenfold.example,Cheese,40,Wells,GB
Tobias Corrie,Brackenfold Dairy,brackenfold.example,Yoghurt,60,Wells,GB
Aoife Hathersage,Brackenfold Dairy,brackenfold.example,Cheese,40,York,GB
Idris Venn,Brackenfield Dairy,,Cheese,900,Leeds,GB
Nuala Farrow,Tidewell Packaging,tidewell.example,Packaging,120,Sligo,IE
Piotr Redfern,Sandholm Goats,,,,Leeds,GB
`;

test('pairs of companies are judged from a list; what rules over companies would take is said before they are used', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Firms' });
  await server.bring(job.id, 'firms.csv', LIST);
  await server.setUp(job.id, 'company', {});
  await server.idle();
  const of = `/api/jobs/${job.id}`;
  const pairs = async () => (await server.call<FirmPairs>('GET', `${of}/firm-pairs`)).body;
  const { total, pairs: found } = await pairs();
  expect(total).toBe(1);
  expect([found[0]!.a.name, found[0]!.b.name].sort()).toEqual(['Brackenfield Dairy', 'Brackenfold Dairy']);

  const effect = async (options: object) => (await server.call<FirmEffect>('POST', `${of}/firms/effect`, options)).body;
  expect(await effect({})).toEqual({ came: 6, pass: 6, rules: {} });
  expect(await effect({ sectors: ['cheese'], headcountTo: 500 })).toEqual({
    came: 6,
    pass: 3,
    rules: { 'company-sector': 2, 'company-headcount': 1 },
  });
  // Where its people's records differ, what most of them say is the company's.
  const { rows } = (await server.call<FirmPage>('GET', `${of}/firms`)).body;
  expect(rows.find(({ domain }) => domain === 'brackenfold.example')).toMatchObject({
    came: 3,
    sector: 'Cheese',
    headcount: '40',
    place: 'Wells, GB',
  });

  const judge = (same: boolean) => {
    const [a, b] = [found[0]!.a.key, found[0]!.b.key];
    return server.call<{ id: number }>('POST', `${of}/decisions`, { body: { kind: 'companies', a, b, same } });
  };
  const { body: two } = await judge(false);
  await server.idle();
  expect((await pairs()).total).toBe(0);
  await server.call('POST', `/api/decisions/${two.id}`, { undone: true });
  await judge(true);
  await server.idle();
  expect((await pairs()).total).toBe(0);
  expect((await server.call<FirmPage>('GET', `${of}/firms`)).body.total).toBe(3);
});
