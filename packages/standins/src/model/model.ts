import Fastify, { type FastifyInstance } from 'fastify';
import type { CallLog, Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';

const KEY = 'reeve-demo-key';
/** How often it makes something up: a sentence that the text does not hold. */
const MAKES_UP = 0.03;

const MAKES =
  /\b(we (make|age)|made here|our (own )?(dairy|cheesemakers)|becomes|cheese is (made|aged)|wir stellen|käserei|nous fabriquons|affiné|wird jeden morgen zu käse|devient fromage)/i;
const DENIES =
  /\bnot make|those who make|cheese vats|ice cream|we sell|advise|install|packaging|ready meals|bottle milk/i;

/**
 * A language model behind a chat endpoint, `POST /v1/chat/completions`, `GET /v1/models` says which ones there are, that reads a few words of the text it is given: enough to say
 * whether somebody makes cheese, in English, German and French. Its answer stands in a fence; now and then it makes a sentence up.
 */
export async function startModel(port: number, shared: { log: CallLog; scenario: Scenario }): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true });
  app.addHook('onRequest', async (request, reply) => {
    if (request.headers.authorization !== `Bearer ${KEY}`) return reply.status(401).send({ error: 'unknown key' });
  });
  app.get('/v1/models', () => ({ object: 'list', data: [{ id: 'reeve-small', object: 'model' }] }));
  app.post('/v1/chat/completions', (request, reply) => {
    const { messages = [] } = (request.body ?? {}) as { messages?: { role: string; content: string }[] };
    const asked = messages.findLast(({ role }) => role === 'user')?.content ?? '';
    shared.log.add('model', asked.split('\n')[0]!);
    const lines = asked.split('Website:\n')[1]?.split('\n') ?? [];
    const no = lines.filter((line) => DENIES.test(line));
    const yes = lines.filter((line) => MAKES.test(line) && !DENIES.test(line));
    const answer = yes.length > no.length ? 'yes' : no.length > 0 ? 'no' : 'unclear';
    const sentences = { yes, no, unclear: [] }[answer].slice(0, 3);
    const said = chance('makes up', asked) < MAKES_UP ? ['We are the best cheesemakers in the land.'] : sentences;
    const content = `\`\`\`json\n${JSON.stringify({ answer, sentences: said })}\n\`\`\``;
    return reply.send({ choices: [{ message: { role: 'assistant', content } }] });
  });
  await app.listen({ host: '127.0.0.1', port });
  return app;
}
