import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { OneContact } from './one-contact';

describe('one contact', () => {
  it('reads what is pasted into fields, tells who is held, and adds what is written', async () => {
    const { http } = webHarness();
    haveJobs([sampleJob({ id: 4, name: 'Dairies' })]);
    const { element, stable, write, text, button } = await drawn(OneContact, { jobId: 4 });
    await write('textarea', 'Maren Oakhill, Owner');
    element.querySelector('textarea')!.dispatchEvent(new Event('change'));
    http.expectOne('/api/jobs/4/contact-text').flush({ fullName: 'Maren Oakhill', title: 'Owner' });
    await stable();
    await new Promise((resolve) => setTimeout(resolve, 250));
    http.expectOne('/api/jobs/4/contact-held').flush({
      contacts: [
        {
          jobId: 4,
          contact: 3,
          name: 'Maren Oakhill',
          title: 'Owner',
          company: 'Brackenfold',
          email: '',
          step: 'tidy',
          fate: 'pass',
          exportedAt: null,
        },
      ],
      exportedAt: null,
      suppressed: true,
    });
    await new Promise((resolve) => setTimeout(resolve));
    await stable();
    expect(text()).toContain('Dairies, passes');
    expect(text()).toContain('On the suppression list');
    await write('input[aria-label="Email"]', 'maren@brackenfold.example');
    button(/Add to the job/).click();
    const added = http.expectOne('/api/jobs/4/contacts');
    expect(added.request.body).toEqual({
      fullName: 'Maren Oakhill',
      title: 'Owner',
      email: 'maren@brackenfold.example',
    });
    added.flush({ sourceId: 1 });
    await stable();
    expect(element.querySelector<HTMLInputElement>('input[aria-label="Full name"]')!.value).toBe('');
  });
});
