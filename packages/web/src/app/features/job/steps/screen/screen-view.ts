import { screenOptions, type ScreenOptions } from '@sieve/core/steps/screen/options';
import { ruleWords } from './rule-sentence';
import { many, type Chip, type StepView } from '../step-view';
import { ScreenActions } from './screen-actions';

export const screenView: StepView = {
  kind: 'screen',
  detail: ({ step, count }) => {
    const { rules } = screenOptions.parse(step.options);
    if (!step.on) return 'off';
    return count.look > 0 ? many(count.look, 'wants a look', 'want a look') : many(rules.length, 'rule', 'rules');
  },
  chips: ({ step, count: { why } }) => {
    const options = screenOptions.parse(step.options);
    const { briefTitles, briefLevels, briefTeams, briefPlaces, briefSectors, rules, suppression, atMostPerCompany } =
      options;
    const headcount = headcountWords(options);
    const chip = (words: string, code: string, kind: Chip['kind']): Chip => ({
      words,
      count: why[code] ?? 0,
      kind,
      why: code,
    });
    return [
      ...(briefTitles.length > 0
        ? [chip(`Title is one of the brief’s ${briefTitles.length}`, 'title-not-in-brief', 'keep')]
        : []),
      ...(briefLevels.length > 0 ? [chip(`Level: ${listed(briefLevels)}`, 'level-not-in-brief', 'keep')] : []),
      ...(briefTeams.length > 0 ? [chip(`Team: ${listed(briefTeams)}`, 'team-not-in-brief', 'keep')] : []),
      ...(briefPlaces.length > 0 ? [chip(`In ${listed(briefPlaces)}`, 'place-not-in-brief', 'keep')] : []),
      ...(briefSectors.length > 0 ? [chip(`Sector: ${listed(briefSectors)}`, 'sector-not-in-brief', 'keep')] : []),
      ...(headcount ? [chip(`Headcount ${headcount}`, 'headcount-not-in-brief', 'keep')] : []),
      ...rules.map((rule, i) => chip(ruleWords(rule), `rule-${i}`, rule.fate === 'aside' ? 'drop' : 'keep')),
      ...(suppression ? [chip('Suppression list', 'suppressed', 'drop')] : []),
      ...(options.leftElsewhere !== 'pass' ? [chip('Left with another job', 'left-elsewhere', 'drop')] : []),
      ...(options.heldElsewhere !== 'pass' ? [chip('Held in another job', 'held-elsewhere', 'drop')] : []),
      ...(why['alike-elsewhere'] ? [chip('Somebody alike in another job', 'alike-elsewhere', '')] : []),
      ...(why['likely-elsewhere'] ? [chip('Likely held in another job', 'likely-elsewhere', '')] : []),
      ...(atMostPerCompany > 0 ? [chip(`At most ${atMostPerCompany} a company`, 'company-full', '')] : []),
      ...(why['by-hand'] ? [chip('By hand', 'by-hand', 'drop')] : []),
      ...(why['group-aside'] ? [chip('Groups', 'group-aside', 'drop')] : []),
    ];
  },
  action: ScreenActions,
  setUp: 'Edit rules',
  about: '',
  onWords: 'Screen the rows by these rules',
  form: () => import('./screen-form').then((m) => m.ScreenForm),
  shows: 'place',
  wide: true,
  looks: true,
};

const headcountWords = ({ briefHeadcountFrom: from, briefHeadcountTo: to }: ScreenOptions): string =>
  from > 0 && to > 0 ? `${from} to ${to}` : from > 0 ? `from ${from}` : to > 0 ? `up to ${to}` : '';

const listed = (words: readonly string[]) =>
  words.length > 4 ? `${words.slice(0, 3).join(', ')} and ${words.length - 3} more` : words.join(', ');
