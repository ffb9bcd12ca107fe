import { createSocket } from 'node:dgram';
import { createServer } from 'node:net';
import packet, { type Answer, type Packet } from 'dns-packet';
import type { CallLog } from '../kit/call-log';
import { mannerOf } from '../sites/site';
import type { World } from '../world/world';

const NXDOMAIN = 3;
const TTL = 60;
/** The most an answer over UDP may hold (RFC 1035 4.2.1). */
const UDP_BYTES = 512;

/** A name server for the world's domains (RFC 1035), over UDP and TCP: MX and A; every mail host and site is this machine. */
export async function startDns(world: World, port: number, log: CallLog): Promise<{ close: () => void }> {
  const hosts = new Set(world.firms.map((firm) => firm.mailHost));

  const hasSite = (name: string) => {
    const firm = world.firmByDomain.get(name.replace(/^www\./, ''));
    return firm !== undefined && mannerOf(firm) !== 'unregistered';
  };

  function answer(query: Packet): Packet {
    const question = query.questions?.[0];
    const name = question?.name.toLowerCase() ?? '';
    log.add('dns', `${question?.type} ${name}`);
    const firm = world.firmByDomain.get(name);
    const known = firm !== undefined || hosts.has(name) || PROVIDERS.has(name) || hasSite(name);
    const answers: Answer[] = [];
    if (question?.type === 'MX' && firm) {
      if (firm.manner === 'none') answers.push({ type: 'MX', name, ttl: TTL, data: { preference: 0, exchange: '.' } });
      else {
        answers.push({ type: 'MX', name, ttl: TTL, data: { preference: 20, exchange: `backup.${firm.mailHost}` } });
        answers.push({ type: 'MX', name, ttl: TTL, data: { preference: 10, exchange: firm.mailHost } });
      }
    } else if (question?.type === 'MX' && PROVIDERS.has(name)) {
      answers.push({ type: 'MX', name, ttl: TTL, data: { preference: 10, exchange: 'mx.north-post.example' } });
    } else if (question?.type === 'A' && (hosts.has(name) || hasSite(name))) {
      answers.push({ type: 'A', name, ttl: TTL, data: '127.0.0.1' });
    }
    const flags = packet.AUTHORITATIVE_ANSWER | (known ? 0 : NXDOMAIN);
    return { type: 'response', id: query.id ?? 0, flags, questions: query.questions ?? [], answers };
  }

  const udp = createSocket('udp4');
  udp.on('message', (message, from) => {
    const reply = answer(decode(message));
    const bytes = packet.encode(reply);
    udp.send(
      bytes.length <= UDP_BYTES
        ? bytes
        : packet.encode({ ...reply, flags: (reply.flags ?? 0) | packet.TRUNCATED_RESPONSE, answers: [] }),
      from.port,
      from.address,
    );
  });
  await new Promise<void>((resolve, reject) => udp.once('error', reject).bind(port, '127.0.0.1', resolve));

  const tcp = createServer((socket) => {
    let waiting = Buffer.alloc(0);
    socket.on('error', () => socket.destroy());
    socket.on('data', (data) => {
      waiting = Buffer.concat([waiting, data]);
      while (waiting.length >= 2 && waiting.length >= 2 + waiting.readUInt16BE(0)) {
        const size = waiting.readUInt16BE(0);
        socket.write(packet.streamEncode(answer(decode(waiting.subarray(2, 2 + size)))));
        waiting = waiting.subarray(2 + size);
      }
    });
  });
  await new Promise<void>((resolve, reject) => tcp.once('error', reject).listen(port, '127.0.0.1', resolve));
  return {
    close: () => {
      udp.close();
      tcp.close();
    },
  };
}

/** Providers of free and throw-away mailboxes. */
export const PROVIDERS = new Set(['freepost.example', 'throwaway.example']);

function decode(message: Buffer): Packet {
  try {
    return packet.decode(message);
  } catch {
    return { type: 'query', id: 0, questions: [] };
  }
}
