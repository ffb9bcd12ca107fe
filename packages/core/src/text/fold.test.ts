import { fold } from './fold';
import { remembered } from './remembered';

test.each([
  ['O’Connor-Núñez', 'oconnornunez'],
  ['STRASSE', 'strasse'],
  ['Straße', 'strasse'],
  ['Łukasz Ødegård', 'lukaszodegard'],
  ['Ærø', 'aero'],
  ['Ｍａｒｅｎ', 'maren'],
  ['a1', 'a1'],
  ['★ — ·', ''],
  ['', ''],
  ['李 明', '李明'],
])('%s is folded to %s', (text, folded) => {
  expect(fold(text)).toBe(folded);
  expect(fold(folded)).toBe(folded);
});

test('latest answers are kept, empty ones too, and no more than were asked for', () => {
  let computed = 0;
  const length = remembered((text) => {
    computed++;
    return text.trim();
  }, 3);
  for (const text of ['a', ' ', 'a', ' ']) length(text);
  expect(computed).toBe(2);
  for (const text of ['b', 'c', 'd']) length(text);
  length('a');
  expect(computed).toBe(6);
});
