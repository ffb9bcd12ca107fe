import { PASS_WORDS, PHONE_KIND_WORDS, type ContactRow } from '@sieve/contract';
import { sureWords } from './sure-words';

type KnownPhone = NonNullable<ContactRow['knownPhone']>;

/** What a phone reaches, how it was found and how sure it is, in a line. */
export function phoneWords({ kind, pass, listedAs, sure, doubted }: KnownPhone): string {
  const found = pass ? [`by ${PASS_WORDS[pass]}`, listedAs && `listed as ${listedAs}`, sureWords(sure)] : [];
  return [PHONE_KIND_WORDS[kind], ...found, doubted && 'people of another firm carry it too']
    .filter(Boolean)
    .join(', ');
}
