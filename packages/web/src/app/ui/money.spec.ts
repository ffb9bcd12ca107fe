import { ChangeDetectionStrategy, Component } from '@angular/core';
import { drawn, sampleJob, webHarness } from '../testing/web-harness';
import { sieveLevels } from './levels';
import { MoneyPipe } from './money';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'cs-amounts',
  imports: [MoneyPipe],
  template: `{{ 0 | money }} {{ 5 | money }} {{ 9000 | money }}`,
})
class Amounts {}

it('cents are money, whole amounts without a fraction, in the currency that the settings have or get', async () => {
  const { http } = webHarness();
  const { text, stable } = await drawn(Amounts);
  expect(text()).toBe('£0 £0.05 £90');
  http.expectOne('/api/settings').flush({ version: 0, settings: { currency: 'USD', finders: [] } });
  await stable();
  expect(text()).toBe('US$0 US$0.05 US$90');
});

it('the sieve narrows from the records to what is valid', () => {
  expect(sieveLevels(sampleJob()).map(({ left }) => left)).toEqual([
    2581, 2575, 1935, 1935, 1200, 1200, 1200, 1100, 425, 425,
  ]);
  // A job of before a step was there.
  const { summary } = sampleJob();
  const steps = summary!.steps.filter(({ id }) => id !== 'profile');
  const before = sieveLevels(sampleJob({ summary: { ...summary!, steps } }));
  expect(before.map(({ left }) => left)).toEqual([2581, 2575, 1935, 1935, 1200, 1200, 1200, 1100, 425, 425]);
  expect(sieveLevels(sampleJob({ summary: null }))).toHaveLength(10);
});
