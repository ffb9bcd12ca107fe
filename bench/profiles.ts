// Profiles found for 2,000 names beside the simulated world's truth: misspelt, moved, namesakes, and people no directory lists.
// npm run bench -- profiles [SEED]
import { newContact, NONE_MADE, NOWHERE, sortDecisions, stepOf, tidier, NO_LISTS, profile } from '@sieve/core';
import type { Answer, Column, ProfileOptions, Target } from '@sieve/core';
import { answeredFacts, keyOf } from '../packages/core/src/testing/answered-facts';
import { directoryClient } from '../packages/server/src/outside/directory/client';
import { startDirectory } from '../packages/standins/src/directory/directory';
import { callLog, PLAIN } from '../packages/standins/src/kit/call-log';
import { buildProfiles, type PersonProfile } from '../packages/standins/src/world/profiles';
import { buildWorld, type Firm } from '../packages/standins/src/world/world';
import { FIRST, LAST, TITLES } from '../packages/standins/src/world/words';
import { seededRandom } from '../packages/core/src/text/random';

const NAMES = 2000;
const PORT = 4790;
/** Of those in a list, so many are in no directory. */
const UNLISTED = 0.12;
/** Short forms as people use them; from memory, and not those of the word list. */
const SHORT: Record<string, string[]> = {
  William: ['Bill', 'Will'],
  Robert: ['Bob', 'Rob'],
  Margaret: ['Maggie', 'Peggy'],
  Thomas: ['Tom'],
  Elizabeth: ['Liz', 'Beth'],
  Michael: ['Mike'],
  Patricia: ['Pat', 'Trish'],
  Stephen: ['Steve'],
  Deborah: ['Debbie'],
  Andrew: ['Andy'],
  Rebecca: ['Becky'],
  Nicholas: ['Nick'],
  Victoria: ['Vicky'],
  Christopher: ['Chris'],
  Jennifer: ['Jenny'],
  Anthony: ['Tony'],
  Samantha: ['Sam'],
  Matthew: ['Matt'],
  Alexandra: ['Alex'],
  Daniel: ['Dan'],
  Edward: ['Ted', 'Ed'],
  Katherine: ['Kate', 'Kathy'],
  James: ['Jim'],
  Susan: ['Sue'],
};

const print = (words: string) => process.stdout.write(`${words}\n`);
const random = seededRandom(Number(process.argv[2] ?? 20_261_127));
const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const often = (share: number) => random() < share;

function misspelt(word: string): string {
  const at = 1 + Math.floor(random() * (word.length - 1));
  const letter = 'aeiounrlst'[Math.floor(random() * 10)]!;
  return one([
    word.slice(0, at) + word.slice(at + 1),
    word.slice(0, at) + letter + word.slice(at),
    word.slice(0, at) + letter + word.slice(at + 1),
    word.slice(0, at - 1) + (word[at] ?? '') + word[at - 1]! + word.slice(at + 1),
  ]);
}

function nameAsWritten(firstName: string, lastName: string): string {
  let [first, last] = [firstName, lastName];
  if (SHORT[first] && often(0.5)) first = one(SHORT[first]!);
  else if (often(0.03)) first = `${first[0]!}.`;
  else if (often(0.04)) first = misspelt(first);
  if (often(0.06)) last = misspelt(last);
  if (often(0.05)) first += ` ${one(FIRST)[0]!}.`;
  const name = `${first} ${last}`;
  return often(0.05) ? name.toUpperCase() : often(0.05) ? `${one(['Dr', 'Ms', 'Mr'])} ${name}` : name;
}

function firmAsWritten({ name, legalForm }: Firm): string {
  if (often(0.12)) return '';
  if (often(0.06)) return name.split(' ')[0]!;
  if (often(0.04)) return misspelt(name);
  return often(0.4) && legalForm !== '' ? `${name} ${legalForm}` : name;
}

const titleAsWritten = (title: string): string =>
  often(0.3) ? '' : often(0.15) ? title.replace('Manager', 'Mgr').replace('Quality', 'QA') : title;

/** A row of a list, and the link that is theirs; '' when they have none. */
interface Row {
  cells: string[];
  link: string;
}

