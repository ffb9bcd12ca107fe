import { get, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import Fastify from 'fastify';
import { createEvents } from './events';

const until = async (done: () => boolean) => {
  while (!done()) await new Promise((resolve) => setTimeout(resolve, 5));
};

/** Server-sent events as the HTML standard lays them out: `data:` lines, a blank line after each event. */
async function listening() {
  const events = createEvents();
  const app = Fastify({ forceCloseConnections: true });
  events.route(app);
  await app.listen({ host: '127.0.0.1', port: 0 });
  const { port } = app.server.address() as AddressInfo;
  const listen = async () => {
    const response = await new Promise<IncomingMessage>((resolve) =>
      get(`http://127.0.0.1:${port}/api/events`, resolve),
    );
    const heard = { text: '', ended: false, response };
    response.setEncoding('utf8').on('data', (more: string) => (heard.text += more));
    response.on('end', () => (heard.ended = true)).on('error', () => undefined);
    await until(() => heard.text.includes('retry:'));
    return heard;
  };
  return { events, app, listen };
}

test('everybody who listens hears each event; who has gone is forgotten', async () => {
  const { events, app, listen } = await listening();
  const [a, b] = [await listen(), await listen()];
  expect(a.response.headers['content-type']).toBe('text/event-stream');
  events.emit({ type: 'job', jobId: 3 });
  await until(() => a.text.includes('data:') && b.text.includes('data:'));
  expect(a.text).toBe('retry: 1000\n\ndata: {"type":"job","jobId":3}\n\n');
  b.response.destroy();
  await new Promise((resolve) => setTimeout(resolve, 30));
  events.emit({ type: 'search', searchId: 4 });
  await until(() => a.text.includes('search'));
  expect(b.text).not.toContain('search');
  await app.close();
});

test('a server that stops says goodbye instead of waiting for its listeners', async () => {
  const { app, listen } = await listening();
  const heard = await listen();
  await app.close();
  await until(() => heard.ended);
  expect(heard.ended).toBe(true);
});
