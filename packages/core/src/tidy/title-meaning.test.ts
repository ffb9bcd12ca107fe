import { fixture } from '../fixtures/read';
import { parseTitle } from './title';
import { titleReader } from './title-meaning';

// Labelled by hand before the grammar was written; common practice, no source. The second was looked at only as a share.
test.each(['titles-seen.csv', 'titles-unseen.csv'])('%s: level and team are right on at least 95 of 100', (file) => {
  const titles = fixture(file).map(({ title, level, team }) => ({ level, team, read: parseTitle(title!) }));
  const right = (key: 'level' | 'team') => titles.filter((one) => one.read[key] === one[key]).length / titles.length;
  expect(titles.length).toBeGreaterThan(200);
  expect(right('level')).toBeGreaterThanOrEqual(0.95);
  expect(right('team')).toBeGreaterThanOrEqual(0.95);
});

// What a word means beside another.
test.each([
  ['Senior Vice President', 'vice president', 'management'],
  ['Financial Controller', 'manager', 'finance'],
  ['Quality Controller', 'specialist', 'quality'],
  ['M.D.', 'executive', 'management'],
  ['Sales Executive', 'specialist', 'sales'],
  ['Chief Executive', 'executive', 'management'],
  ['HR Business Partner', 'specialist', 'people'],
  ['CFO and Company Secretary', 'executive', 'finance'],
  ['PA to the Managing Director', 'assistant', 'management'],
  ['Assistant Sales & Marketing Manager', 'assistant', 'sales'],
  ['Driver Manager', 'manager', 'supply'],
  ['Lead Generation Specialist', 'specialist', 'sales'],
  ['Technical Sales Manager', 'manager', 'sales'],
  ['Product Owner', 'specialist', 'it'],
  ['Stellvertretende:r Qualitätsleiter:in (m/w/d)', 'head', 'quality'],
  ['Directeur·rice d’usine', 'director', 'production'],
  ['', '', ''],
])('%s is of level %s, team %s', (title, level, team) => expect(titleReader()(title)).toEqual({ level, team }));

test('own words come before all others, and say no more than they say', () => {
  const read = titleReader([
    { words: 'Milk Chaser', level: 'specialist', team: 'supply' },
    { words: 'Käse-Sommelier', level: '', team: 'sales' },
    { words: 'boss', level: 'manager', team: '' },
    { words: 'managing director', level: 'owner', team: '' },
  ]);
  expect(read('Senior Milk Chaser')).toEqual({ level: 'lead', team: 'supply' });
  expect(read('Leitender Käsesommelier')).toEqual({ level: '', team: 'production' });
  expect(read('Käse-Sommelier')).toEqual({ level: '', team: 'sales' });
  expect(read('Quality Boss')).toEqual({ level: 'manager', team: 'quality' });
  expect(read('Managing Director')).toEqual({ level: 'owner', team: 'management' });
});