function rowOf(name: string, firm: Firm, title: string, link: string): Row {
  let company = firmAsWritten(firm);
  const city = often(0.25) ? '' : firm.city;
  const country = often(0.4) ? '' : firm.country;
  if (company === '' && city === '') company = firm.name;
  return { cells: [name, titleAsWritten(title), company, city, country], link };
}

function listedRow({ person, earlier }: PersonProfile, firms: readonly Firm[]): Row {
  const before = earlier[0] !== undefined && often(0.25) ? firms.find(({ name }) => name === earlier[0]) : undefined;
  const firm = before ?? (often(0.03) ? one(firms) : person.firm);
  const title = firm === person.firm ? person.title : one(TITLES);
  const link = `directory.example/p/${person.id}`;
  return rowOf(nameAsWritten(person.firstName, person.lastName), firm, title, link);
}

const world = buildWorld(7);
const profiles = buildProfiles(world);
const listed = profiles.people.filter(({ joinsAfterDays }) => joinsAfterDays === 0);
const rows = Array.from({ length: NAMES }, () =>
  often(UNLISTED)
    ? rowOf(nameAsWritten(one(FIRST), one(LAST).replaceAll('-', ' ')), one(world.firms), one(TITLES), '')
    : listedRow(one(listed), world.firms),
);

const app = await startDirectory(profiles, PORT, { log: callLog(), scenario: { ...PLAIN, shifting: false } });
const url = `http://127.0.0.1:${PORT}`;
const directory = directoryClient({ name: 'Waymark', url, key: 'waymark-demo-key', perSecond: 39, simulated: true });
const never = new AbortController().signal;
const answers = new Map<string, Answer>();
const facts = answeredFacts(answers);
const env = {
  facts,
  decisions: sortDecisions([]),
  suppression: new Map(),
  elsewhere: () => NOWHERE,
  made: NONE_MADE,
  lists: NO_LISTS,
  phoneCountry: 'GB',
};

const targets: Target[] = ['fullName', 'title', 'company', 'city', 'country'];
const columns: Column[] = targets.map((target) => ({ name: target, target }));
const tidied = tidier({ phoneCountry: 'GB', lists: NO_LISTS });
const people = rows.map(({ cells }) => tidied(cells, columns).person);

async function measure(words: string, options: Partial<ProfileOptions>) {
  const asked = answers.size;
  const from = performance.now();
  const advance = stepOf(profile.kind).prepare([], profile.options.parse(options), env);
  let [taken, right, judged, couldBe, none] = [0, 0, 0, 0, 0];
  for (const [i, person] of people.entries()) {
    const contact = newContact(i + 1, { ...person }, false);
    for (;;) {
      const stop = advance(contact, false);
      if (stop?.state === 'waits' && stop.ask.kind === 'profiles') {
        answers.set(keyOf(stop.ask), await directory.named(stop.ask, never));
        continue;
      }
      const { link } = rows[i]!;
      if (stop === null) {
        taken++;
        if (contact.person.profile === link) right++;
      } else if (stop.state === 'look') {
        judged++;
        if (link !== '') couldBe++;
      } else {
        none++;
      }
      break;
    }
  }
  const inDirectory = rows.filter(({ link }) => link !== '').length;
  const share = (n: number, of: number) => (n / of).toFixed(3);
  const seconds = ((performance.now() - from) / 1000).toFixed(0);
  print(
    `${words.padEnd(34)} ${share(right, taken).padStart(9)} ${share(right, inDirectory).padStart(7)} ${String(taken).padStart(6)} ${String(judged).padStart(7)} ${share(right + couldBe, inDirectory).padStart(13)} ${String(none).padStart(5)} ${String(answers.size - asked).padStart(10)} ${seconds.padStart(6)}`,
  );
}

print(`${NAMES.toLocaleString('en')} names, ${rows.filter(({ link }) => link === '').length} of them in no directory`);
print('way                                precision  recall  taken  judged  recall judged  none  questions  seconds');
await measure('as the row says', { looser: [] });
await measure('and short forms, one name', { looser: ['short-forms', 'one-name'] });
await measure('and at another company', { looser: ['short-forms', 'one-name', 'other-company'] });
await measure('and anywhere', { looser: ['short-forms', 'one-name', 'other-company', 'anywhere'] });
await app.close();
