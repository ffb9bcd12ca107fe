import { matchOptions } from '@sieve/core/steps/match/options';
import { inThousand } from '../../../../ui/in-thousand';
import { roundedDown } from '../../../../ui/rounded-down';
import { many, type StepView } from '../step-view';
import { JudgeLink } from '../judge-link';

const chance = (line: number) => roundedDown(line, 3).replace(/0$/, '');

export const matchView: StepView = {
  kind: 'match',
  detail: ({ step, summary }) =>
    !step.on ? 'off' : summary ? many(summary.pairs, 'pair to judge', 'pairs to judge') : '',
  out: ({ summary }) => summary?.merged ?? 0,
  chips: ({ step, summary }) => {
    const { mergeFrom, acceptedError, judgeFrom } = matchOptions.parse(step.options);
    const line = acceptedError === null ? mergeFrom : summary?.mergeFrom;
    const { expectedError = 0, errorRange } = summary ?? {};
    const range = errorRange ? ` (${inThousand(errorRange.low)} to ${inThousand(errorRange.high)})` : '';
    const merged = summary?.merged ?? 0;
    const taught = summary?.taught;
    return [
      {
        words:
          line === undefined ? 'Merged' : line > 1 ? 'Nothing is sure enough to merge' : `Merged from ${chance(line)}`,
        count: merged,
        kind: 'keep',
      },
      { words: `Judged from ${chance(judgeFrom)}`, count: 0, kind: '' },
      ...(acceptedError === null
        ? []
        : [{ words: `At most ${inThousand(acceptedError)} in 1,000 wrong`, count: 0, kind: '' as const }]),
      ...(taught
        ? [
            {
              words: `${taught.judged} judgements teach it: ${many(taught.moved, 'pair', 'pairs')} crossed a line`,
              count: 0,
              kind: '' as const,
            },
          ]
        : []),
      // Where nothing was merged there is no error to expect.
      ...(merged > 0
        ? [{ words: `Wrong in 1,000 merges: about ${inThousand(expectedError)}${range}`, count: 0, kind: '' as const }]
        : []),
    ];
  },
  action: JudgeLink,
  setUp: 'Set up',
  about: '',
  onWords: 'Merge records of the same person',
  form: () => import('./match-form').then((m) => m.MatchForm),
  shows: 'place',
  wide: true,
  merges: true,
};
