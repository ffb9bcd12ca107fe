import type { Sorted } from '../decisions/sort-decisions';
import type { Contact } from '../model/contact';
import type { SiftRow } from './sift-row';

/** Puts the values that a person chose among those of merged records over those that survived by rule; the later choice wins. */
export function choose(contacts: readonly Contact[], rows: readonly SiftRow[], chosen: Sorted['chosen']): void {
  if (chosen.length === 0) return;
  const wanted = new Set(chosen.map(({ recordId }) => recordId));
  const persons = new Map(rows.flatMap(({ recordId, person }) => (wanted.has(recordId) ? [[recordId, person]] : [])));
  const contactOf = new Map<number, Contact>();
  for (const contact of contacts)
    if (contact.recordIds.length > 1)
      for (const id of contact.recordIds) if (wanted.has(id)) contactOf.set(id, contact);
  for (const { recordId, fields } of chosen) {
    const contact = contactOf.get(recordId);
    const person = persons.get(recordId);
    if (!contact || !person) continue;
    contact.person = { ...contact.person };
    contact.from = { ...contact.from };
    for (const field of fields) {
      contact.person[field] = person[field];
      contact.from[field] = recordId;
    }
  }
}
