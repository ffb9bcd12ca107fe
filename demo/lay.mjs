// Lays the Larkfell demo through the application's own API, as a person would.
import { readFileSync } from 'node:fs';

const FILES = ['show-list-2026.csv', 'saved-leads.csv', 'guild-members.txt'];
/** Enough to look up a part, so that the job stands half-way. */
const FIRST_BUDGET_CENTS = 450;

export async function layDemo(url, say) {
  const call = async (method, path, body) => {
    const response = await fetch(url + path, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${(await response.json()).message}`);
    return response.json();
  };
  const idle = async () => {
    for (;;) {
      const runs = await call('GET', '/api/runs');
      const failed = runs.find((run) => run.state === 'failed');
      if (failed) throw new Error(`${failed.input.kind}: ${JSON.stringify(failed.result)}`);
      if (runs.every((run) => !['queued', 'running'].includes(run.state))) return;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  };
  const bring = async (job, name) => {
    const response = await fetch(`${url}/api/uploads?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: readFileSync(new URL(name, import.meta.url)),
    });
    const { id } = await response.json();
    const found = await call('POST', `/api/uploads/${id}/inspect?name=${encodeURIComponent(name)}`, { jobId: job });
    const columns = found.columns.map(({ name: column, target }) => ({ name: column, target }));
    await call('POST', `/api/jobs/${job}/sources?rows=${found.rows}`, {
      uploadId: id,
      name,
      format: found.format,
      columns,
    });
    await idle();
    say(`  ${name}: ${found.rows} rows`);
  };

  const setUp = async (job, id, options, on) => {
    const { sieve } = await call('GET', `/api/jobs/${job}`);
    const was = sieve.find((step) => step.id === id);
    await call('POST', `/api/jobs/${job}/steps`, {
      step: { ...was, on: on ?? was.on, options: { ...was.options, ...options } },
      was,
    });
  };

  await call('POST', '/api/suppressions', {
    text: 'aughtyfield.example\nbrackengarth.example\npress@larkfell.example',
  });
  const { id: abroad } = await call('POST', '/api/jobs', {
    name: 'Cold stores, Australia',
    folder: 'Larkfell autumn',
    note: 'Engineering managers',
    targetValid: 300,
    budgetCents: 4000,
  });
  const { id: job } = await call('POST', '/api/jobs', {
    name: 'Cheese makers, UK & Ireland',
    folder: 'Larkfell autumn',
    note: 'Quality and production leads · Larkfell loggers',
    targetValid: 800,
    budgetCents: FIRST_BUDGET_CENTS,
  });
  for (const name of FILES) await bring(job, name);
  // Lists as clean as these leave little in doubt: it is judged from lower than a person would.
  await setUp(job, 'match', { judgeFrom: 0.01 });
  await setUp(job, 'screen', {
    rules: [
      { field: 'title', words: ['assistant', 'intern', 'driver', 'administrator'], fate: 'aside' },
      { field: 'company', words: ['equipment', 'consultancy', 'packaging', 'services'], fate: 'aside' },
    ],
    briefTitles: [
      'Quality Manager',
      'Head of Quality',
      'Quality Assurance Manager',
      'Production Manager',
      'Head of Production',
      'Technical Manager',
      'Technical Director',
      'Operations Director',
      'Dairy Technologist',
      'Head Cheesemaker',
      'Owner',
      'Managing Director',
      'Founder',
    ],
    atMostPerCompany: 3,
  });
  await setUp(job, 'append-email', { finders: ['lantern'] });
  await idle();
  await call('POST', `/api/jobs/${job}/runs`, { step: 'verify' });
  await idle();
  say('  addresses that came with the files: verified');
  await call('POST', `/api/jobs/${job}/runs`, { step: 'append-email' });
  await idle();
  say('  addresses looked up as far as the first part of the budget goes');
  await call('PATCH', `/api/jobs/${job}`, { budgetCents: 9000 });

  const any = (field, texts, exact = true, not = false) => ({
    field,
    not,
    terms: texts.map((text) => ({ text, exact })),
  });
  const search = async (name, jobId, conditions, about = 'people') => {
    const { id } = await call('POST', '/api/searches', {
      name,
      folder: 'Larkfell autumn',
      jobId,
      search: { about, conditions },
    });
    await call('POST', `/api/searches/${id}/split`, {});
    for (;;) {
      const view = await call('GET', `/api/searches/${id}`);
      if (view.splitting === null) return view;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  };
  const wide = await search('Cheese quality & production', job, [
    {
      field: 'title',
      not: false,
      terms: [
        ...any('title', ['head of quality', 'quality manager', 'production manager']).terms,
        { text: 'technical', exact: false },
      ],
    },
    any('title', ['assistant'], false, true),
    any('sector', ['Dairy processing', 'Cheese making', 'Ice cream', 'Food production']),
    any('country', ['GB', 'IE']),
  ]);
  await call('POST', `/api/searches/${wide.id}/pulls`, { batchIds: [wide.batchViews[0].id], jobId: job, first: 600 });
  await idle();
  say(`  a search of the directory: ${wide.split.count} people in ${wide.batches} batches, 600 rows of it pulled`);
  const far = await search('Cold store managers', abroad, [
    any('title', ['manager', 'engineer', 'director'], false),
    any('sector', ['Cold storage']),
    any('country', ['AU']),
  ]);
  await call('POST', `/api/searches/${far.id}/pulls`, { batchIds: far.batchViews.map(({ id }) => id), jobId: abroad });
  await call('PATCH', `/api/searches/${far.id}`, { standing: { kind: 'days', everyDays: 7, left: null } });
  await idle();
  say(`  a second one, pulled: ${far.split.count} people`);
  await setUp(
    abroad,
    'company',
    {
      question: 'Do they store chilled goods for others?',
      speaksFor: ['pallet places', 'cold storage', 'our stores', 'we hold', 'blast freezing', 'pick and pack'],
      speaksAgainst: ['we make', 'install', 'our consultants'],
      detailsBy: 'fernbank',
      headcountFrom: 5,
    },
    true,
  );
  await idle();
  await call('POST', `/api/jobs/${abroad}/runs`, { step: 'company' });
  await idle();
  say('  the websites of its companies: read and asked');
  const firms = await search(
    'Firms that log temperatures, Ireland',
    job,
    [any('technology', ['data loggers']), any('country', ['IE'])],
    'companies',
  );
  await call('POST', `/api/searches/${firms.id}/pulls`, { batchIds: firms.batchViews.map(({ id }) => id), jobId: job });
  await idle();
  say(`  a third one, of companies: ${firms.split.count}`);
  const { id: judges } = await call('POST', '/api/jobs', {
    name: 'Contest judges, by phone',
    folder: 'Larkfell autumn',
    note: 'Invited to the tasting; called, not written to',
    targetValid: 0,
    budgetCents: 1500,
  });
  await bring(judges, 'contest-judges.csv');
  for (const id of ['append-email', 'verify']) await setUp(judges, id, {}, false);
  await setUp(judges, 'append-phone', { services: ['doorchime', 'bellpull', 'switchyard'] }, true);
  await idle();
  await call('POST', `/api/jobs/${judges}/runs`, { step: 'append-phone' });
  await idle();
  say('  a list of judges: their phones looked up');
}
