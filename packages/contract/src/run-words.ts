import type { HarvestEnd } from '@sieve/core/harvest/stop-rules';
import { errorWords, type ErrorCode } from './errors';
import type { Run, RunInput, RunResult } from './runs';
import { stepWords } from './words';

const n = (count: number) => count.toLocaleString('en');
const of = (count: number, one: string, many: string) => `${n(count)} ${count === 1 ? one : many}`;

/** What a run does, in a word or two. */
export function runName(input: RunInput): string {
  switch (input.kind) {
    case 'bring-in':
      return 'Bring in';
    case 'sift':
      return 'Sift';
    case 'ask':
      return stepWords(input.step);
    case 'export':
      return 'Export';
    case 'pull':
      return 'Pull';
    case 'split':
      return 'Split';
    case 'harvest':
      return 'Harvest';
  }
}

/** Why a harvest ended. */
export const END_WORDS: Record<HarvestEnd, string> = {
  'last-page': 'no page follows',
  pages: 'as many pages as were asked for',
  rows: 'as many rows as were asked for',
  column: 'the watched column turned',
  'nothing-new': 'a page brought nothing new',
};

const PHASE_WORDS = { tidying: 'tidying', matching: 'matching and screening', writing: 'writing' };

/** How far a run is, or how it ended. */
export const runWords = ({ phase, result }: Pick<Run, 'phase' | 'result'>): string =>
  phase ? PHASE_WORDS[phase] : result ? resultWords(result) : '';

function resultWords(result: RunResult): string {
  switch (result.code) {
    case 'rows-read':
      return `${of(result.rows, 'row', 'rows')} read`;
    case 'sifted':
      return [
        of(result.contacts, 'contact', 'contacts'),
        ...(result.companies > 0 ? [of(result.companies, 'company', 'companies')] : []),
      ].join(', ');
    case 'asked':
      return [
        `${n(result.settled)} of ${n(result.contacts)} settled`,
        ...(result.silent > 0 ? [`nobody answered about ${n(result.silent)}: they wait and can be asked again`] : []),
        ...(result.unaffordable > 0 ? ['the budget is used up: raise it to go on'] : []),
        ...result.down.map(({ finder, reason }) => `${finder}: ${reason}; what waits for it can be asked later`),
      ].join(' · ');
    case 'exported':
      return `${of(result.rows, 'row', 'rows')} in ${of(result.files, 'file', 'files')}`;
    case 'pulled':
      return [
        `${n(result.promised)} promised, ${n(result.came)} came, ${n(result.fresh)} new to the job`,
        ...(result.full > 0 ? [`${n(result.full)} left out because their company is full`] : []),
      ].join(', ');
    case 'split':
      return `${of(result.batches, 'batch', 'batches')}, ${of(result.questions, 'question', 'questions')} asked`;
    case 'harvested':
      return [
        `${of(result.rows, 'new row', 'new rows')} from ${of(result.pages, 'page', 'pages')}; ${END_WORDS[result.end]}`,
        ...(result.changed > 0 ? [`${of(result.changed, 'page has', 'pages have')} another layout: look at them`] : []),
      ].join(' · ');
    case 'asked-to-wait':
      return `${result.host} asks to wait; ${of(result.rows, 'row', 'rows')} so far`;
    case 'out-of-hours':
      return `${n(result.came)} of ${n(result.promised)}; goes on in its hours`;
    case 'enough-for-a-run':
      return `${of(result.rows, 'row', 'rows')}, as many as a run may have`;
    case 'failed':
      return errorWords(result.error as ErrorCode, result.details);
    case 'said':
      return result.words;
  }
}
