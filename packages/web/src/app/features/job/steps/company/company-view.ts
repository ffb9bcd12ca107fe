import { companyOptions } from '@sieve/core/steps/company/options';
import { many, waitWords, type Chip, type StepView } from '../step-view';
import { Firms } from './firms';

const range = (from: string, to: string, what: string) =>
  from && to ? `${from} to ${to} ${what}` : from ? `${from} ${what} or more` : `up to ${to} ${what}`;
const some = (words: readonly string[]) => (words.length > 3 ? `${words.slice(0, 3).join(', ')} …` : words.join(', '));

export const companyView: StepView = {
  kind: 'company',
  detail: (state) =>
    waitWords(state, state.count.look > 0 ? many(state.count.look, 'wants a look', 'want a look') : 'known'),
  chips: ({ step, count }, serviceName) => {
    const o = companyOptions.parse(step.options);
    if (!step.on) return [{ words: 'Off', count: 0, kind: '' }];
    const rule = (isSet: boolean, why: string, words: string, kind: Chip['kind'] = 'keep'): Chip[] =>
      isSet ? [{ words, count: count.why[why] ?? 0, kind, why }] : [];
    const people = (n: number) => (n > 0 ? n.toLocaleString('en-GB') : '');
    return [
      ...(o.findInDirectory ? [{ words: 'Domains from the directory', count: 0, kind: '' as const }] : []),
      ...(o.findBy ? [{ words: `Domains from ${serviceName(o.findBy)}`, count: 0, kind: '' as const }] : []),
      ...rule(
        o.question !== '',
        'website-says-no',
        `Website does not say no${o.readBy ? `, read by ${serviceName(o.readBy)}` : ''}`,
      ),
      ...(o.detailsBy ? [{ words: `Details from ${serviceName(o.detailsBy)}`, count: 0, kind: '' as const }] : []),
      ...rule(
        o.competitors.length > 0,
        'competitor',
        `${many(o.competitors.length, 'competitor', 'competitors')} out`,
        'drop',
      ),
      ...rule(
        o.competitors.length > 0 && o.likeCompetitors > 0,
        'like-competitor',
        `Websites ${Math.round(o.likeCompetitors * 100)} % like theirs out`,
        'drop',
      ),
      ...rule(o.notSectors.length > 0, 'company-sector-out', `Not ${some(o.notSectors)}`, 'drop'),
      ...rule(o.sectors.length > 0, 'company-sector', some(o.sectors)),
      ...rule(
        o.headcountFrom > 0 || o.headcountTo > 0,
        'company-headcount',
        range(people(o.headcountFrom), people(o.headcountTo), 'people'),
      ),
      ...rule(
        o.growthFrom !== null || o.growthTo !== null,
        'company-growth',
        range(String(o.growthFrom ?? ''), String(o.growthTo ?? ''), '% growth'),
      ),
      ...rule(o.places.length > 0, 'company-place', some(o.places)),
      ...rule(o.technology.length > 0, 'company-technology', `uses ${some(o.technology)}`),
      ...rule(o.hiring.length > 0, 'company-hiring', `hires ${some(o.hiring)}`),
      ...(o.topicsBy ? [{ words: `Topics from ${serviceName(o.topicsBy)}`, count: 0, kind: '' as const }] : []),
      ...rule(o.topicsBy !== '' && o.topics.length > 0, 'company-topics', `reads about ${some(o.topics)}`),
    ];
  },
  panel: Firms,
  setUp: 'Edit rules',
  about:
    'Each company is asked about once for all jobs: its own website is read for nothing, what a service knows of it is bought once. What is not known of a company breaks no rule.',
  onWords: 'Look at the companies',
  form: () => import('./company-form').then((m) => m.CompanyForm),
  wide: true,
  buys: {
    words: 'Each company is bought once',
    from: ({ step }) => {
      const { readBy, question, detailsBy, topicsBy } = companyOptions.parse(step.options);
      return [question ? readBy : '', detailsBy, topicsBy].filter(Boolean);
    },
  },
  portions: true,
  shows: 'place',
  looks: true,
  ask: 'Ask about',
};
