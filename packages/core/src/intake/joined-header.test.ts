import { hasGroupsAbove, joinedNames } from './joined-header';

const below = ['First name', 'Last name', 'Name', 'Town', 'Phone'];

test('two header rows are joined: a group goes over the blanks behind it', () => {
  expect(joinedNames(['Contact', '', 'Company', '', ''], below)).toEqual([
    'Contact First name',
    'Contact Last name',
    'Company Name',
    'Company Town',
    'Company Phone',
  ]);
  expect(joinedNames(['', 'Person', 'Person'], ['No', 'Person', 'Email', 'Town'])).toEqual([
    'No',
    'Person',
    'Person Email',
    'Person Town',
  ]);
});

test('a title, data, or a second header of the same words is no group', () => {
  expect(hasGroupsAbove(['Contact', '', 'Company', '', ''], below)).toBe(true);
  expect(hasGroupsAbove(['Work', 'Home'], ['Phone', 'Phone'])).toBe(true);
  expect(hasGroupsAbove(['Members of the guild', '', '', '', ''], below)).toBe(false);
  expect(hasGroupsAbove(['Maren', 'Oakhill', 'Brackenfold', 'Wells', '0113 496 0000'], below)).toBe(false);
  expect(hasGroupsAbove(['Spring show', 'Corn hall'], ['Name', 'Town'])).toBe(false);
});
