import type { PossibleProfile } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { ProfileChoice } from './profile-choice';

const possible = (link: string, chance: number, speaks: PossibleProfile['speaks']): PossibleProfile => ({
  link,
  name: 'Idris Venn',
  title: 'Owner',
  company: 'Tidewell',
  past: ['Brackenfold'],
  place: 'Wells, GB',
  chance,
  speaks,
});

it('each profile says what speaks for and against it, and is taken with its number', async () => {
  webHarness();
  const profiles = [
    possible('directory.example/p/2', 0.618, [
      { field: 'firstName', level: 4 },
      { field: 'lastName', level: 4 },
      { field: 'city', level: 3 },
      { field: 'title', level: 1 },
    ]),
    possible('directory.example/p/3', 0.31, [{ field: 'past', level: 4 }]),
  ];
  const { element, fixture, text } = await drawn(ProfileChoice, { profiles });
  const taken: string[] = [];
  fixture.componentInstance.taken.subscribe((link) => taken.push(link));
  expect(text()).toContain('61 % sure');
  expect(
    [...element.querySelectorAll('.speaks')].map((line) =>
      [...line.children].map((said) => said.textContent.trim()).join(' | '),
    ),
  ).toEqual([
    'first name and last name are the same; town is nearly the same | title differs',
    'earlier company is the same',
  ]);
  const press = (...keys: string[]) =>
    keys.forEach((key) => document.dispatchEvent(new KeyboardEvent('keydown', { key })));
  // Until what came of an answer is shown, further keys are not for the choice.
  press('2', '1', '0');
  expect(taken).toEqual(['directory.example/p/3']);
  fixture.componentRef.setInput('profiles', [...profiles]);
  await fixture.whenStable();
  press('0', '7');
  expect(taken).toEqual(['directory.example/p/3', '']);
});
