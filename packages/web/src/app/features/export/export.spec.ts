import type { ExportPreview } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
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
});
