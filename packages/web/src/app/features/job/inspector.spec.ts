import type { ContactView } from '@sieve/contract';
import { emptyPerson } from '@sieve/core/model/person';
import { drawn, webHarness } from '../../testing/web-harness';
import { Inspector } from './inspector';

const person = {
  ...emptyPerson(),
  firstName: 'Maren',
  lastName: 'Oakhill',
  title: 'Head of Quality',
  company: 'Brackenfold',
};
const view: ContactView = {
  id: 7,
  name: 'Maren Oakhill',
  firstName: 'Maren',
  lastName: 'Oakhill',
  title: person.title,
  company: person.company,
  place: '',
  domain: '',
  email: '',
  phone: '',
  profile: '',
  knownPhone: null,
  profileSure: null,
  verdict: '',
  reason: '',
  askedAt: 0,
  via: '',
  source: 'list.csv',
  records: 1,
  own: '',
  fate: { step: 'screen', state: 'aside', code: 'title-not-in-brief', why: {} },
  person,
  extra: {},
  from: { firstName: 7, lastName: 7, title: 7, company: 7 },
  mergeChance: 1,
  alternatives: [],
  brief: [],
  found: {},
  profiles: [],
  filledBy: {},
  firm: null,
  recordIds: [7],
  evidence: [],
  recordViews: [
    {
      id: 7,
      source: 'list.csv',
      line: 12,
      cells: [{ name: 'Firma', value: 'BRACKENFOLD LTD' }],
      person,
      changes: [{ field: 'company', was: 'BRACKENFOLD LTD', is: 'Brackenfold', why: ['capitals', 'legal-form'] }],
      issues: [],
    },
  ],
};

async function open() {
  const { http } = webHarness();
  const inspector = await drawn(Inspector, { jobId: 1, contactId: 7 });
  http.expectOne('/api/jobs/1/contacts/7').flush(view);
  await inspector.stable();
  const decided: object[] = [];
  inspector.fixture.componentInstance.decided.subscribe((body) => decided.push(body));
  return { ...inspector, decided };
}

describe('inspector', () => {
  it('says why a row is where it is, what was done to each value, and offers the way back', async () => {
    const { text, button, decided } = await open();
    expect(text()).toContain('Set aside. Screen: title: none of the brief’s.');
    expect(text()).toContain('BRACKENFOLD LTD capitals set, legal form split off');
    button(/Restore/).click();
    button(/keep as it came/).click();
    button(/everywhere/).click();
    expect(decided).toEqual([
      { kind: 'keep', recordIds: [7], step: 'screen' },
      { kind: 'refuse', recordId: 7, field: 'company' },
      { kind: 'refuse-like', field: 'company', was: 'BRACKENFOLD LTD', is: 'Brackenfold' },
    ]);
  });

  it('writes another value with Enter, and nothing with Escape', async () => {
    const { element, stable, button, decided } = await open();
    const edit = async (key: string, value: string) => {
      button('Head of Quality').click();
      await stable();
      const box = element.querySelector('input')!;
      box.value = value;
      box.dispatchEvent(new KeyboardEvent('keydown', { key }));
      box.dispatchEvent(new Event('blur'));
      await stable();
    };
    await edit('Escape', 'Owner');
    expect([decided, element.querySelector('input')]).toEqual([[], null]);
    await edit('Enter', ' Owner ');
    expect(decided).toEqual([{ kind: 'edit', recordIds: [7], field: 'title', value: 'Owner' }]);
  });

  it('says so when the contact cannot be had', async () => {
    const { http } = webHarness();
    const { text, stable } = await drawn(Inspector, { jobId: 1, contactId: 7 });
    http
      .expectOne('/api/jobs/1/contacts/7')
      .flush({ message: 'There is no contact here.' }, { status: 404, statusText: 'Not Found' });
    await stable();
    expect(text()).toBe('There is no contact here.');
  });
});
