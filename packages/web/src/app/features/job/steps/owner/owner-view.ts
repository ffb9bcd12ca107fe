import { ownerOptions } from '@sieve/core/steps/owner/options';
import { many, waitWords, type Chip, type StepView } from '../step-view';

export const ownerView: StepView = {
  kind: 'owner',
  detail: (state) =>
    waitWords(state, state.count.look > 0 ? many(state.count.look, 'wants a look', 'want a look') : 'known'),
  chips: ({ step }, serviceName) => {
    if (!step.on) return [{ words: 'Off', count: 0, kind: '' }];
    const { finders } = ownerOptions.parse(step.options);
    return finders.length === 0
      ? [{ words: 'No finder is asked', count: 0, kind: '' }]
      : finders.map((finder): Chip => ({ words: serviceName(finder), count: 0, kind: 'keep' }));
  },
  setUp: 'Set up',
  about:
    'An address without a name is asked of finders that sell whose it is. A name that most addresses say for themselves, like maren.oakhill, is read from them for nothing before.',
  onWords: 'Ask who has an address that came without a name',
  form: () => import('./owner-form').then((m) => m.OwnerForm),
  buys: {
    words: 'Each finder is paid as it charges',
    from: ({ step }) => ownerOptions.parse(step.options).finders,
  },
  portions: true,
  shows: 'email',
  looks: true,
  ask: 'Ask about',
};
