import type { Decision } from './decision';
import { togetherWith, type PersonField } from '../model/person';
import { fold } from '../text/fold';
import type { SiteAnswer } from '../steps/company/options';
import { groupKey } from '../steps/screen/groups';
import type { GroupBy } from '../steps/screen/options';

/** Decisions, sorted by what they are about. Later ones win over earlier ones. */
export interface Sorted {
  /** By record: set aside (null), or kept as far as and including a step. */
  fates: Map<number, { order: number; keepTo: string | null }>;
  groups: Map<GroupBy, Map<string, 'keep' | 'aside'>>;
  same: [number, number][];
  /** Records of which no two are one person: two that were judged, or all that were taken apart. */
  different: number[][];
  edits: Map<number, Map<PersonField, string>>;
  refused: Map<number, Set<PersonField>>;
  chosen: { recordId: number; fields: readonly PersonField[] }[];
  refusedLike: { field: PersonField; was: string; is: string }[];
  /** By record: the profile link that is theirs, '' for none of those that were found. */
  profiles: Map<number, { order: number; link: string }>;
  /** Keys of companies that are one, and of those that are two. */
  companies: { same: [string, string][]; different: [string, string][] };
  /** By question, folded, and domain: what a company's website answers. */
  answers: Map<string, Map<string, SiteAnswer>>;
}

export function sortDecisions(decisions: readonly Decision[]): Sorted {
  const out: Sorted = {
    fates: new Map(),
    groups: new Map(),
    same: [],
    different: [],
    edits: new Map(),
    chosen: [],
    refused: new Map(),
    refusedLike: [],
    profiles: new Map(),
    answers: new Map(),
    companies: { same: [], different: [] },
  };
  const pairs = new Map<string, { pair: [number, number]; same: boolean }>();
  const companies = new Map<string, { keys: [string, string]; same: boolean }>();
  const apart: number[][] = [];
  const judge = (a: number, b: number, same: boolean) => {
    const pair: [number, number] = a < b ? [a, b] : [b, a];
    pairs.set(pair.join(), { pair, same });
  };
  const takeApart = (recordIds: number[]) => {
    const among = new Set(recordIds);
    for (const [key, { pair }] of pairs) if (pair.every((record) => among.has(record))) pairs.delete(key);
    apart.push(recordIds);
  };
  for (const { id, body } of decisions) {
    switch (body.kind) {
      case 'set-aside':
        for (const record of body.recordIds) out.fates.set(record, { order: id, keepTo: null });
        break;
      case 'keep':
        for (const record of body.recordIds) out.fates.set(record, { order: id, keepTo: body.step });
        break;
      case 'group':
        if (!out.groups.has(body.by)) out.groups.set(body.by, new Map());
        out.groups.get(body.by)!.set(groupKey(body.value), body.fate);
        break;
      case 'same':
      case 'different':
        judge(body.a, body.b, body.kind === 'same');
        break;
      case 'judge':
        for (const [a, b] of body.pairs) judge(a, b, body.same);
        break;
      case 'apart':
        takeApart(body.recordIds);
        break;
      case 'edit':
        for (const record of body.recordIds) {
          if (!out.edits.has(record)) out.edits.set(record, new Map());
          out.edits.get(record)!.set(body.field, body.value);
        }
        break;
      case 'choose': {
        const fields = togetherWith(body.field);
        for (const record of body.recordIds) for (const field of fields) out.edits.get(record)?.delete(field);
        out.chosen.push({ recordId: body.recordId, fields });
        break;
      }
      case 'refuse':
        if (!out.refused.has(body.recordId)) out.refused.set(body.recordId, new Set());
        out.refused.get(body.recordId)!.add(body.field);
        break;
      case 'refuse-like':
        out.refusedLike.push(body);
        break;
      case 'profile':
        for (const record of body.recordIds) out.profiles.set(record, { order: id, link: body.link });
        break;
      case 'site-answer': {
        const question = fold(body.question);
        if (!out.answers.has(question)) out.answers.set(question, new Map());
        out.answers.get(question)!.set(body.domain, body.answer);
        break;
      }
      case 'companies': {
        const keys: [string, string] = body.a < body.b ? [body.a, body.b] : [body.b, body.a];
        companies.set(keys.join('\n'), { keys, same: body.same });
        break;
      }
      case 'bring-in':
      case 'columns':
      case 'configure':
        break;
    }
  }
  for (const { keys, same } of companies.values()) out.companies[same ? 'same' : 'different'].push(keys);
  out.different.push(...apart);
  for (const { pair, same } of pairs.values()) (same ? out.same : out.different).push(pair);
  return out;
}
