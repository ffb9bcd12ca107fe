import { ApplicationRef } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of } from 'rxjs';
import { drawn, webHarness } from '../../testing/web-harness';
import { Sentence } from './sentence';
import { folded, proposals, type Clause, type SentenceChange, type SentenceField } from './sentence-model';

const token = (label: string) => ({ label, text: label, exact: false });
const clause = (field: string, more: Partial<Clause> = {}, ...labels: string[]): Clause => ({
  field,
  name: field,
  words: `whose ${field} says`,
  after: '',
  not: false,
  many: `${field}s`,
  tokens: labels.map(token),
  takes: null,
  ...more,
});
const fields: SentenceField[] = [
  { key: 'title', label: 'Title', kind: 'text' },
  { key: 'team', label: 'Team', kind: 'choice', values: ['quality', 'sales', 'technical'] },
  { key: 'years', label: 'Years in role', kind: 'number' },
];

it('what is typed can be the name of a field, one of its values, or words about a text', () => {
  const labels = (typed: string) => proposals(typed, fields, 'title').map(({ label }) => label);
  expect(labels('')).toEqual(['Title …', 'Team …', 'Years in role …']);
  expect(labels('te')).toEqual(['Team …', 'Title: te']);
  expect(labels('quality manager')).toEqual(['Title: quality manager']);
  expect(labels('team: quality or te')).toEqual(['technical']);
  expect(proposals('not team: sa', fields, '')[0]!.text).toBe('not team: sales');
  expect(proposals('team: quality, s', fields, '')[0]!.text).toBe('team: quality, sales');
});

it('a long sentence folds the clause with most values, not one that is touched', () => {
  const clauses = [clause('title', {}, 'aaaa aaaa', 'bbbb bbbb', 'cccc cccc'), clause('team', {}, 'a', 'b', 'c', 'd')];
  expect([...folded(clauses, 500, new Set())]).toEqual([]);
  expect([...folded(clauses, 90, new Set())]).toEqual([1]);
  expect([...folded(clauses, 30, new Set())]).toEqual([1, 0]);
  expect([...folded(clauses, 30, new Set([1]))]).toEqual([0]);
});

async function open(answer = '') {
  webHarness();
  const changes: SentenceChange[] = [];
  const sentence = await drawn(Sentence, {
    label: 'Conditions',
    subject: 'People',
    clauses: [
      clause('title', { takes: 538 }, 'technical', 'quality manager'),
      clause('title', { not: true, name: 'title, not', words: 'but not' }, 'assistant'),
    ],
    fields,
    count: 5885,
    apply: (change: SentenceChange) => {
      changes.push(change);
      return answer;
    },
    countIf: () => of(4799),
    valuesOf: (at: number, tokenAt: number) =>
      of(at === 0 && tokenAt === 0 ? [{ value: 'Technical Manager', count: 1912 }] : []),
  });
  const press = async (on: Element, key: string) => {
    on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await sentence.stable();
  };
  const caret = sentence.element.querySelector<HTMLInputElement>('.caret')!;
  const editor = () => document.querySelector<HTMLElement>('cs-token-editor')!;
  return { ...sentence, changes, press, caret, editor };
}

it('reads as a sentence with what each clause takes away, and is walked and shortened by keys', async () => {
  const { text, press, caret, changes } = await open();
  expect(text()).toContain('People whose title says technical −538 or quality manager');
  expect(text()).toContain('but not assistant');
  caret.focus();
  await press(caret, 'ArrowLeft');
  await press(document.activeElement!, 'ArrowLeft');
  expect(document.activeElement!.getAttribute('aria-label')).toBe('title, not: assistant');
  await press(document.activeElement!, 'Delete');
  expect(changes).toEqual([{ kind: 'remove', clause: 1, token: 0 }]);
});

it('keys that come before the next frame walk along what was just said', async () => {
  const sentence = await open();
  const { fixture, caret, changes } = sentence;
  TestBed.inject(ApplicationRef).attachView(fixture.componentRef.hostView);
  const press = (key: string) =>
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  caret.focus();
  fixture.componentRef.setInput('clauses', [clause('title', {}, 'technical'), clause('team', {}, 'sales', 'quality')]);
  for (const key of ['ArrowLeft', 'ArrowLeft', 'Delete']) press(key);
  expect(changes).toEqual([{ kind: 'remove', clause: 1, token: 1 }]);
});

it('Enter before the next frame takes what was typed, not what was proposed for less of it', async () => {
  const { fixture, caret, changes, write } = await open();
  TestBed.inject(ApplicationRef).attachView(fixture.componentRef.hostView);
  const type = (typed: string) => {
    caret.value = typed;
    caret.dispatchEvent(new Event('input', { bubbles: true }));
  };
  const enter = () =>
    caret.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', keyCode: 13, bubbles: true, cancelable: true }));
  caret.focus();
  await write('.caret', 'team: ');
  type('team: many');
  enter();
  expect(changes).toEqual([{ kind: 'type', text: 'team: many' }]);
  await write('.caret', 'team: ');
  type('team: te');
  enter();
  expect(changes.slice(1)).toEqual([{ kind: 'type', text: 'team: technical' }]);
  type('year');
  enter();
  expect(caret.value).toBe('years: ');
});

it('a value is typed anew in its place, and says how many a quotation mark would leave', async () => {
  const { button, stable, press, changes, editor } = await open();
  button('title: quality manager').click();
  await stable();
  expect(editor().textContent).toMatch(/on: 5,885 → 4,799/);
  const box = editor().querySelector('input')!;
  box.value = '"head of quality"';
  await press(box, 'Enter');
  expect(changes).toEqual([{ kind: 'write', clause: 0, token: 1, text: '"head of quality"' }]);
  expect(editor()).toBeNull();
});

it('the values that hold one of the sentence are listed, and take its place', async () => {
  const { button, stable, changes, editor } = await open();
  button('title: technical').click();
  await stable();
  const [held] = editor().querySelectorAll<HTMLElement>('.held button');
  expect(held!.textContent).toMatch(/Technical Manager\s*1,912/);
  held!.click();
  expect(changes).toEqual([{ kind: 'write', clause: 0, token: 0, text: '"Technical Manager"' }]);
});

it('what cannot be read stays where it was typed, with what is wrong', async () => {
  const { caret, press, text, changes, write } = await open('“many” is no whole number');
  await write('.caret', 'years: many');
  await press(caret, 'Enter');
  expect(changes).toEqual([{ kind: 'type', text: 'years: many' }]);
  expect([caret.value, text().includes('no whole number')]).toEqual(['years: many', true]);
});
