import { createSocket } from 'node:dgram';
import { settings } from '@sieve/contract';
import { decode, encode } from 'dns-packet';
import { asking } from './ask';

const never = new AbortController().signal;

type Zone = Record<string, string[] | 'fails'>;

/** A name server over UDP (RFC 1035): `MX name` and `A name` give what the zone says, and nothing else is there. */
async function nameServer(zone: Zone) {
  const socket = createSocket('udp4');
  socket.on('message', (asked, { port, address }) => {
    const { id, questions } = decode(asked);
    const [question] = questions!;
    const said = zone[`${question!.type} ${question!.name}`] ?? [];
    const answers =
      said === 'fails'
        ? []
        : said.map((data) =>
            question!.type === 'MX'
              ? { type: 'MX' as const, name: question!.name, data: { exchange: data, preference: 10 } }
              : { type: 'A' as const, name: question!.name, data },
          );
    const SERVFAIL = 2;
    const flags = said === 'fails' ? SERVFAIL : 0;
    socket.send(encode({ type: 'response', id, flags, questions, answers }), port, address);
  });
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const at = `127.0.0.1:${socket.address().port}`;
  return { ask: asking(settings.parse({ nameServer: at })), close: () => socket.close() };
}

test('a domain whose mail servers have no public address takes no mail; one that could not be found out about may', async () => {
  const { ask, close } = await nameServer({
    'MX inside.example': ['mx.inside.example', 'mx2.inside.example'],
    'A mx.inside.example': ['10.0.0.4'],
    'MX halfway.example': ['mx.inside.example', 'mx.dark.example'],
    'A mx.dark.example': 'fails',
  });
  const mailbox = (domain: string) => ask({ kind: 'mailbox', email: `maren@${domain}` }, never);
  expect(await mailbox('inside.example')).toEqual({ state: 'no-server', code: 0 });
  expect(await mailbox('halfway.example')).toEqual({ state: 'no-answer', code: 0 });
  close();
});

test('without MX a domain’s own address takes its mail; an outage while it is looked for is no answer', async () => {
  const { ask, close } = await nameServer({
    'A firm.example': ['203.0.113.7'],
    'A dark.example': 'fails',
  });
  const hosts = (domain: string) => ask({ kind: 'mail-host', domain }, never);
  expect(await hosts('firm.example')).toEqual({ state: 'hosts', hosts: ['firm.example'] });
  expect(await hosts('dark.example')).toEqual({ state: 'failed' });
  expect(await hosts('nothing.example')).toEqual({ state: 'none' });
  close();
});
