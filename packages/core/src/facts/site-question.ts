import * as z from 'zod';
import { fold } from '../text/fold';
import { OF_SERVICE, type FactKind } from './fact-kind';

export const siteQuestionAnswer = z.object({
  answer: z.enum(['yes', 'no', 'unclear']),
  /** The sentences of the site that decide, word for word. */
  sentences: z.array(z.string()),
});

/**
 * What a language model reads out of a website. `text`: what the site says; the same question to a site that says otherwise is
 * another one.
 */
export const siteQuestion: FactKind<
  { service: string; question: string; domain: string; text: string; priceCents: number },
  z.infer<typeof siteQuestionAnswer>
> = {
  ...OF_SERVICE,
  answer: siteQuestionAnswer,
  key: ({ question, domain, text }) => JSON.stringify([fold(question), domain, hashOf(text)]),
  ages: false,
  paid: true,
  priceCents: ({ priceCents }) => priceCents,
};

/** FNV-1a, 32 bits. */
function hashOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return (hash >>> 0).toString(36);
}
