import { settings as settingsSchema, type Settings } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { SettingsScreen } from './settings';

const lantern = {
  id: 'lantern',
  name: 'Lantern',
  url: 'http://127.0.0.1:4271',
  key: 'k',
  priceCents: 15,
  perSecond: 20,
  simulated: true,
};
const known = settingsSchema.parse({
  finders: [lantern],
  directory: { name: 'Waymark', url: 'http://127.0.0.1:4274', key: 'd', perSecond: 40, simulated: true },
  pace: { rowsADay: 2500, rowsARun: 0, fromMinute: 510, toMinute: 1440, workingDays: true },
});

async function open(settings: Settings = known) {
  const { http } = webHarness();
  const screen = await drawn(SettingsScreen);
  http.expectOne('/api/settings').flush({ version: 3, settings });
  http.expectOne('/api/suppressions').flush([
    {
      key: 'domain:tidewell.example',
      value: 'tidewell.example',
      kind: 'domain',
      why: 'customer',
      source: '',
      until: null,
      at: 0,
    },
  ]);
  await screen.stable();
  const save = () => {
    screen.element.querySelector('form')!.dispatchEvent(new Event('submit'));
    const [asked] = http.match({ method: 'PUT', url: '/api/settings' });
    const body = asked?.request.body as { version: number; settings: Settings } | undefined;
    if (body) expect(body.version).toBe(3);
    return body?.settings;
  };
  return { ...screen, http, save };
}

it('what is saved unchanged is what was there, and passes the server’s own check', async () => {
  const { save } = await open();
  const saved = save();
  expect(saved).toEqual(known);
  expect(settingsSchema.parse(saved)).toEqual(known);
});

it('prices are typed in money and kept in cents; hours are typed as times', async () => {
  const { write, save } = await open();
  await write('[formcontrolname=price]', '0.07');
  await write('[formcontrolname=capDay]', '2.5');
  await write('[formcontrolname=credits]', '40');
  await write('[formcontrolname=planPrice]', '6.5');
  await write('[formgroupname=pace] [formcontrolname=from]', '07:05');
  await write('[formgroupname=pace] [formcontrolname=to]', '16:00');
  await write('[formcontrolname=timeZone]', 'Asia/Kolkata');
  expect(save()).toMatchObject({
    finders: [{ priceCents: 7, capDayCents: 250, capMonthCents: 0, plan: { credits: 40, cents: 650 } }],
    pace: { fromMinute: 425, toMinute: 960 },
    timeZone: 'Asia/Kolkata',
  });
  await write('[formgroupname=pace] [formcontrolname=from]', '22:00');
  await write('[formgroupname=pace] [formcontrolname=to]', '06:00');
  expect(save()?.pace).toMatchObject({ fromMinute: 1320, toMinute: 360 });
});

it('a finder is added and removed; a directory without an address is none', async () => {
  const { button, stable, write, save } = await open();
  button('Remove Lantern').click();
  await stable();
  await write('[formgroupname=directory] [formcontrolname=url]', '');
  expect(save()).toMatchObject({ finders: [], directory: null });
  button(/Finder$/).click();
  await stable();
  await write('#finders [formcontrolname=name]', 'Beacon');
  await write('#finders [formcontrolname=url]', 'https://beacon.example');
  expect(save()).toMatchObject({ finders: [{ id: 'finder-1', name: 'Beacon', priceCents: 10, simulated: false }] });
  button(/Phone service$/).click();
  await stable();
  await write('#phones [formcontrolname=name]', 'Bellpull');
  await write('#phones [formcontrolname=url]', 'https://bellpull.example');
  expect(save()).toMatchObject({ phoneServices: [{ id: 'phones-1', name: 'Bellpull', pays: 'answer' }] });
});

