import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { drawn, webHarness } from '../testing/web-harness';
import { FilterBox } from './filter-box';

it('the address, which comes behind what is typed, takes no letter out of the box', async () => {
  webHarness();
  const arrived: ((went: boolean) => void)[] = [];
  jest
    .spyOn(TestBed.inject(Router), 'navigate')
    .mockImplementation(() => new Promise((resolve) => void arrived.push(resolve)));
  const { fixture, element, write, stable } = await drawn(FilterBox, { label: 'Filter the rows', q: '' });
  const address = async (q: string) => {
    fixture.componentRef.setInput('q', q);
    await stable();
  };
  const box = element.querySelector('input')!;
  await write('input', 'w');
  await write('input', 'we');
  await address('w');
  expect(box.value).toBe('we');
  await address('we');
  for (const arrive of arrived) arrive(true);
  await stable();
  expect(box.value).toBe('we');
  await address('wells');
  expect(box.value).toBe('wells');
  // A change that another one has overtaken never arrives: the box says what is filtered by.
  await write('input', 'x');
  arrived.at(-1)!(false);
  await new Promise((resolve) => setTimeout(resolve));
  await stable();
  expect(box.value).toBe('wells');
});
