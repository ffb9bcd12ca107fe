import { parseCompany, type AnswerOf, type QuestionOf } from '@sieve/core';
import type { Directory } from './port';

/** The companies that a directory knows by a name, wherever they are; the first page of them. */
export async function firmsNamed(
  directory: Directory,
  { name }: QuestionOf<'firm-search'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-search'>> {
  const called = { field: 'company', not: false, terms: [{ text: parseCompany(name).name || name, exact: true }] };
  const { rows } = await directory.page({ about: 'companies', conditions: [called] }, 1, signal);
  return {
    firms: rows.map(({ company, found }) => ({
      name: company,
      domain: textOf(found['website']),
      city: textOf(found['city']),
      country: textOf(found['country']),
    })),
  };
}

const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');
