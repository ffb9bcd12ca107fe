import { profileOptions, type Looser } from '@sieve/core/steps/profile/options';
import { sureWords } from '../../../../ui/sure-words';
import { many, waitWords, type Chip, type StepView } from '../step-view';
import { TryAgain } from './try-again';

const SHORT_WORDS: Record<Looser, string> = {
  'short-forms': 'short forms',
  'one-name': 'one name alone',
  'other-company': 'other companies',
  anywhere: 'anywhere',
};

export const profileView: StepView = {
  kind: 'profile',
  detail: (state) => waitWords(state, state.count.look > 0 ? many(state.count.look, 'to judge', 'to judge') : 'found'),
  chips: ({ step, count }) => {
    const { looser, takeFrom, language, needed } = profileOptions.parse(step.options);
    if (!step.on) return [{ words: 'Off', count: 0, kind: '' }];
    return [
      { words: `Taken from ${sureWords(takeFrom)}`, count: 0, kind: 'keep' },
      { words: 'As the row says', count: 0, kind: '' },
      ...looser.map((way): Chip => ({ words: `then ${SHORT_WORDS[way]}`, count: 0, kind: '' })),
      ...(language ? [{ words: `Profiles in ${language} only`, count: 0, kind: '' as const }] : []),
      {
        words: needed ? 'Without a profile' : 'Without a profile goes on, too',
        count: needed ? (count.why['no-profile-found'] ?? 0) + (count.why['no-name-to-find'] ?? 0) : 0,
        kind: needed ? 'drop' : '',
      },
    ];
  },
  action: TryAgain,
  setUp: 'Set up',
  about:
    'The directory is asked by name, company and place. What it says is weighed as records are matched; what a contact lacks (title, company, website, place) is taken from its profile.',
  onWords: 'Find the profile of those who have none',
  form: () => import('./profile-form').then((m) => m.ProfileForm),
  shows: 'profile',
  looks: true,
  portions: true,
};
