import type { ContactRow, Inspection, RowPage, SourceRow } from '@sieve/contract';
import { harness } from '../../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

async function look(name: string, text: string, format: object = {}) {
  const { body: upload } = await server.call<{ id: string }>('POST', `/api/uploads?name=${name}`, text);
  const { body } = await server.call<Inspection>('POST', `/api/uploads/${upload.id}/inspect?name=${name}`, { format });
  return body;
}
async function people(name: string, text: string): Promise<ContactRow[]> {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name });
  await server.bring(job.id, name, text);
  return (await server.call<RowPage>('GET', `/api/jobs/${job.id}/rows?step=screen&sort=lastName`)).body.rows;
}

// The shape of the example in RFC 6350, section 8 (structured names, PREF, uris, folded lines, groups), with invented people.
const CARDS = [
  'BEGIN:VCARD',
  'VERSION:4.0',
  'FN:Maren Oakhill',
  'N:Oakhill;Maren;;Dr.;M.Sc.',
  'BDAY:--0203',
  'ORG;TYPE=work:Brackenfold Dairy;Quality',
  'TITLE:Head of Quality',
  'EMAIL;PREF=2:maren@private.example',
  'EMAIL;TYPE=work;PREF=1:maren.oakhill@brackenfold.example',
  'TEL;VALUE=uri;TYPE="work,voice":tel:+44-113-496-0142',
  'ADR;TYPE=work:;;12 Mill Lane;Wells;Somerset;BA5 1AA;United Kingdom',
  'NOTE:Met at the show\\, asked for a',
  '  price\\; twice.',
  'END:VCARD',
  '',
  'BEGIN:VCARD',
  'VERSION:3.0',
  'N:Brannagh;Aoife;;;',
  'FN:Aoife Brannagh',
  'item1.EMAIL;type=INTERNET;type=pref:aoife@sorrel.example',
  'item1.X-ABLABEL:Work',
  'TEL;TYPE=CELL:020 7946 0318',
  'END:VCARD',
  'BEGIN:VCARD',
  'this is no card',
  'END:VCARD',
].join('\r\n');

test('vCards of both versions are rows; one that cannot be read is listed where it begins', async () => {
  const found = await look('people.vcf', CARDS);
  expect(found).toMatchObject({ format: { kind: 'cards' }, rows: 2, unread: 1, issues: [{ line: 24, kept: false }] });
  const first = Object.fromEntries(found.columns.map(({ name }, i) => [name, found.preview[0]![i]]));
  expect(first).toMatchObject({
    'Full name': 'Maren Oakhill',
    Company: 'Brackenfold Dairy',
    Email: 'maren.oakhill@brackenfold.example',
    'Other emails': 'maren@private.example',
    City: 'Wells',
    Note: 'Met at the show, asked for a price; twice.',
  });
  expect((await people('people.vcf', CARDS)).map(({ name, email, phone }) => [name, email, phone])).toEqual([
    ['Aoife Brannagh', 'aoife@sorrel.example', '+442079460318'],
    ['Maren Oakhill', 'maren.oakhill@brackenfold.example', '+441134960142'],
  ]);
});

test('JSON: the longest list of objects, nested ones flattened; JSON lines: the good ones', async () => {
  const person = (first: string, last: string) => ({
    name: { first, last },
    company: { name: 'Sorrel Hill', address: { city: 'Wells' } },
    emails: [`${first}@sorrel.example`, `${last}@sorrel.example`],
    phones: [{ kind: 'work', number: '0113 496 0142' }],
  });
  const document = JSON.stringify({
    total: 2,
    tags: ['a'],
    results: [person('Maren', 'Oakhill'), person('Aoife', 'Brannagh')],
  });
  const found = await look('people.json', document);
  expect(found.format).toMatchObject({ kind: 'objects', lines: false });
  expect(found.mapping.map(({ name, target }) => `${name}: ${target}`)).toEqual([
    'name.first: firstName',
    'name.last: lastName',
    'company.name: company',
    'company.address.city: city',
    'emails: email',
    'phones.1.kind: own',
    'phones.1.number: phone',
  ]);
  const [aoife] = await people('people.json', document);
  expect(aoife).toMatchObject({ name: 'Aoife Brannagh', company: 'Sorrel Hill', email: 'aoife@sorrel.example' });
  const lines =
    '{"name":"Maren Oakhill","email":"m@sorrel.example"}\r\n{"name":"Aoife\r\n\r\n{"name":"Piers Venn","__proto__":"x"}';
  expect(await look('people.jsonl', lines)).toMatchObject({
    format: { kind: 'objects', lines: true },
    rows: 2,
    unread: 1,
    issues: [{ line: 2, code: 'record-unreadable' }],
  });
  const { body: upload } = await server.call<{ id: string }>('POST', '/api/uploads?name=x.json', '[{"a": 1}, {"a"');
  expect(await server.call('POST', `/api/uploads/${upload.id}/inspect?name=x.json`, {})).toMatchObject({
    status: 422,
    body: { code: 'broken-json' },
  });
});

