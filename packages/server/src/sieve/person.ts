import {
  ANY_AGE,
  chargeOf,
  DIRECTORY,
  FIELDS_TOGETHER,
  freshnessOf,
  personKeys,
  READ_FROM_OTHERS,
  type DecisionBody,
  type PersonField,
} from '@sieve/core';
import type { ContactView, HeldValue, PersonInFull, Settings, ValueOrigin } from '@sieve/contract';
import type { Db } from '../db/open';
import { decisionById, standingDecisions } from '../decisions/store';
import { doneExport } from '../exports/store';
import { jobRow } from '../jobs/store';
import { factsAt } from '../outside/facts';
import { contactsKnownBy, exportsOf } from '../register/register';
import { acrossOf, likelyElsewhere } from './elsewhere';
import { contactView, fateIn, recordViews } from './rows';

const LINES = FIELDS_TOGETHER.map((fields) => fields.filter((field) => !READ_FROM_OTHERS.includes(field)));

/**
 * One contact in full: each value with all that could stand in its place, where each came from and what was done to it; where
 * else the person is held, and what it left with.
 */
export function personInFull(
  db: Db,
  jobId: number,
  id: number,
  settings: Pick<Settings, 'lists' | 'finders' | 'phoneServices' | 'verifiers' | 'companyService'>,
): PersonInFull | undefined {
  const { lists, finders } = settings;
  const contact = contactView(db, jobId, id, lists);
  if (!contact) return undefined;
  const { sieve } = jobRow(db, jobId)!;
  const decisions = standingDecisions(db, jobId);
  const notEdits = decisions.filter(({ body }) => body.kind !== 'edit');
  const viewOf = recordViews(db, jobId, lists, notEdits);
  const records = contact.recordIds.slice(0, contact.recordViews.length).flatMap((record) => viewOf(record) ?? []);
  const found = foundBy(db, contact, finders);

  const valuesOf = (fields: readonly PersonField[]): HeldValue[] => {
    const values = new Map<string, HeldValue>();
    const partsOf = (person: Readonly<Record<string, string>>) =>
      Object.fromEntries(fields.flatMap((field) => (person[field] ? [[field, person[field]]] : [])));
    const standing = JSON.stringify(partsOf(contact.person));
    const add = (parts: HeldValue['parts'], origin: ValueOrigin | null, changes: HeldValue['changes'] = []) => {
      const key = JSON.stringify(parts);
      if (key === '{}') return;
      const known = values.get(key);
      if (!known) values.set(key, { parts, stands: key === standing, origins: origin ? [origin] : [], changes });
      else if (origin) known.origins.push(origin);
    };
    for (const { id: recordId, source, line, at, person, changes } of records)
      add(
        partsOf(person),
        { kind: 'record', recordId, source, line, at },
        changes.filter(({ field }) => fields.includes(field)),
      );
    const field = fields[0]!;
    const said = decisions.findLast(({ body }) => saysOf(body, fields, (one) => contact.from[one] ?? contact.id));
    if (said) add(partsOf(contact.person), { kind: 'you', at: decisionById(db, said.id)!.at });
    else if (!values.has(standing))
      add(partsOf(contact.person), field === 'email' ? found : addedBy(contact, fields, settings));
    if (field === 'email') for (const email of contact.alternatives) add({ email }, { kind: 'pattern' });
    return [...values.values()].sort((a, b) => Number(b.stands) - Number(a.stands));
  };

  const { askedAt } = contact;
  const keys = personKeys(contact.person);
  const held = contactsKnownBy(db.register, keys).filter((other) => other.jobId !== jobId);
  const across = acrossOf(db, jobId);
  const elsewhere = [...new Map(held.map((other) => [`${other.jobId} ${other.contact}`, other])).values()];
  return {
    contact,
    likely: across && elsewhere.length === 0 ? likelyElsewhere(db, jobId, across)(contact.person) : [],
    lines: LINES.map((fields) => ({ fields, values: valuesOf(fields) })),
    verdict:
      askedAt > 0
        ? {
            askedAt,
            freshUntil: askedAt + freshnessOf(sieve).agesMs,
            by: verifierAsked(db, contact.person.email, settings),
          }
        : null,
    jobs: [
      { jobId, contact: id, fate: contact.fate },
      ...elsewhere.flatMap((other) => {
        const fate = fateIn(db, other.jobId, other.contact);
        return fate ? [{ ...other, fate }] : [];
      }),
    ],
    exports: exportsOf(db.register, keys).flatMap((number) => {
      const done = doneExport(db, number);
      return done ? [{ id: done.id, jobId: done.jobId, at: done.at, files: done.files.map(({ name }) => name) }] : [];
    }),
  };
}

/** True for what made one of these fields what it is: it was written in the record that its value is of, or chosen from it. */
const saysOf = (
  body: DecisionBody,
  fields: readonly PersonField[],
  recordOf: (field: PersonField) => number,
): boolean =>
  (body.kind === 'edit' || body.kind === 'choose') &&
  fields.includes(body.field) &&
  (body.kind === 'edit' ? body.recordIds.includes(recordOf(body.field)) : body.recordId === recordOf(body.field));

/** How a value came that no record holds, an address besides. */
function addedBy(
  { found, filledBy, from }: ContactView,
  fields: readonly PersonField[],
  { companyService, phoneServices, finders }: Pick<Settings, 'companyService' | 'phoneServices' | 'finders'>,
): ValueOrigin | null {
  const by = fields.map((field) => filledBy[field]).find((one) => one !== undefined);
  const sure = fields.map((field) => found[field]).find((one) => one !== undefined);
  if (by !== undefined && by !== DIRECTORY) {
    const name = [companyService, ...phoneServices, ...finders].find((one) => one?.id === by)?.name ?? by;
    return { kind: 'service', name, ...(sure !== undefined && { sure }) };
  }
  if (sure !== undefined) return { kind: 'directory', sure };
  return from[fields[0]!] === 0 ? { kind: 'colleagues' } : null;
}

/** The verifier that was asked about an address; '' where its mail server was. */
function verifierAsked(db: Db, email: string, { verifiers }: Pick<Settings, 'verifiers'>): string {
  const by = factsAt(db, Infinity, ANY_AGE)({ kind: 'mailbox', email }).fact?.answer.by ?? '';
  return verifiers.find(({ id }) => id === by)?.name ?? by;
}

/** How an address came that no record holds. */
function foundBy(db: Db, { via, person }: ContactView, finders: Settings['finders']): ValueOrigin | null {
  if (via === 'given' || via === '') return null;
  if (via === 'pattern') return { kind: 'pattern' };
  const facts = factsAt(db, Infinity, ANY_AGE);
  const { firstName, lastName, domain } = person;
  const question = { kind: 'finder' as const, finder: via, firstName, lastName, domain };
  const offer = facts(question).fact;
  const name = finders.find(({ id }) => id === via)?.name ?? via;
  if (!offer) return { kind: 'finder', name, cents: null, at: 0 };
  const { lookup, priceCents, pays = 'valid' } = offer.answer;
  // One that charges for answers or questions was paid with its answer.
  if (pays !== 'valid') return { kind: 'finder', name, cents: chargeOf(question, offer.answer), at: offer.askedAt };
  const purchase = { kind: 'purchase' as const, finder: via, lookup, priceCents };
  const bought = facts(purchase).fact;
  const cents = bought ? chargeOf(purchase, bought.answer) : null;
  return { kind: 'finder', name, cents, at: (bought ?? offer).askedAt };
}
