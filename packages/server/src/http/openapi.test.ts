import { harness } from '../testing/harness';

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

interface Operation {
  responses: Record<string, { content?: Record<string, { schema?: object }> }>;
}

/** Routes that answer with a file. */
const FILES = [
  '/api/pick-lists/{id}/file',
  '/api/jobs/{id}/sources/{source}/gap',
  '/api/uploads/{upload}/preview',
  '/api/exports/{id}/files/{name}',
  '/api/exports/{id}/zip',
  '/api/jobs/{id}/verdicts',
  '/api/ledger/file',
];

test('every route says what it answers, and the API’s description shows it', async () => {
  const { body } = await server.call<{ paths: Record<string, Record<string, Operation>> }>('GET', '/api/docs');
  const routes = Object.entries(body.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { responses }]) => ({ path, method, responses })),
  );
  expect(routes.length).toBeGreaterThan(45);
  const silent = routes.filter(({ responses }) => !responses['200']?.content?.['application/json']?.schema);
  expect(silent.map(({ path }) => path).sort()).toEqual([...FILES].sort());
});
