import { TestBed } from '@angular/core/testing';
import { Handover } from './handover';

it('what was handed over is taken once', () => {
  const handover = TestBed.inject(Handover);
  const file = new File(['a'], 'list.csv');
  handover.files.set([file]);
  expect(handover.take()).toEqual([file]);
  expect(handover.take()).toEqual([]);
});

it.each([
  ['Name\tEmail', true],
  ['Name;Email', true],
  ['Name,Email', true],
  ['one\ntwo', true],
  ['Maren Oakhill', false],
  ['  \n ', false],
  ['', false],
])('%j is a table: %s', (text, is) => {
  expect(Handover.tableOf(text) !== null).toBe(is);
});
