import type { Job } from '@sieve/contract';
import { appendEmailView } from './append-email/append-email-view';
import { appendPhoneView } from './append-phone/append-phone-view';
import { companyView } from './company/company-view';
import { matchView } from './match/match-view';
import { ownerView } from './owner/owner-view';
import { profileView } from './profile/profile-view';
import { screenView } from './screen/screen-view';
import type { StepState, StepView } from './step-view';
import { waitWords } from './step-view';
import { tidyView } from './tidy/tidy-view';
import { verifyView } from './verify/verify-view';

const VIEWS: readonly StepView[] = [
  tidyView,
  matchView,
  ownerView,
  screenView,
  profileView,
  companyView,
  appendEmailView,
  verifyView,
  appendPhoneView,
];

/** How a kind of step is shown. */
export const viewOf = (kind: string): StepView =>
  VIEWS.find((view) => view.kind === kind) ?? {
    kind,
    detail: (state) => waitWords(state, 'on'),
    chips: () => [],
    setUp: 'Set up',
    about: '',
    onWords: 'Use this step',
    shows: 'place',
    looks: true,
  };

/** The steps of a job in their order, counted; with zeros before it was sifted. */
export const statesOf = ({ sieve, summary }: Job): StepState[] =>
  sieve.map((step) => ({
    step,
    summary,
    count: summary?.steps.find(({ id }) => id === step.id) ?? {
      id: step.id,
      came: 0,
      pass: 0,
      aside: 0,
      look: 0,
      waits: 0,
      why: {},
    },
  }));
