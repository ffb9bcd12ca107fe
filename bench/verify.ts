// Verifying a list: addresses a second against mail servers that answer at once, and memory on the way; how much 50 servers that never answer
// hold the others up; and what judging takes once everything is answered.
// npm run bench -- verify [ADDRESSES]
import { fork } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { decode, encode } from 'dns-packet';
import { newJob, settings, type InputOf, type RunKind } from '@sieve/contract';
import { decide } from '../packages/server/src/decisions/commands';
import { closeDb, openDb } from '../packages/server/src/db/open';
import { createJob, jobById } from '../packages/server/src/jobs/store';
import { asking } from '../packages/server/src/outside/ask';
import type { RunContext } from '../packages/server/src/runs/context';
import { askHandler } from '../packages/server/src/sieve/ask-run';
import { nothingKept } from '../packages/server/src/sieve/kept';
import { runSift } from '../packages/server/src/sieve/sift-run';
import { addSource, recordAdder } from '../packages/server/src/sources/store';

const EACH = 20;
const SILENT = 50;
const [, , first = '20000'] = process.argv;
if (first === 'outside') await outside();
else await measure(Number(first));

/** The outside: a name server, and one mail server for all domains that answers at once; at domains named `mute` it says nothing. */
async function outside() {
  const dns = createSocket('udp4');
  dns.on('message', (asked, { port, address }) => {
    const { id, questions } = decode(asked);
    const { type, name } = questions![0]!;
    const answers =
      type === 'MX'
        ? [{ type: 'MX' as const, name, data: { exchange: `mx.${name}`, preference: 10 } }]
        : type === 'A'
          ? [{ type: 'A' as const, name, data: name.includes('mute') ? '127.0.0.2' : '127.0.0.1' }]
          : [];
    dns.send(encode({ type: 'response', id, flags: 0, questions, answers }), port, address);
  });
  dns.bind(0, '127.0.0.1');
  await once(dns, 'listening');
  const mail = createServer((socket) => {
    socket.on('error', () => undefined);
    if (socket.localAddress?.endsWith('127.0.0.2')) return;
    socket.write('220 ready\r\n');
    socket.on('data', (data) => {
      const line = data.toString();
      socket.write(/^RCPT TO:<(?!m)/.test(line) ? '550 5.1.1 gone\r\n' : '250 ok\r\n');
    });
  });
  mail.listen(0);
  await once(mail, 'listening');
  process.send!({ dns: dns.address().port, smtp: (mail.address() as AddressInfo).port });
}

async function measure(addresses: number) {
  const child = fork(fileURLToPath(import.meta.url), ['outside']);
  const [ports] = (await once(child, 'message')) as [{ dns: number; smtp: number }];
  const line = (name: string, value: string) => process.stdout.write(`${name.padEnd(44)} ${value}\n`);
  try {
    const alone = await run(addresses, 0, ports);
    line(`${addresses} addresses, ${addresses / EACH} domains`, `${Math.round(addresses / alone.asking)} a second`);
    line('memory at a tenth, half and all of it', alone.memory.map((mb) => `${mb} MB`).join(', '));
    line('sifting them once answered', `${Math.round(alone.sifting * 1000)} ms`);
    const beside = await run(addresses, SILENT, ports);
    line(
      `beside ${SILENT} servers that never answer`,
      `${(beside.others / alone.others).toFixed(2)} of the time for the others`,
    );
  } finally {
    child.kill();
  }
}

/** @returns seconds; `others`: until the last address was answered that a server says something about */
async function run(addresses: number, mute: number, ports: { dns: number; smtp: number }) {
  const dir = mkdtempSync(join(tmpdir(), 'sieve-verify-'));
  const db = openDb(join(dir, 'sieve.db'), fileURLToPath(new URL('../../packages/server/migrations', import.meta.url)));
  try {
    const jobId = createJob(db, newJob.parse({ name: 'Verify' }), 0);
    const columns = [{ name: 'Email', target: 'email' as const }];
    const origin = { kind: 'table' as const, encoding: 'utf-8', delimiter: ',', headerRow: 0 };
    const sourceId = addSource(db, { jobId, name: 'list', origin, about: 'people', columns, file: '' }, 'you', 0);
    const add = recordAdder(db);
    db.$client.transaction(() => {
      // The silent ones come first, as is worst.
      for (let n = 0; n < mute * EACH; n++) add(sourceId, n + 1, [`m${n}@mute${n % mute}.example`]);
      for (let n = 0; n < addresses; n++)
        add(sourceId, mute * EACH + n + 1, [`${n % 5 === 4 ? 'x' : 'm'}${n}@firm${Math.floor(n / EACH)}.example`]);
    })();
    for (const { id } of jobById(db, jobId)!.sieve.filter(({ id }) => !['tidy', 'verify'].includes(id))) {
      const step = jobById(db, jobId)!.sieve.find((one) => one.id === id)!;
      if (id !== 'match' && id !== 'screen')
        decide(db, jobId, 'you', { kind: 'configure', step: { ...step, on: false } }, 0);
    }
    const kept = nothingKept();
    const memory: number[] = [];
    const marks = [0.1, 0.5, 1];
    let heard = 0;
    const context = <K extends RunKind>(input: InputOf<K>): RunContext<K> => ({
      db,
      runId: 0,
      jobId,
      input,
      settings: settings.parse({
        nameServer: `127.0.0.1:${ports.dns}`,
        mail: { port: ports.smtp, simulated: true, perServerPerSecond: 1000, timeoutMs: 20_000 },
      }),
      dataDir: dir,
      kept,
      now: Date.now,
      progress: () => undefined,
      sift: () => undefined,
      signal: new AbortController().signal,
    });
    await runSift(context<'sift'>({ kind: 'sift' }));
    const from = performance.now();
    let others = 0;
    const ask = asking(context<'ask'>({ kind: 'ask', step: 'verify' }).settings);
    await askHandler(async (question, signal, stale) => {
      const answer = await ask(question, signal, stale);
      if (question.kind === 'mailbox' && !question.email.includes('mute')) {
        others = performance.now() - from;
        if (++heard >= marks[0]! * addresses) {
          marks.shift();
          memory.push(Math.round(process.memoryUsage().rss / 1e6));
        }
      }
      return answer;
    })(context<'ask'>({ kind: 'ask', step: 'verify' }));
    const asked = performance.now();
    await runSift(context<'sift'>({ kind: 'sift' }));
    return { asking: (asked - from) / 1000, others, memory, sifting: (performance.now() - asked) / 1000 };
  } finally {
    closeDb(db);
    rmSync(dir, { recursive: true, force: true });
  }
}
