// How often a question to the websites of the simulated world is answered, and right: by the words alone, and after 12, 25, 50 and 100
// of them were judged, each time those that the tool proposes. Judged sites are not counted.
// npm run bench -- websites
import {
  askSites,
  companyOptions,
  linesOf,
  readPage,
  type Facts,
  type SitePage,
  type WebsiteAnswer,
  whatTeaches,
} from '@sieve/core';
import { mannerOf, markupOf, pagesOf } from '../packages/standins/src/sites/site';
import { tradeOf } from '../packages/standins/src/sites/trade';
import { buildWorld } from '../packages/standins/src/world/world';

const SITES = 1200;
const options = companyOptions.parse({
  question: 'Do they make cheese here?',
  speaksFor: ['make * by hand', 'cheesemakers', 'curd', 'cheese is made', 'cheese is aged', 'age it', 'we make cheese'],
  speaksAgainst: ['cheese vats', 'those who make', 'sell', 'ice cream', 'cheesemonger', 'packaging', 'storage'],
});

const firms = buildWorld(7)
  .firms.filter((firm) => ['plain', 'slow', 'moved'].includes(mannerOf(firm)))
  .slice(0, SITES);
const truth = new Map(firms.map((firm) => [firm.domain, tradeOf(firm) === 'cheese']));
const sites = new Map(
  firms.map((firm) => {
    const pages = pagesOf(firm);
    const read = (page: (typeof pages)[number]): SitePage => {
      const found = readPage(markupOf(firm, page, pages));
      return { path: page.path, title: found.title, lines: linesOf(found) };
    };
    return [firm.domain, { state: 'read', pages: pages.map(read) } satisfies WebsiteAnswer];
  }),
);
const facts = (({ domain }: { domain: string }) => ({
  fact: { answer: sites.get(domain)!, askedAt: 0 },
})) as unknown as Facts;

const judged = new Map<string, 'yes' | 'no'>();
const share = (n: number, of: number) => `${((100 * n) / of).toFixed(1)} %`;
for (const wanted of [0, 12, 25, 50, 100]) {
  while (judged.size < wanted) {
    const { ask } = askSites(options, facts, judged);
    const open = [...sites.keys()].filter((domain) => !judged.has(domain));
    const yesOf = (domain: string) => {
      const asked = ask(domain);
      return 'ask' in asked ? 0.5 : asked.yes;
    };
    const yes = [...judged.values()].filter((answer) => answer === 'yes').length;
    // A person judges some at a time.
    const most = Math.min(6, wanted - judged.size);
    const next = whatTeaches(
      open.map((domain) => ({ domain, yes: yesOf(domain) })),
      { yes, no: judged.size - yes },
      most,
    );
    for (const { domain } of next) judged.set(domain, truth.get(domain)! ? 'yes' : 'no');
  }
  const started = performance.now();
  const { ask } = askSites(options, facts, judged);
  const said = { right: 0, wrong: 0, unclear: 0 };
  for (const domain of sites.keys()) {
    if (judged.has(domain)) continue;
    const asked = ask(domain);
    const answer = 'ask' in asked ? 'unclear' : asked.answer;
    said[
      answer === 'unclear' || answer === '' ? 'unclear' : (answer === 'yes') === truth.get(domain) ? 'right' : 'wrong'
    ]++;
  }
  const answered = said.right + said.wrong;
  process.stdout.write(
    `${wanted} judged: answered ${share(answered, answered + said.unclear)}, right where answered ${share(said.right, answered)}, ${Math.round(performance.now() - started)} ms for ${SITES}\n`,
  );
}
