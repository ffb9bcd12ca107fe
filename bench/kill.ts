// Looking up is killed (SIGKILL) at any moment, over and over, at a finder that charges for each question: what it bills is what the ledger holds.
// npm run bench -- kill [KILLS]
import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { newJob, settings } from '@sieve/contract';
import { decide } from '../packages/server/src/decisions/commands';
import { closeDb, openDb } from '../packages/server/src/db/open';
import { createJob } from '../packages/server/src/jobs/store';
import { spentCents } from '../packages/server/src/ledger/store';
import { asking } from '../packages/server/src/outside/ask';
import { keepFact } from '../packages/server/src/outside/facts';
import { askHandler } from '../packages/server/src/sieve/ask-run';
import { nothingKept } from '../packages/server/src/sieve/kept';
import { addSource, recordAdder } from '../packages/server/src/sources/store';

/** More than the kills leave time for. */
const PEOPLE_A_KILL = 10;
const PRICE = 2;
const MOST_MS = 500;
const [, , first = '200', dir = '', port = ''] = process.argv;
if (first === 'ask') await ask(dir, Number(port), 30);
else await measure(Number(first));

function opened(dir: string) {
  return openDb(join(dir, 'sieve.db'), fileURLToPath(new URL('../../packages/server/migrations', import.meta.url)));
}

/** Asks about everybody who waits; says when it begins. */
async function ask(dir: string, port: number, perSecond: number) {
  const db = opened(dir);
  const finder = {
    id: 'finder',
    name: 'Finder',
    url: `http://127.0.0.1:${port}`,
    key: 'k',
    priceCents: PRICE,
    perSecond,
  };
  const own = settings.parse({ finders: [{ ...finder, pays: 'question' }] });
  const real = asking(own);
  let begun = false;
  await askHandler((question, signal, stale) => {
    if (!begun) process.send?.('asking');
    begun = true;
    return real(question, signal, stale);
  })({
    db,
    runId: 0,
    jobId: 1,
    input: { kind: 'ask', step: 'append-email' },
    settings: own,
    dataDir: dir,
    kept: nothingKept(),
    now: Date.now,
    progress: () => undefined,
    sift: () => undefined,
    signal: new AbortController().signal,
  });
  closeDb(db);
}

async function measure(kills: number) {
  const bill = new Map<string, string>();
  const heard: string[] = [];
  const service = createServer((request, response) => {
    let body = '';
    request.on('data', (chunk) => (body += chunk));
    request.on('end', () => {
      const { domain } = JSON.parse(body) as { domain: string };
      heard.push(domain);
      bill.set(String(request.headers['idempotency-key']), domain);
      const answer = JSON.stringify({ lookup: domain, email: null, price_cents: PRICE });
      setTimeout(() => response.setHeader('content-type', 'application/json').end(answer), Math.random() * 40);
    });
  }).listen(0);
  await once(service, 'listening');
  const { port } = service.address() as AddressInfo;
  const dir = mkdtempSync(join(tmpdir(), 'sieve-kill-'));
  try {
    const people = kills * PEOPLE_A_KILL;
    lay(dir, people);
    for (let n = 0; n < kills; n++) {
      const child: ChildProcess = fork(fileURLToPath(import.meta.url), ['ask', dir, String(port)]);
      await once(child, 'message');
      await new Promise((resolve) => setTimeout(resolve, Math.random() * MOST_MS));
      child.kill('SIGKILL');
      await once(child, 'exit');
      if ((n + 1) % 50 === 0) process.stdout.write(`${n + 1} kills, ${bill.size} questions so far\n`);
    }
    await ask(dir, port, 1000);
    const db = opened(dir);
    const charges = db.$client.prepare('SELECT count(*) FROM charges').pluck().get() as number;
    const line = (name: string, value: string) => process.stdout.write(`${name.padEnd(44)} ${value}\n`);
    line(`${kills} kills while ${people} people are looked up`, `${heard.length - bill.size} questions sent again`);
    line('the finder’s bill', `${bill.size} questions, ${bill.size * PRICE} cents`);
    line('the ledger', `${charges} charges, ${spentCents(db, 1)} cents`);
    line('people billed for twice', String(bill.size - new Set(bill.values()).size));
    if (charges !== bill.size || spentCents(db, 1) !== bill.size * PRICE || bill.size !== people) process.exitCode = 1;
    closeDb(db);
  } finally {
    service.close();
    rmSync(dir, { recursive: true, force: true });
  }
}

/** A job of people of whom nothing but the finder is to be asked. */
function lay(dir: string, people: number) {
  const db = opened(dir);
  const jobId = createJob(db, newJob.parse({ name: 'Killed', budgetCents: 100_000_000 }), 0);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Website', target: 'website' as const },
  ];
  const origin = { kind: 'table' as const, encoding: 'utf-8', delimiter: ',', headerRow: 0 };
  const sourceId = addSource(db, { jobId, name: 'list', origin, about: 'people', columns, file: '' }, 'you', 0);
  const add = recordAdder(db);
  db.$client.transaction(() => {
    for (let n = 0; n < people; n++) {
      const domain = `firm${n}.example`;
      add(sourceId, n + 1, [`Maren Oakhill`, domain]);
      keepFact(db, { kind: 'mail-host', domain }, { state: 'hosts', hosts: ['mx.example'] }, Date.now(), null);
      keepFact(db, { kind: 'catch-all', domain }, { state: 'unclear' }, Date.now(), null);
    }
  })();
  const options = { finders: ['finder'], candidates: 0 };
  const step = { id: 'append-email', kind: 'append-email', on: true, options };
  decide(db, jobId, 'you', { kind: 'configure', step }, 0);
  closeDb(db);
}
