import { TestBed } from '@angular/core/testing';
import type { SieveStep } from '@sieve/core';
import { BLANK } from '@sieve/core/steps/screen/rules';
import { defaultSieve } from '@sieve/core/steps/sieve';
import { drawn, inDialog, webHarness } from '../../testing/web-harness';
import { StepDialog } from './step-dialog';

const FINDERS = ['lantern', 'beacon', 'candle'].map((finder, i) => ({
  id: finder,
  name: finder[0]!.toUpperCase() + finder.slice(1),
  priceCents: 10 + i,
}));
const PHONES = ['bellpull', 'doorchime'].map((id) => ({ id, name: id, priceCents: 3, pays: 'answer' }));

async function open(id: string, options: SieveStep['options'] = {}) {
  const known = defaultSieve().find((step) => step.id === id)!;
  const step = { ...known, options: { ...known.options, ...options } };
  const close = jest.fn();
  const { http } = webHarness(inDialog({ jobId: 2, step }, close));
  const dialog = await drawn(StepDialog);
  await dialog.stable();
  for (const asked of http.match('/api/settings'))
    asked.flush({ version: 0, settings: { currency: 'GBP', finders: FINDERS, phoneServices: PHONES, verifiers: [] } });
  await dialog.stable();
  const saved = () => {
    dialog.button('Use').click();
    const [asked] = http.match('/api/jobs/2/steps');
    return (asked?.request.body as { step: SieveStep } | undefined)?.step;
  };
  return { ...dialog, http, close, saved: () => saved()?.options, on: () => saved()?.on };
}

it('the country of phones is two letters, written in capitals', async () => {
  const { write, saved, close, stable, element } = await open('tidy');
  const field = '[formcontrolname=phoneCountry]';
  await write(field, 'Ireland');
  expect(saved()).toBeUndefined();
  await stable();
  expect(element.querySelector('mat-form-field')!.className).toContain('mat-form-field-invalid');
  expect(close).not.toHaveBeenCalled();
  await write(field, 'ie');
  expect(saved()).toEqual({ phoneCountry: 'IE' });
  expect(close).toHaveBeenCalledTimes(1);
});

it('lines of matching stay between their bounds', async () => {
  const { write, saved } = await open('match');
  await write('[formcontrolname=mergeFrom]', '1.2');
  expect(saved()).toBeUndefined();
  await write('[formcontrolname=mergeFrom]', '0.95');
  await write('[formcontrolname=judgeFrom]', '0.5');
  await write('[formcontrolname=wrongInThousand]', '2.5');
  expect(saved()).toEqual({
    mergeFrom: 0.95,
    acceptedError: 0.0025,
    judgeFrom: 0.5,
    survivor: 'fullest',
    survivorOf: {},
  });
});

/** Types behind the sentence of a rule, and says it. */
async function type({ element, stable }: Awaited<ReturnType<typeof open>>, rule: number, text: string) {
  const caret = element.querySelectorAll<HTMLInputElement>('cs-sentence .caret')[rule]!;
  caret.value = text;
  caret.dispatchEvent(new Event('input'));
  caret.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
  caret.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  await stable();
}
const sentences = (element: HTMLElement) =>
  [...element.querySelectorAll('cs-sentence')].map(({ textContent }) =>
    textContent.replace(/\s+/g, ' ').replaceAll(' +', '').trim(),
  );

it('rules are sentences, typed, and dropped when they say nothing; titles come one a line, each once', async () => {
  const dialog = await open('screen', {
    rules: [{ conditions: [{ field: 'company', values: ['dairy'] }], fate: 'keep' }],
    briefTitles: ['Owner'],
    suppression: false,
    atMostPerCompany: 0,
  });
  const { write, button, stable, saved, element } = dialog;
  button(/Rule$/).click();
  button(/Rule$/).click();
  await stable();
  await type(dialog, 1, 'title: driver, intern or driver');
  await type(dialog, 1, 'not sector: /^dair(y|ies)/');
  expect(sentences(element)[1]).toBe(
    'those whose title says driver or intern , and whose sector does not say /^dair(y|ies)/ .',
  );
  await type(dialog, 2, 'anywhere:');
  expect(element.textContent).toContain('Which words is missing');
  await type(dialog, 2, 'phone: /(/');
  expect(element.textContent).toContain('no regular expression');
  await write('[formcontrolname=briefTitles]', 'Owner\n\n Head of Quality \nOwner');
  await write('[formcontrolname=atMostPerCompany]', '3');
  expect(saved()).toEqual({
    heldElsewhere: 'pass',
    leftElsewhere: 'pass',
    rules: [
      { conditions: [{ field: 'company', not: false, values: ['dairy'] }], fate: 'keep' },
      {
        conditions: [
          { field: 'title', not: false, values: ['driver', 'intern'] },
          { field: 'sector', not: true, values: ['/^dair(y|ies)/'] },
        ],
        fate: 'aside',
      },
    ],
    briefTitles: ['Owner', 'Head of Quality'],
    briefLevels: [],
    briefTeams: [],
    briefPlaces: [],
    briefSectors: [],
    briefHeadcountFrom: 0,
    briefHeadcountTo: 0,
    suppression: false,
    atMostPerCompany: 3,
  });
});

