import type { DirectoryRow } from '@sieve/contract';
import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { LookUp } from './look-up';

describe('look up', () => {
  it('shows who is held of a firm and what the directory has, and adds one with a click', async () => {
    const { http } = webHarness();
    haveJobs([sampleJob({ id: 4, name: 'Dairies' })]);
    const { stable, text, button, pick } = await drawn(LookUp, { q: 'edale.example' });
    const row = (id: string, change: Partial<DirectoryRow>) => ({
      held: false,
      id,
      name: 'Piers Venn',
      title: 'Owner',
      company: 'Edale',
      place: 'Bakewell',
      link: 'https://directory.example/p/9',
      found: { website: 'https://edale.example', employees: 12 },
      ...change,
    });
    http
      .expectOne((request) => request.url === '/api/look-up')
      .flush({ about: 'firm', key: 'edale.example', company: '', contacts: [], suppressed: false });
    http
      .expectOne((request) => request.url === '/api/look-up/directory')
      .flush([row('companies-1', { name: 'Edale' }), row('people-9', {})]);
    await stable();
    expect(text()).toContain('Nobody of there is in any job.');
    expect(text()).toContain('12 people work there');
    await pick('Add to', 'Dairies');
    button('Add Piers Venn').click();
    const added = http.expectOne('/api/jobs/4/contacts');
    expect(added.request.body).toMatchObject({
      fullName: 'Piers Venn',
      company: 'Edale',
      website: 'https://edale.example',
    });
    added.flush({ sourceId: 1 });
    await stable();
    expect(text()).toContain('added');
  });
});
