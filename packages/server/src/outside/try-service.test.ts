import Fastify from 'fastify';
import { triedService } from './try-service';

const app = Fastify();
app.addHook('onRequest', async (request, reply) => {
  if (request.url.startsWith('/v1/session')) return;
  if (request.headers.authorization !== 'Bearer k') return reply.status(401).send({});
});
app.get('/v1/account', () => ({ purchases: [], plan: { credits: 40, left: 12 } }));
app.get('/models', () => ({ object: 'list', data: [] }));
app.get('/empty/v1/account', (_request, reply) => reply.send('[]'));
app.get('/ill/v1/account', (_request, reply) => reply.status(404).send({}));
app.post('/v1/session', (request, reply) =>
  (request.body as { key: string }).key === 'k' ? { token: 't', expires_in: 60 } : reply.status(403).send({}),
);
let url = '';
beforeAll(async () => {
  url = await app.listen({ host: '127.0.0.1', port: 0 });
});
afterAll(() => app.close());

const tried = (kind: 'account' | 'model' | 'directory', path = '', key = 'k') =>
  triedService({ kind, name: 'Lantern', url: url + path, key });

test('a service that answers says how fast, and what is left of its plan', async () => {
  const answered = await tried('account');
  expect(answered).toMatchObject({ state: 'answered', plan: { credits: 40, left: 12 } });
  expect(answered.state === 'answered' && answered.ms).toBeGreaterThanOrEqual(0);
  expect(await tried('model')).toMatchObject({ state: 'answered', plan: null });
});

test('one that cannot be asked says why', async () => {
  const down = (reason: string) => ({ state: 'down', reason });
  expect(await tried('account', '', 'wrong')).toEqual(down('it does not accept the key'));
  expect(await tried('account', '/ill')).toEqual(down('it answered 404'));
  expect(await tried('account', '/empty')).toEqual(down('its answer could not be read'));
  expect(await triedService({ kind: 'account', name: '', url: 'http://127.0.0.1:1', key: '' })).toEqual(
    down('it did not answer'),
  );
  expect(await tried('directory', '', 'wrong')).toEqual(down('it does not accept the key'));
});
