import type { TitleWord } from '../model/word-lists';
import { TITLE_PHRASES, type TitlePhrase } from '../words/titles/phrases';
import { LEVELS, NO_RANK, RANK_WORDS, WEAK_ASSISTANTS, type Level } from '../words/titles/ranks';
import { TEAM_WORDS, TEAMS, type Team } from '../words/titles/teams';
import { wordIndex } from '../words/word-index';

/** What a title says; '' where it says nothing. */
export interface TitleMeaning {
  level: Level | '';
  team: Team | '';
}

/** What one word, or some together, say; `weak`: an assistant that may be what somebody looks after. */
interface Said {
  level: Level | '';
  weak: boolean;
  says: Team | '';
  hints: Team | '';
}
/** A comma ends a part of a title; an "and" does where a rank stands on both sides. */
type Part = Said | 'comma' | 'and' | 'to';

const ranks = wordIndex(LEVELS.map((level) => [RANK_WORDS[level], level] as const));
const says = wordIndex(TEAMS.map((team) => [TEAM_WORDS[team].says, team] as const));
const hints = wordIndex(TEAMS.map((team) => [TEAM_WORDS[team].hints, team] as const));
const rankOf = (level: Level | '') => (level === '' ? LEVELS.length : LEVELS.indexOf(level));
const LEAD = rankOf('lead');
const DIRECTOR = rankOf('director');

/**
 * Reads level and team out of titles in English, German, French, Spanish, Italian, Dutch and Irish: words of rank and of what
 * somebody does, and what they mean together ("business partner" is no partner). The most senior rank counts, but an
 * assistant to somebody is one; a title of a director or above without a team is in management. Common practice, no source.
 *
 * @param own words that mean something else here, before all that ship
 * @example titleReader()('PA to the Managing Director') // { level: 'assistant', team: 'management' }
 */
export function titleReader(own: readonly TitleWord[] = []): (title: string) => TitleMeaning {
  const phrases = phraseFinder([
    ...own.map(({ words, level, team }): TitlePhrase => [tokensOf(words).join(' '), level || null, team || null]),
    ...TITLE_PHRASES,
  ]);
  return (title) => {
    const parts = partsOf(tokensOf(title), phrases);
    const said = parts.filter((part) => typeof part === 'object');
    const team = first(said.map(({ says }) => says)) || first(said.map(({ hints }) => hints));
    const isManagement = said.some(({ level }) => rankOf(level) <= DIRECTOR);
    return { level: levelOf(parts), team: team || (isManagement ? 'management' : '') };
  };
}

/** The team that comes first in TEAMS. */
const first = (said: readonly (Team | '')[]): Team | '' => TEAMS.find((team) => said.includes(team)) ?? '';

const GENDER = /\(?\b[mwfhdxgn](?:\s*[/|]\s*[mwfhdxgn]){1,3}\b\)?|(?<=\p{L})\((?:in|innen|e|n|r|ne|se|euse|trice)\)/gu;
const ENDINGS = /(?<=\p{L}{3})[/:*_·.]-?(?:in|innen|e|r|ne|se|rice|trice|euse|iere|te)(?!\p{L})/gu;
const ANDS = new Set(['and', 'und', 'et', 'y', 'e', 'agus', '&', '+']);
const TO = new Set(['to', 'zu', 'zum', 'zur']);

/** Words without accents and without marks of gender, and the signs between them. */
function tokensOf(title: string): string[] {
  const plain = title
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(GENDER, ' ')
    .replace(ENDINGS, '')
    .replace(/\b\p{L}(?:\.\p{L})+\b\.?/gu, (letters) => letters.replaceAll('.', ''))
    .replace(/\be-(?=\p{L})/gu, 'e');
  return [...plain.matchAll(/[\p{L}\p{N}]+|[,;|()–—/&+]|\s-\s/gu)].map(([token]) => token.trim());
}

