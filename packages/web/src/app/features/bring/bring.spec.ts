import type { Inspection } from '@sieve/contract';
import { HttpEventType, HttpResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { drawn, sampleJob, webHarness } from '../../testing/web-harness';
import { Bring } from './bring';

const inspection = (change: Partial<Inspection> = {}): Inspection => ({
  name: 'guild.txt',
  format: { kind: 'table', encoding: 'utf-16le', delimiter: '\t', headerRow: 0 },
  sheets: [],
  columns: ['Surname', 'E-mail'].map((name, i) => ({
    name,
    target: i === 0 ? ('lastName' as const) : ('email' as const),
    sure: 0.9,
    filled: 1,
    samples: ['Oakhill'],
    lostDigits: 0,
  })) as Inspection['columns'],
  mapping: [
    { name: 'Surname', target: 'lastName' },
    { name: 'E-mail', target: 'email' },
  ],
  remembered: false,
  whole: true,
  preview: [['Oakhill', 'm@brackenfold.example']],
  tidied: [],
  rows: 640,
  blank: 0,
  unread: 1,
  noted: 0,
  issues: [{ line: 181, code: 'quote-not-closed', kept: false, field: '', input: 'Torn "off' }],
  held: { fresh: 600, thisJob: 30, otherJobs: 10, suppressed: 0, exported: 12, twice: 3 },
  heldDetails: {
    jobs: [{ id: 9, name: 'Dairies', rows: 10 }],
    lastExportAt: 1,
    suppressedBy: {},
    merges: [
      { name: 'Maren Oakhill', fields: [{ field: 'title', held: 'Owner', comes: 'Director', then: 'Director' }] },
    ],
  },
  ...change,
});

async function open(inputs: { id?: string } = { id: '4' }) {
  const { http } = webHarness();
  const bring = await drawn(Bring, inputs);
  const drop = (name: string) => {
    const event = new Event('drop', { bubbles: true, cancelable: true });
    Object.assign(event, { dataTransfer: { files: [new File(['a'], name)] } });
    bring.element.dispatchEvent(event);
  };
  const answerUpload = async () => {
    const upload = http.expectOne((request) => request.url === '/api/uploads');
    upload.event({ type: HttpEventType.UploadProgress, loaded: 1, total: 2 });
    upload.event(new HttpResponse({ body: { id: 'upload-1', name: 'guild.txt', holds: [] } }));
    await bring.stable();
  };
  /** Lets promises that wait for an answer go on. */
  const settled = async () => {
    await new Promise((resolve) => setTimeout(resolve));
    await bring.stable();
  };
  return { ...bring, http, drop, answerUpload, settled };
}
const inspects = (request: { url: string }) => request.url === '/api/uploads/upload-1/inspect';

describe('bring in', () => {
  it('shows what was recognised, who is held, and what cannot be read, before anything comes in', async () => {
    const { http, drop, answerUpload, settled, text, button, element } = await open();
    drop('guild.txt');
    await answerUpload();
    http.expectOne(inspects).flush(inspection());
    await settled();
    expect(text()).toContain('New to you 600');
    expect(element.querySelectorAll('[role=table] mat-select')).toHaveLength(2);
    expect(text()).toContain('10 in Dairies');
    expect(text()).toContain('3 rows repeat somebody further up');
    expect(text()).toContain('DirectorOwner');
    button(/1 row/).click();
    await settled();
    expect(text()).toContain('a quotation mark is never closed');
    button(/Bring in 640 rows/).click();
    const brought = http.expectOne((request) => request.url === '/api/jobs/4/sources');
    expect(brought.request.body).toMatchObject({ uploadId: 'upload-1', name: 'guild.txt' });
    expect(brought.request.params.get('rows')).toBe('640');
  });

  it('reads the file again when a column is corrected, and takes the last answer only', async () => {
    const { http, drop, answerUpload, settled, text, pick } = await open();
    drop('guild.txt');
    await answerUpload();
    http.expectOne(inspects).flush(inspection());
    await settled();
    for (const target of ['First name', 'Note']) await pick('What Surname is', target);
    const [first, second] = http.match(inspects);
    expect(second!.request.body).toMatchObject({ columns: [{ target: 'note' }, { target: 'email' }] });
    second!.flush(inspection({ rows: 7 }));
    first!.flush(inspection({ rows: 9 }));
    await settled();
    expect(text()).toContain('Bring in 7 rows');
  });

  it('brings in only who never left with an export, and says what becomes of what is held', async () => {
    const { http, drop, answerUpload, settled, pick, button } = await open();
    drop('guild.txt');
    await answerUpload();
    http.expectOne(inspects).flush(inspection());
    await settled();
    await pick('What becomes of Email where it is held', 'overwrite');
    const again = http.expectOne(inspects);
    expect(again.request.body).toMatchObject({
      columns: [{ target: 'lastName' }, { target: 'email', held: 'overwrite' }],
    });
    again.flush(inspection({ mapping: (again.request.body as { columns: Inspection['mapping'] }).columns }));
    await settled();
    button(/never exported 628/).click();
    await settled();
    button(/Bring in 628 rows/).click();
    const brought = http.expectOne((request) => request.url === '/api/jobs/4/sources');
    expect(brought.request.body).toMatchObject({ take: 'not-exported', columns: [{}, { held: 'overwrite' }] });
  });

  it('a list that is only to be verified makes a job whose other steps are off', async () => {
    const { http, drop, answerUpload, settled, button, element } = await open({});
    drop('guild.txt');
    await answerUpload();
    http.expectOne(inspects).flush(inspection());
    await settled();
    const shown = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    const only = [...element.querySelectorAll('mat-checkbox')].find((box) => box.textContent.includes('Only verify'))!;
    only.querySelector('input')!.click();
    button(/Bring in 640 rows/).click();
    const job = sampleJob({ id: 6 });
    http.expectOne({ method: 'POST', url: '/api/jobs' }).flush(job);
    http.expectOne((request) => request.url === '/api/jobs/6/sources').flush({ sourceId: 1, runId: 1 });
    http.expectOne({ method: 'GET', url: '/api/jobs/6' }).flush(job);
    const set: [string, boolean][] = [];
    for (;;) {
      const [request] = http.match({ method: 'POST', url: '/api/jobs/6/steps' });
      if (!request) break;
      const { step } = request.request.body as { step: { kind: string; on: boolean } };
      set.push([step.kind, step.on]);
      request.flush({ job });
      await settled();
    }
    expect(set).toEqual([
      ['match', false],
      ['screen', false],
      ['append-email', false],
    ]);
    expect(shown).toHaveBeenCalledWith(['/jobs', 6], { queryParams: { step: 'verify' } });
  });

  it('splits a column with the first rows as they will be, and what is made goes along', async () => {
    const { http, drop, answerUpload, settled, pick, button, text, write } = await open();
    drop('guild.txt');
    await answerUpload();
    http.expectOne(inspects).flush(inspection({ preview: [['Oakhill (Wells)', 'm@brackenfold.example']] }));
    await settled();
    button('Split or join Surname').click();
    await settled();
    await pick('What is done', 'Split by the pattern');
    await write('input[aria-label^="The pattern"]', '* (*)');
    await settled();
    expect(text()).toContain('Oakhill (Wells)OakhillWells');
    button(/Make 2 columns/).click();
    const asked = http.expectOne(inspects).request.body as { columns: Inspection['mapping'] };
    const by = { how: 'pattern', text: '* (*)' };
    expect(asked.columns.slice(2)).toEqual([
      { name: 'Surname, 1', target: 'own', from: { kind: 'part', column: 0, by, part: 0 } },
      { name: 'Surname, 2', target: 'own', from: { kind: 'part', column: 0, by, part: 1 } },
    ]);
    await settled();
    button('Remove Surname, 1').click();
    expect((http.expectOne(inspects).request.body as { columns: object[] }).columns).toHaveLength(3);
  });

  it('says why a file cannot be read', async () => {
    const { http, drop, answerUpload, settled, text } = await open();
    drop('picture.csv');
    await answerUpload();
    http
      .expectOne(inspects)
      .flush({ message: 'picture.csv is not a table.' }, { status: 422, statusText: 'Unprocessable' });
    await settled();
    expect(text()).toContain('picture.csv is not a table.');
  });
});
