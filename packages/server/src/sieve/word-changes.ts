import { companyReader, nameReader, titleReader, type WordLists } from '@sieve/core';
import type { WordChanges, WordChangesBody } from '@sieve/contract';
import type { Db } from '../db/open';
import { shownOutcomes } from './outcomes';

/** What another word list would change over all jobs: contacts, and the values that most of them have. Names are read as they stand now. */
export function wordChanges(db: Db, now: WordLists, then: WordChangesBody, most: number): WordChanges {
  const [fields, before, after] = readers(now, then);
  const counted = new Map<string, number>();
  const value = fields.map((field) => `CASE ${field} WHEN '' THEN '' ELSE ' ' || ${field} END`).join(' || ');
  for (const { contacts } of shownOutcomes(db))
    for (const [text, count] of db.outcomes
      .prepare(`SELECT ltrim(${value}) AS text, count(*) FROM ${contacts} WHERE text <> '' GROUP BY text`)
      .raw()
      .all() as [string, number][])
      counted.set(text, (counted.get(text) ?? 0) + count);
  const values = [...counted].flatMap(([value, count]) => {
    const [was, is] = [before(value), after(value)];
    return was === is ? [] : [{ value, count, was, is }];
  });
  values.sort((a, b) => b.count - a.count);
  return { contacts: values.reduce((sum, { count }) => sum + count, 0), values: values.slice(0, most) };
}

type Read = (value: string) => string;

/** The fields that a list is about, and what they say by the list that stands and by the other one. */
function readers(now: WordLists, then: WordChangesBody): [fields: string[], before: Read, after: Read] {
  const both = <T>(was: T, is: T, read: (list: T) => Read): [Read, Read] => [read(was), read(is)];
  if ('titleWords' in then) return [['title'], ...both(now.titleWords, then.titleWords, titleWords)];
  if ('legalForms' in then) return [['company', 'legalForm'], ...both(now.legalForms, then.legalForms, companyWords)];
  const fields = ['honorific', 'firstName', 'middleName', 'lastName', 'suffix'];
  return [fields, ...both(now.nameParts, then.nameParts, nameWords)];
}

const said = (parts: readonly string[]) => parts.filter((part) => part !== '').join(', ');

function titleWords(words: WordLists['titleWords']): Read {
  const read = titleReader(words);
  return (title) => {
    const { level, team } = read(title);
    return said([level, team]);
  };
}

function companyWords(forms: WordLists['legalForms']): Read {
  const read = companyReader(forms);
  return (value) => {
    const { name, legalForm } = read(value);
    return said([name, legalForm]);
  };
}

function nameWords(parts: WordLists['nameParts']): Read {
  const read = nameReader(parts);
  return (value) => {
    const { honorific, firstName, middleName, lastName, suffix } = read(value);
    return [honorific, firstName, middleName, lastName, suffix].map((part) => part || '–').join(' · ');
  };
}
