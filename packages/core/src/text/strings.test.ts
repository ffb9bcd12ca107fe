import { fixture } from '../fixtures/read';
import { jaro, jaroWinkler } from './jaro-winkler';
import { oneEdit } from './one-edit';
import { soundex } from './soundex';

// Published values (Winkler 1990, 1994) and python3-jellyfish 0.8.9: fixtures/README.md.
test.each(fixture('strings.csv'))('$a and $b are as alike as published', (row) => {
  expect(jaro(row['a']!, row['b']!)).toBeCloseTo(Number(row['jaro']), 5);
  expect(jaroWinkler(row['a']!, row['b']!)).toBeCloseTo(Number(row['jaro_winkler']), 5);
  const distance = Number(row['osa']);
  expect(oneEdit(row['a']!, row['b']!)).toBe(distance === 1);
});

// US National Archives rule, values of Text::Soundex 3.05.
test('Soundex codes 178 names as the National Archives do', () => {
  for (const { name, soundex_nara: code } of fixture('phonetic.csv'))
    expect([name, soundex(name!)]).toEqual([name, code]);
  expect(soundex('')).toBe('');
});
