// How well addresses are predicted from names: each address from all others.
// npm run bench -- patterns FILE      columns name and email; country and headcount where there are
import { readFileSync } from 'node:fs';
import { delimitedReader, findDelimiter, learningPatterns, localParts, NO_LISTS, tidier } from '@sieve/core';

const text = readFileSync(process.argv[2] ?? '', 'utf8');
const reader = delimitedReader(findDelimiter(text.slice(0, 20_000)));
const [header, ...rows] = [...reader.push(text), ...reader.end()].map(({ cells }) => cells);
const targetOf: Record<string, 'fullName' | 'email' | 'country' | 'headcount'> = {
  name: 'fullName',
  email: 'email',
  country: 'country',
  headcount: 'headcount',
};
const columns = header!.map((name) => ({ name, target: targetOf[name.toLowerCase()] ?? ('skip' as const) }));
const tidy = tidier({ phoneCountry: 'GB', lists: NO_LISTS });
const people = rows
  .map((cells) => tidy(cells, columns).person)
  .filter(({ email, firstName, lastName }) => email !== '' && firstName.length > 1 && lastName !== '');
const patterns = learningPatterns();
for (const person of people) patterns.learn(person.email, person);
const domainOf = (email: string) => email.slice(email.lastIndexOf('@') + 1);
const perDomain = new Map<string, number>();
for (const { email } of people) perDomain.set(domainOf(email), (perDomain.get(domainOf(email)) ?? 0) + 1);

const from = performance.now();
const tally = () => ({ all: 0, first: 0, three: 0, ten: 0, claimed: 0 });
const [everywhere, known] = [tally(), tally()];
for (const person of people) {
  const domain = domainOf(person.email);
  patterns.unlearn(person.email, person);
  const made = localParts(person, patterns.ranked(domain, person));
  patterns.learn(person.email, person);
  const at = made.findIndex(({ local }) => `${local}@${domain}` === person.email);
  for (const counted of perDomain.get(domain)! > 1 ? [everywhere, known] : [everywhere]) {
    counted.all++;
    counted.claimed += made[0]?.chance ?? 0;
    if (at === 0) counted.first++;
    if (at >= 0 && at < 3) counted.three++;
    if (at >= 0 && at < 10) counted.ten++;
  }
}
const percent = (n: number, of: number) => `${((100 * n) / Math.max(1, of)).toFixed(1)} %`;
for (const [name, { all, first, three, ten, claimed }] of Object.entries({
  'all addresses': everywhere,
  'domains with more than one': known,
}))
  process.stdout.write(
    `${name}: ${all}; first ${percent(first, all)} (said ${percent(claimed, all)}), in the first three ${percent(three, all)}, in the first ten ${percent(ten, all)}\n`,
  );
process.stdout.write(`${((performance.now() - from) / people.length).toFixed(3)} ms each\n`);
