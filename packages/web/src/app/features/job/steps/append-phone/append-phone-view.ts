import { appendPhoneOptions } from '@sieve/core/steps/append-phone/options';
import { PASS_WORDS } from '@sieve/contract';
import { many, waitWords, type Chip, type StepView } from '../step-view';

export const appendPhoneView: StepView = {
  kind: 'append-phone',
  detail: (state) => {
    const { services, passes } = appendPhoneOptions.parse(state.step.options);
    const asked = many(services.length, 'service', 'services');
    return waitWords(
      state,
      services.length === 0 ? 'told apart' : `${asked}, ${many(passes.length, 'pass', 'passes')}`,
    );
  },
  chips: ({ step }, serviceName) => {
    if (!step.on) return [{ words: 'Off', count: 0, kind: '' }];
    const { passes, services } = appendPhoneOptions.parse(step.options);
    return [
      ...passes.map((pass): Chip => ({ words: `by ${PASS_WORDS[pass]}`, count: 0, kind: '' })),
      ...services.map((service): Chip => ({ words: serviceName(service), count: 0, kind: 'keep' })),
    ];
  },
  setUp: 'Set up',
  about: 'Each service is paid as it charges, and the budget of the job is never passed.',
  onWords: 'Look for phones that are lacking, and tell mobile, direct and switchboard apart',
  form: () => import('./append-phone-form').then((m) => m.AppendPhoneForm),
  seeks: 'phones',
  shows: 'phone',
};
