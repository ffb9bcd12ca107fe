import { FIELD_WORDS, stepWords, type LoggedBody } from '@sieve/contract';

const people = (n: number) => (n === 1 ? '1 record' : `${n.toLocaleString('en-GB')} records`);

const rows = (n: number) => (n === 1 ? '1 row' : `${n.toLocaleString('en-GB')} rows`);
const entries = (n: number) => `${n.toLocaleString('en-GB')} addresses and domains`;

const VALUE_WORDS: Record<string, string> = {
  name: 'name',
  client: 'client',
  folder: 'folder',
  note: 'note',
  targetValid: 'emails wanted',
  budgetCents: 'budget',
  jobId: 'job',
  perCompany: 'rows of a company',
  search: 'conditions',
  standing: 'when it is asked again',
  batches: 'batches',
  finders: 'finders',
  directory: 'directory',
  pace: 'pace',
  lists: 'word lists',
  mail: 'mail',
  currency: 'currency',
  nameServer: 'name server',
  stop: 'where it stops',
  seconds: 'seconds between pages',
  everyDays: 'days until it is asked again',
};
const changedWords = (after: Record<string, unknown>) =>
  Object.keys(after)
    .flatMap((key) => VALUE_WORDS[key] ?? [])
    .join(', ');

/** What a person decided, in a few words. */
export function decisionWords(body: LoggedBody): string {
  switch (body.kind) {
    case 'bring-in':
      return `${body.name} brought in`;
    case 'set-aside':
      return `${people(body.recordIds.length)} set aside`;
    case 'keep':
      return `${people(body.recordIds.length)} kept`;
    case 'group':
      return `all of the ${body.by} “${body.value}” ${body.fate === 'aside' ? 'set aside' : 'kept'}`;
    case 'same':
      return 'two records are the same person';
    case 'different':
      return 'two records are two people';
    case 'judge':
      return `${body.pairs.length.toLocaleString('en-GB')} pairs are ${body.same ? 'the same person' : 'two people'} each`;
    case 'apart':
      return `${people(body.recordIds.length)} taken apart`;
    case 'edit':
      return `${FIELD_WORDS[body.field]} is “${body.value}”`;
    case 'choose':
      return `another ${FIELD_WORDS[body.field].toLowerCase()} of the merged records chosen`;
    case 'refuse':
      return `${FIELD_WORDS[body.field]} stays as it came`;
    case 'refuse-like':
      return `${FIELD_WORDS[body.field]} “${body.was}” stays as it came, everywhere`;
    case 'profile':
      return body.link ? `the profile ${body.link} is theirs` : 'none of the profiles found is theirs';
    case 'site-answer':
      return `the website of ${body.domain} answers ${body.answer === 'unclear' ? 'neither yes nor no' : body.answer}`;
    case 'companies':
      return `${body.a} and ${body.b} are ${body.same ? 'one company' : 'two companies'}`;
    case 'columns':
      return `columns of a source: ${body.columns.filter(({ target }) => target !== 'skip').length} are read`;
    case 'configure':
      return `${stepWords(body.step.kind)} set up anew`;
    case 'brief':
      return 'columns' in body.after ? 'the columns that leave' : `the brief: ${changedWords(body.after)}`;
    case 'search':
      return 'batches' in body.after && !('search' in body.after)
        ? 'batches of the search'
        : `the search: ${changedWords(body.after)}`;
    case 'harvest':
      return `the harvest: ${changedWords(body.after)}`;
    case 'settings':
      return `settings: ${changedWords(body.after)}`;
    case 'pick':
      return `${rows(body.rowIds.length)} ${body.in ? 'picked' : 'taken off the list'}`;
    case 'refund':
      return `${(body.cents / 100).toFixed(2)} given back of charge ${body.chargeId}: ${body.why}`;
    case 'suppress':
      return `${body.entries.length === 1 ? body.entries[0]!.value : entries(body.entries.length)} ${body.in ? 'suppressed' : 'no longer suppressed'}`;
  }
}
