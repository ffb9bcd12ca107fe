import type { ExportPreview } from '@sieve/contract';
import { MAIL_OUT, type ExportColumn } from '@sieve/core/export/columns';
import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { Export } from './export';

const preview = (rows: number): ExportPreview => ({
  rows,
  first: [['Maren', 'Oakhill', 'Owner', 'Brackenfold', 'm@brackenfold.example', '', 'Wells', 'GB']],
  files: [{ name: 'leads-1.csv', rows, companies: 1 }],
  counts: { valid: rows, risky: 2, unknown: 0, none: 1 },
  heldBack: { exportedBefore: 3, risky: 2, suppressed: 0, stale: 0 },
  ownFields: ['Stand'],
});
const waited = () => new Promise((resolve) => setTimeout(resolve, 200));

describe('export', () => {
  beforeEach(() => localStorage.clear());

  it('previews the real rows, says what is held back, and exports what is shown', async () => {
    const { http } = webHarness();
    haveJobs([sampleJob({ id: 1 })]);
    const { text, stable, button, element } = await drawn(Export, { id: 1 });
    http.expectOne('/api/jobs/1/exports').flush([]);
    await waited();
    http.expectOne('/api/jobs/1/exports/preview').flush(preview(40));
    await stable();
    expect(text()).toContain('m@brackenfold.example');
    expect(text()).toContain('Exported before 3');
    expect(button(/Mail-out/).getAttribute('aria-pressed')).toBe('true');
    button(/^\s*XLSX/).click();
    button(/Everything/).click();
    await stable();
    await waited();
    const asked = http.expectOne('/api/jobs/1/exports/preview');
    const { form, columns } = asked.request.body as { form: string; columns: { field: string }[] };
    expect([form, columns.some(({ field }) => field === 'own:Stand')]).toEqual(['xlsx', true]);
    asked.flush(preview(41));
    await stable();
    button(/Export 41/).click();
    expect(http.expectOne({ method: 'POST', url: '/api/jobs/1/exports' }).request.body).toMatchObject({ form: 'xlsx' });
    expect(element.querySelectorAll('.head input').length).toBeGreaterThan(8);
  });

  it('goes on after a preview that failed', async () => {
    const { http } = webHarness();
    haveJobs([sampleJob({ id: 1 })]);
    const { text, stable, button } = await drawn(Export, { id: 1 });
    http.expectOne('/api/jobs/1/exports').flush([]);
    await waited();
    http.expectOne('/api/jobs/1/exports/preview').error(new ProgressEvent('error'));
    await stable();
    button(/^\s*All/).click();
    await stable();
    await waited();
    http.expectOne('/api/jobs/1/exports/preview').flush(preview(7));
    await stable();
    expect(text()).toContain('Export 7');
  });

  const open = async () => {
    const { http } = webHarness();
    haveJobs([sampleJob({ id: 1 })]);
    const screen = await drawn(Export, { id: 1 });
    http.expectOne('/api/jobs/1/exports').flush([
      { id: 4, at: 0, rows: 90, files: [{ name: 'a.csv', rows: 90 }] },
      {
        id: 5,
        at: 0,
        rows: 190,
        files: [
          { name: 'a.csv', rows: 100 },
          { name: 'b.csv', rows: 90 },
        ],
      },
    ]);
    const layout = async () => {
      await screen.stable();
      await waited();
      const asked = http.expectOne('/api/jobs/1/exports/preview');
      asked.flush(preview(40));
      await screen.stable();
      return asked.request.body as { verdicts: string[]; columns: { field: string; heading: string }[] };
    };
    await layout();
    const headings = () =>
      [...screen.element.querySelectorAll<HTMLInputElement>('.head input')].map(({ value }) => value);
    return { ...screen, http, layout, headings };
  };

  it('columns are renamed, moved with Alt and the arrow keys, and left out; a blank name is none', async () => {
    const { element, layout, headings, button } = await open();
    const heads = () => element.querySelectorAll<HTMLInputElement>('.head input');
    heads()[0]!.value = ' Given name ';
    heads()[0]!.dispatchEvent(new Event('change'));
    expect((await layout()).columns[0]).toEqual({ field: 'firstName', heading: 'Given name' });
    heads()[1]!.value = ' ';
    heads()[1]!.dispatchEvent(new Event('change'));
    heads()[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', altKey: true }));
    expect((await layout()).columns.slice(0, 2).map(({ field }) => field)).toEqual(['lastName', 'firstName']);
    button('Leave out Job title').click();
    await layout();
    expect(headings()).not.toContain('Job title');
  });

  it('columns stand with the job: one change is saved after the other, one that is refused is taken off the screen', async () => {
    const { button, headings, http, stable } = await open();
    const saves = () => http.match({ method: 'PATCH', url: '/api/jobs/1' });
    for (const column of ['Phone', 'City', 'Country']) button(`Leave out ${column}`).click();
    const [first, ...more] = saves();
    expect(more).toEqual([]);
    const { columns, was } = first!.request.body as { columns: ExportColumn[]; was: object };
    expect(columns.map(({ heading }) => heading)).not.toContain('Phone');
    expect(was).toEqual({ columns: MAIL_OUT });
    first!.flush(sampleJob({ id: 1, columns }));
    const [last] = saves();
    expect(last!.request.body).toEqual({ columns: MAIL_OUT.slice(0, 5), was: { columns } });
    last!.flush({ code: 'changed-meanwhile', message: 'no' }, { status: 409, statusText: 'Conflict' });
    await stable();
    expect(headings()).toEqual(columns.map(({ heading }) => heading));
  });

  it('Ctrl Z takes back what was said of the columns, and nothing that does not show here', async () => {
    const { http } = await open();
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }));
    const said = [
      { id: 9, author: 'you', undoneAt: null, body: { kind: 'set-aside', recordIds: [7] } },
      { id: 8, author: 'you', undoneAt: null, body: { kind: 'brief', before: {}, after: { note: 'Larkfell' } } },
      { id: 7, author: 'you', undoneAt: null, body: { kind: 'brief', before: {}, after: { columns: MAIL_OUT } } },
    ];
    http.expectOne('/api/decisions?subject=job&subjectId=1').flush(said);
    expect(http.expectOne({ method: 'POST', url: '/api/decisions/7' }).request.body).toEqual({ undone: true });
  });

  it('one kind of verdict always goes, and the choice is remembered', async () => {
    const { element, layout } = await open();
    const choose = (kind: string) =>
      [...element.querySelectorAll('label')]
        .find(({ textContent }) => textContent.trim().startsWith(kind))!
        .querySelector('input')!
        .click();
    choose('risky');
    expect((await layout()).verdicts).toEqual(['valid', 'risky']);
    choose('valid');
    expect((await layout()).verdicts).toEqual(['risky']);
    choose('risky');
    expect(document.body.textContent).toContain('At least one kind has to go.');
    expect(JSON.parse(localStorage.getItem('export-layout')!)).toMatchObject({ verdicts: ['risky'] });
  });

  it('earlier exports are fetched as the file or as one archive, each with its manifest', async () => {
    const { element } = await open();
    const links = [...element.querySelectorAll<HTMLAnchorElement>('.earlier a')].map((link) =>
      link.getAttribute('href'),
    );
    expect(links).toEqual([
      '/api/exports/4/files/a.csv',
      '/api/exports/4/files/manifest.json',
      '/api/exports/5/zip',
      '/api/exports/5/files/manifest.json',
    ]);
  });
});
