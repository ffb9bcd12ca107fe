import type { SourceRow } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { SourcesList } from './sources-list';

const source: SourceRow = {
  id: 3,
  name: 'show-list.csv',
  rows: 1121,
  unread: 1,
  issues: 2,
  createdAt: 0,
  decision: 9,
  out: false,
  stopped: null,
  about: 'people',
  origin: { kind: 'table', encoding: 'windows-1252', delimiter: ';', headerRow: 3 },
};

it('sources are listed with what could not be read, taken out and put back', async () => {
  const { http } = webHarness();
  const { stable, text, button } = await drawn(SourcesList, { jobId: 1 });
  http.expectOne('/api/jobs/1/sources').flush([source]);
  await stable();
  expect(text()).toContain('1,121 rows1 not read, 1 with a remark');
  button(/not read/).click();
  http
    .expectOne('/api/jobs/1/sources/3/issues')
    .flush([{ line: 181, code: 'quote-not-closed', kept: false, field: '', input: 'Torn "off' }]);
  await stable();
  expect(text()).toContain('181 a quotation mark is never closed');
  button('Take out').click();
  const taken = http.expectOne('/api/decisions/9');
  expect(taken.request.body).toEqual({ undone: true });
  taken.flush({});
  await stable();
  expect(text()).toContain('taken out');
  button('Put back').click();
  expect(http.expectOne('/api/decisions/9').request.body).toEqual({ undone: false });
});

it('a bringing in that was stopped says what is missing, and goes on', async () => {
  const { http } = webHarness();
  const { stable, text, button } = await drawn(SourcesList, { jobId: 1 });
  http.expectOne('/api/jobs/1/sources').flush([{ ...source, stopped: { runId: 12, missing: 3800 } }]);
  await stable();
  expect(text()).toContain('3,800 are missing: it was stopped.');
  button('Go on').click();
  expect(http.expectOne('/api/runs/12').request.body).toEqual({ action: 'resume' });
});