function partsOf(tokens: readonly string[], phrases: PhraseFinder): Part[] {
  const parts: Part[] = [];
  const words = ['^', ...tokens.map((token) => (ANDS.has(token) ? '&' : token)), '$'];
  for (let at = 0; at < words.length;) {
    const phrase = phrases(words, at);
    if (phrase) {
      const [text, level, team] = phrase;
      const pattern = text.split(' ');
      for (const [i, word] of pattern.entries()) {
        const said = saidBy(words[at + i]!);
        parts.push({
          ...said,
          ...(word !== '*' && level !== null && { level: '' }),
          ...(word !== '*' && team !== null && { says: '', hints: '' }),
        });
      }
      parts.push({ level: level ?? '', weak: false, says: team ?? '', hints: '' });
      at += pattern.length;
      continue;
    }
    const word = words[at++]!;
    if (word === '&' || word === '/') parts.push('and');
    else if (TO.has(word)) parts.push('to');
    else if (/^\P{L}+$/u.test(word) && !/^\p{N}/u.test(word)) parts.push('comma');
    else parts.push(saidBy(word));
  }
  return parts;
}

const saidBy = (word: string): Said => ({
  level: NO_RANK.has(word) ? '' : (ranks(word) ?? ''),
  weak: WEAK_ASSISTANTS.has(word),
  says: says(word) ?? '',
  hints: hints(word) ?? '',
});

function levelOf(parts: readonly Part[]): Level | '' {
  let best: Level | '' = '';
  let open: Said[] = [];
  let served = false;
  const close = () => {
    const level = levelOfPart(open);
    if (rankOf(level) < rankOf(best)) best = level;
    open = [];
    served = false;
  };
  for (const [i, part] of parts.entries()) {
    if (part === 'comma') close();
    // Whom somebody works for says nothing of their own rank.
    else if (part === 'to') served = open.some(({ level }) => level !== '');
    else if (part === 'and') {
      const left = levelOfPart(open);
      const right = parts.slice(i + 1).some((next) => typeof next === 'object' && next.level !== '');
      if (!served && left !== '' && left !== 'assistant' && right) close();
    } else if (!served && part.level !== '') open.push(part);
  }
  close();
  return best;
}

function levelOfPart(said: readonly Said[]): Level | '' {
  const isAssistant = said.some(
    ({ level, weak }, i) =>
      level === 'assistant' && !(weak && said.slice(i + 1).some((after) => rankOf(after.level) <= LEAD)),
  );
  if (isAssistant) return 'assistant';
  return said.reduce<Level | ''>((best, { level }) => (rankOf(level) < rankOf(best) ? level : best), '');
}

type PhraseFinder = (words: readonly string[], at: number) => TitlePhrase | undefined;

/** The longest phrase that begins at a place; of two of a length the one with fewer `*`, which are any word; `^` is the beginning, `$` the end. */
function phraseFinder(phrases: readonly TitlePhrase[]): PhraseFinder {
  const byFirst = new Map<string, { pattern: string[]; phrase: TitlePhrase }[]>();
  for (const phrase of phrases) {
    const pattern = phrase[0].split(' ');
    byFirst.set(pattern[0]!, [...(byFirst.get(pattern[0]!) ?? []), { pattern, phrase }]);
  }
  const stars = (pattern: readonly string[]) => pattern.filter((word) => word === '*').length;
  for (const list of byFirst.values())
    list.sort((a, b) => b.pattern.length - a.pattern.length || stars(a.pattern) - stars(b.pattern));
  const fits = (words: readonly string[], at: number, pattern: readonly string[]) =>
    pattern.every(
      (word, i) => words[at + i] === word || (word === '*' && /^[\p{L}\p{N}]+$/u.test(words[at + i] ?? '')),
    );
  const longest = (words: readonly string[], at: number, from: string) =>
    byFirst.get(from)?.find(({ pattern }) => fits(words, at, pattern));
  return (words, at) => {
    const [exact, any] = [longest(words, at, words[at]!), longest(words, at, '*')];
    return any && any.pattern.length > (exact?.pattern.length ?? 0) ? any.phrase : exact?.phrase;
  };
}