const PAGE = `<!DOCTYPE html><html><head><meta charset="windows-1252"><title>Members</title></head><body>
  <ul class="menu">${'<li><a href="/">Home</a></li>'.repeat(9)}</ul>
  <table id="members"><tr><th>Name</th><th>E-mail</th><th>Town</th></tr>
  ${['Maren Oakhill', 'Aoife Brannagh', 'Zo\xe9 Venn', 'Piers Hathersage'].map((name, i) => `<tr><td>${name}</td><td>p${i}@guild.example</td><td>Wells</td></tr>`).join('')}
  </table></body></html>`;

test('a file of comments without end, or of blanks, is told as fast as any', async () => {
  const { body: upload } = await server.call<{ id: string }>(
    'POST',
    '/api/uploads?name=x.html',
    '<!---->'.repeat(5000),
  );
  const { status } = await server.call('POST', `/api/uploads/${upload.id}/inspect?name=x.html`, {});
  expect([200, 422]).toContain(status);
  expect(
    (await look('blank.csv', `Name,Email\nMaren Oakhill,"a@b.example;${' '.repeat(30_000)}c@d.example"\n`)).rows,
  ).toBe(1);
});

test('a saved page gives its best set of records, and another on wish; its own encoding counts', async () => {
  const bytes = Buffer.from(PAGE, 'latin1');
  const uploaded = await server.app.inject({
    method: 'POST',
    url: '/api/uploads?name=members.html',
    headers: { host: '127.0.0.1', 'content-type': 'application/octet-stream' },
    payload: bytes,
  });
  const { id } = uploaded.json<{ id: string }>();
  const inspect = async (format: object) =>
    (await server.call<Inspection>('POST', `/api/uploads/${id}/inspect?name=members.html`, { format })).body;
  const found = await inspect({});
  expect(found).toMatchObject({ format: { kind: 'page', encoding: 'windows-1252' }, rows: 4 });
  expect(found.preview[2]).toEqual(['Zoé Venn', 'p2@guild.example', 'Wells']);
  expect(found.sheets[0]).toBe('1. 4 records: Name, E-mail, Town');
  expect((await inspect({ ...found.format, sheet: found.sheets[1] })).rows).toBe(9);
  // Read as a table all the same, when it is wished.
  expect((await inspect({ kind: 'table' })).format.kind).toBe('table');
});

test('only new ones: who is held or suppressed stays out, and is listed', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'New' });
  await server.call('POST', '/api/suppressions', { text: 'never@asked.example' });
  const text =
    'Name,Email\nMaren Oakhill,maren.oakhill@brackenfold.example\nOluchi Tolliver,o@new.example\nA Never,never@asked.example\nO. Tolliver,o@new.example\n';
  const { body: upload } = await server.call<{ id: string }>('POST', '/api/uploads?name=list.csv', text);
  const { body: found } = await server.call<Inspection>('POST', `/api/uploads/${upload.id}/inspect?name=list.csv`, {
    jobId: job.id,
  });
  expect(found.held).toEqual({ fresh: 2, thisJob: 0, otherJobs: 1, suppressed: 1, exported: 0, twice: 1 });
  expect(found.heldDetails).toMatchObject({ jobs: [{ rows: 1 }], suppressedBy: { email: 1 } });
  const { name, format, mapping: columns } = found;
  await server.call('POST', `/api/jobs/${job.id}/sources?rows=3`, {
    uploadId: upload.id,
    name,
    format,
    columns,
    take: 'new',
  });
  await server.idle();
  const {
    body: [source],
  } = await server.call<SourceRow[]>('GET', `/api/jobs/${job.id}/sources`);
  expect(source).toMatchObject({ rows: 2, unread: 2 });
  const { body: issues } = await server.call<object[]>('GET', `/api/jobs/${job.id}/sources/${source!.id}/issues`);
  expect(issues).toMatchObject([
    { line: 2, code: 'not-new', field: 'otherJobs', kept: false },
    { line: 4, code: 'not-new', field: 'suppressed', kept: false },
  ]);
});