it('a rule may ask whether a field is blank or where a number lies; what each takes is said before it is used', async () => {
  const { http, element, saved, stable } = await open('screen', {
    rules: [
      { conditions: [{ field: 'email', values: [BLANK] }], fate: 'aside' },
      { conditions: [{ field: 'headcount', values: ['50..'] }], fate: 'keep' },
    ],
  });
  await new Promise((resolve) => setTimeout(resolve, 450));
  const asked = http.expectOne('/api/jobs/2/screen/effect');
  expect(asked.request.body).toMatchObject({ rules: [{ fate: 'aside' }, { fate: 'keep' }] });
  asked.flush({ came: 1500, pass: 300, rules: [1100, 100] });
  await stable();
  expect([...element.querySelectorAll('.takes')].map((takes) => takes.textContent)).toEqual(['−1,100', '−100']);
  expect(sentences(element)).toEqual(['those whose email is blank .', 'those whose headcount is 50 and up .']);
  expect(element.textContent).toContain('1,500 come, 300 pass');
  expect(saved()).toMatchObject({
    rules: [
      { conditions: [{ field: 'email', values: [BLANK] }], fate: 'aside' },
      { conditions: [{ field: 'headcount', values: ['50..'] }], fate: 'keep' },
    ],
  });
});

it('a rule is removed', async () => {
  const { button, stable, saved } = await open('screen', {
    rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }],
    briefTitles: [],
    suppression: true,
    atMostPerCompany: 0,
  });
  button('Remove this rule').click();
  await stable();
  expect(saved()).toMatchObject({ rules: [] });
});

it('append keeps its finders in their order, verify can be switched off', async () => {
  const append = await open('append-email', { candidates: 5, finders: ['lantern'] });
  await append.write('[formcontrolname=candidates]', '13');
  expect(append.saved()).toBeUndefined();
  await append.write('[formcontrolname=candidates]', '2');
  expect(append.saved()).toEqual({ candidates: 2, leastChance: 0.01, finders: ['lantern'], againDays: 180 });
  TestBed.resetTestingModule();
  const verify = await open('verify');
  await verify.write('[formcontrolname=freshDays]', '0');
  expect(verify.saved()).toBeUndefined();
  await verify.write('[formcontrolname=freshDays]', '45');
  verify.element.querySelector<HTMLInputElement>('input[type=checkbox]')!.click();
  expect(verify.saved()).toEqual({ freshDays: 45 });
  expect(verify.on()).toBe(false);
});

it('the lookup order is the order in which finders are asked: moved with the keys, taken out, put behind', async () => {
  const { button, saved, stable, text } = await open('append-email', {
    candidates: 2,
    finders: ['beacon', 'lantern', 'gone'],
  });
  expect(text()).toMatch(/1\s*Beacon.*2\s*Lantern.*3\s*gone\s*not in the settings.*Ask Candle too/);
  button(/^Lantern, place 2 of 3/).focus();
  button(/^Lantern, place 2 of 3/).dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', altKey: true }));
  await stable();
  expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Lantern, place 1 of 3/);
  button(/Ask Candle/).click();
  await stable();
  button('Do not ask Beacon').click();
  await stable();
  button(/Ask Beacon/).click();
  await stable();
  expect(saved()).toEqual({
    candidates: 2,
    leastChance: 0.01,
    againDays: 180,
    finders: ['lantern', 'gone', 'candle', 'beacon'],
  });
});

it('phones are looked for in the passes that are ticked, through services in their order', async () => {
  const { button, element, saved, stable } = await open('append-phone', { services: ['bellpull'] });
  element.querySelectorAll<HTMLInputElement>('fieldset input')[2]!.click();
  button(/Ask doorchime too/).click();
  await stable();
  button(/doorchime, place 2 of 2/).dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', altKey: true }));
  await stable();
  expect(saved()).toEqual({
    services: ['doorchime', 'bellpull'],
    passes: ['full', 'last'],
    needed: false,
    againDays: 180,
  });
});
