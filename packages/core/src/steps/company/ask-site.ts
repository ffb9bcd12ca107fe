import type { Sorted } from '../../decisions/sort-decisions';
import type { Facts, Wanted } from '../../facts/facts';
import type { SitePage } from '../../facts/website';
import { NOTHING_KNOWN, type Firm } from '../../model/firm';
import { fold } from '../../text/fold';
import { chanceByWords, readingFor, type Speaking } from './evidence';
import { learnAnswer, type Learned } from './learn';
import type { CompanyOptions } from './options';
import { isParked } from './parked';

/** Why a site has no answer. */
export type Unasked = 'no-domain' | 'no-site' | 'parked' | 'refused';

/** What a company's own website answers. */
export interface Asked extends Pick<Firm, 'answer' | 'yes' | 'by'> {
  unasked: Unasked | null;
  speaking: readonly Speaking[];
  pages: readonly SitePage[];
}

/** By the words alone, an answer is given when it is at least so likely: one sentence that nothing contradicts, or two to one. */
const WORDS_SURE = 0.62;

/**
 * Asks the websites of companies the question of a step. What a person answered counts before all; from LEAST_TAUGHT such answers on,
 * they teach the reader.
 *
 * @param answers what a person answered to this question, by domain
 */
export function askSites(
  options: CompanyOptions,
  facts: Facts,
  answers: ReadonlyMap<string, Firm['answer']>,
): { ask: (domain: string) => Asked | Wanted; isLearned: boolean } {
  const read = readingFor(options);
  const lessons = options.learns
    ? [...answers].flatMap(([domain, answer]) => {
        const { fact } = facts({ kind: 'website', domain });
        if (answer === 'unclear' || fact?.answer.state !== 'read') return [];
        const { pages } = fact.answer;
        return [{ pages, byWords: chanceByWords(read(pages)), answer: answer === 'yes' }];
      })
    : [];
  const learned = learnAnswer(lessons);
  const known = new Map<string, Asked | Wanted>();
  const ask = (domain: string): Asked | Wanted => {
    const site = facts({ kind: 'website', domain });
    if (!site.fact) return site;
    const { answer } = site.fact;
    const pages = answer.state === 'read' ? answer.pages : [];
    const speaking = read(pages);
    const unasked: Unasked | null = answer.state === 'read' ? (isParked(pages) ? 'parked' : null) : unaskedOf(answer);
    const nothing = { answer: '', yes: NOTHING_KNOWN.yes, by: '' } as const;
    const byHand = answers.get(domain);
    if (byHand) return { answer: byHand, yes: chanceByWords(speaking), by: 'hand', unasked, speaking, pages };
    if (unasked) return { ...nothing, unasked, speaking, pages };
    if (options.readBy !== '') return askModel(domain, pages, options, facts);
    const said = answerOf({ pages, byWords: chanceByWords(speaking) }, learned, options.sureFrom);
    return { ...said, unasked, speaking, pages };
  };
  return {
    isLearned: learned !== null,
    ask: (domain) => {
      let found = known.get(domain);
      if (!found || 'ask' in found) known.set(domain, (found = ask(domain)));
      return found;
    },
  };
}

/** What a language model is given of a site, in characters. */
const MOST_TEXT = 24_000;

/**
 * Has a language model read a site. Only sentences that the site really says count; an answer without one is none.
 */
function askModel(
  domain: string,
  pages: readonly SitePage[],
  { question, readBy: service }: CompanyOptions,
  facts: Facts,
): Asked | Wanted {
  const text = pages
    .flatMap(({ lines }) => lines)
    .join('\n')
    .slice(0, MOST_TEXT);
  const read = facts({ kind: 'site-question', service, question, domain, text, priceCents: 0 });
  if (!read.fact) return read;
  const { answer, sentences } = read.fact.answer;
  const wanted = new Set(sentences.map(fold));
  const speaking = pages.flatMap(({ path, lines }) =>
    lines.flatMap((text, i): Speaking[] =>
      wanted.has(fold(text))
        ? [{ path, line: i + 1, text, speaks: answer === 'no' ? 'against' : 'for', word: '' }]
        : [],
    ),
  );
  const given = speaking.length > 0 ? answer : 'unclear';
  return {
    answer: given,
    yes: { yes: 0.95, no: 0.05, unclear: 0.5 }[given],
    by: 'model',
    unasked: null,
    speaking,
    pages,
  };
}

const unaskedOf = ({ state }: { state: string }): Unasked =>
  state === 'no-domain' || state === 'refused' ? state : 'no-site';

function answerOf(
  site: { pages: readonly SitePage[]; byWords: number },
  learned: Learned | null,
  sureFrom: number,
): Pick<Firm, 'answer' | 'yes' | 'by'> {
  const yes = learned ? learned(site) : site.byWords;
  const from = learned ? sureFrom : WORDS_SURE;
  return { answer: yes >= from ? 'yes' : yes <= 1 - from ? 'no' : 'unclear', yes, by: learned ? 'learned' : 'words' };
}

/** What was answered by hand to a question, by domain. */
export const answersTo = (
  question: string,
  { answers }: Pick<Sorted, 'answers'>,
): ReadonlyMap<string, Firm['answer']> => answers.get(fold(question)) ?? new Map<string, Firm['answer']>();