it('a service is tried as it stands in the form, saved or not, and says what came of it until it is changed', async () => {
  const { button, stable, write, text, http } = await open();
  await write('#finders [formcontrolname=key]', 'another');
  button('Try Lantern').click();
  const asked = http.expectOne('/api/services/try');
  expect(asked.request.body).toEqual({ kind: 'account', name: 'Lantern', url: lantern.url, key: 'another' });
  asked.flush({ state: 'down', reason: 'it does not accept the key' });
  await stable();
  expect(text()).toContain('Cannot be asked: it does not accept the key.');
  await write('#finders [formcontrolname=key]', 'k');
  expect(text()).not.toContain('Cannot be asked');
  button('Try Lantern').click();
  http.expectOne('/api/services/try').flush({ state: 'answered', ms: 31, plan: { credits: 40, left: 12 } });
  await stable();
  expect(text()).toContain('Answers, in 31 ms, and takes the key. 12 of the 40 credits of its plan are left.');
  button('Try Waymark').click();
  expect(http.expectOne('/api/services/try').request.body).toMatchObject({ kind: 'directory' });
});

it.each([
  ['[formcontrolname=currency]', 'pounds'],
  ['#finders [formcontrolname=url]', 'lantern'],
  ['#finders [formcontrolname=perSecond]', '0'],
  ['#finders [formcontrolname=credits]', '1.5'],
  ['[formgroupname=mail] [formcontrolname=port]', '70000'],
  ['[formgroupname=pace] [formcontrolname=rowsADay]', '-1'],
  ['[formgroupname=pace] [formcontrolname=to]', '08:30'],
  ['[formcontrolname=timeZone]', 'Europe/Nowhere'],
])('%s cannot be %s: nothing is saved, and the page says so', async (field, value) => {
  const { write, save } = await open();
  await write(field, value);
  expect(save()).toBeUndefined();
  expect(document.body.textContent).toContain('Nothing was saved');
});

it('suppressing keeps what is neither an address nor a domain in the field', async () => {
  const { element, button, write, http, stable } = await open();
  await write('aside textarea', 'maren@tidewell.example\nnobody at all');
  button('Suppress').click();
  const asked = http.expectOne({ method: 'POST', url: '/api/suppressions' });
  expect(asked.request.body).toEqual({
    text: 'maren@tidewell.example\nnobody at all',
    why: 'asked not to be',
    until: null,
  });
  asked.flush({ added: 1, known: 0, refused: ['nobody at all'] });
  http.expectOne({ method: 'GET', url: '/api/suppressions' }).flush([]);
  await stable();
  expect(element.querySelector<HTMLTextAreaElement>('aside textarea')!.value).toBe('nobody at all');
  button('Suppress').click();
  http.expectOne({ method: 'POST', url: '/api/suppressions' });
});

it('an entry is removed from the suppression list, and the way back is offered', async () => {
  const { button, http, text, stable } = await open();
  button('Remove tidewell.example').click();
  http.expectOne((request) => request.method === 'DELETE').flush({});
  http.expectOne('/api/suppressions').flush([]);
  await stable();
  expect(text()).toContain('Nobody yet.');
  expect(document.body.textContent).toContain('tidewell.example may be contacted again');
});

it('a verifier is added and asked in place of the mail servers; when it goes, they are asked again', async () => {
  const { element, write, save, stable } = await open();
  const part = () => element.querySelector('#verifiers')!;
  const click = async (words: string) => {
    [...part().querySelectorAll('button')]
      .find((button) => (button.getAttribute('aria-label') ?? button.textContent).includes(words))!
      .click();
    await stable();
  };
  await click('Verifier');
  await write('#verifiers [formcontrolname=name]', 'Touchstone');
  await write('#verifiers [formcontrolname=url]', 'http://127.0.0.1:4299');
  await write('#verifiers [formcontrolname=price]', '0.02');
  element.querySelector<HTMLElement>('#mail mat-select')!.click();
  await stable();
  const options = [...document.querySelectorAll<HTMLElement>('mat-option')];
  expect(options.map(({ textContent }) => textContent.trim())).toEqual(['the mail servers themselves', 'Touchstone']);
  options[1]!.click();
  await stable();
  expect(save()).toMatchObject({
    verifiers: [{ id: 'verifier-1', name: 'Touchstone', priceCents: 2, url: 'http://127.0.0.1:4299' }],
    mail: { through: 'verifier-1' },
  });
  await click('Remove Touchstone');
  expect(save()).toMatchObject({ verifiers: [], mail: { through: '' } });
});
