import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  numberAttribute,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { DecisionBody } from '@sieve/core';
import { PERSON_FIELDS, type Person, type PersonField } from '@sieve/core/model/person';
import { FIELD_WORDS, type PairElsewhere, type PairView } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { valueOf, withAsked } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { work } from '../../state/work';
import { bringInto } from '../../ui/bring-into';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { roundedDown } from '../../ui/rounded-down';
import { Status } from '../../ui/status/status';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { GroupPicture } from './group-picture';

const NOTHING = '—';
const LEVEL_WORDS = ['one side is empty', 'different', 'near', 'nearly the same', 'the same'];

/** Where a level of a field means more than how alike two values are. */
const FIELD_LEVELS: Record<string, Record<number, string>> = {
  email: { 1: 'another mailbox of the same firm', 2: 'another firm, or an office’s mailbox' },
  phone: { 2: 'a line that others have too' },
  suffix: { 2: 'only one has it' },
};

/** One of two who may be one. */
interface Side {
  person: Person;
  /** Where it is from. */
  from: string;
  cells: PairView['a']['cells'];
}

/** Two records of this job, or a contact of it and somebody in another one. */
interface Doubt {
  a: Side;
  b: Side;
  pair: PairView | PairElsewhere;
  chance: number | null;
}

const isElsewhere = (pair: PairView | PairElsewhere): pair is PairElsewhere => 'there' in pair;

function doubtOf(pair: PairView | PairElsewhere): Doubt {
  if (isElsewhere(pair)) {
    const { person, there } = pair;
    const side = (person: Person, from: string): Side => ({ person, from, cells: [] });
    return { pair, chance: there.chance, a: side(person, 'Here'), b: side(there.person, there.job) };
  }
  const side = ({ person, source, line, cells }: PairView['a']): Side => ({
    person,
    from: `${source}, line ${line}`,
    cells,
  });
  return { pair, chance: pair.chance, a: side(pair.a), b: side(pair.b) };
}

/** `version`, of the job's outcome, has them asked anew. */
const PairsStore = signalStore(withAsked((api, { job }: { job: number; version: number }) => api.pairs(job)));

/** Two who may be one, what speaks for and against, one key for each answer. */
@Component({
  selector: 'cs-judge',
  host: { class: 'panes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, CountPipe, GroupPicture, Icon, Status],
  providers: [PairsStore],
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
})
export class Judge {
  private readonly pairsStore = inject(PairsStore);
  private readonly decisions = inject(Decisions);
  private readonly entities = inject(Store).selectSignal(work.selectJobEntities);
  readonly id = input.required<number, unknown>({ transform: numberAttribute });
  protected readonly job = computed(() => this.entities()[this.id()]);
  protected readonly request = this.pairsStore.asked;
  private readonly held = computed(() => valueOf(this.request()));
  /** What was taken back comes with a later sift: until the next answer the list follows it. */
  private readonly follows = signal(false);
  private readonly version = linkedSignal<{ follows: boolean; version: number }, number>({
    source: () => ({ follows: this.follows(), version: this.job()?.version ?? 0 }),
    computation: ({ follows, version }, before) => (follows || !before ? version : before.value),
  });
  protected readonly total = computed(() => this.held()?.total ?? 0);
  protected readonly doubts = computed(() => this.held()?.pairs.map(doubtOf));
  /** The first of those with another job. */
  protected readonly firstElsewhere = computed(() => this.held()?.pairs.findIndex(isElsewhere));
  protected readonly at = signal(0);
  protected readonly doubt = computed(() => this.doubts()?.[this.at()]);
  protected readonly pair = computed(() => {
    const pair = this.doubt()?.pair;
    return pair && !isElsewhere(pair) ? pair : null;
  });
  protected readonly elsewhere = computed(() => {
    const pair = this.doubt()?.pair;
    return pair && isElsewhere(pair) ? pair : null;
  });

  protected readonly lines = computed(() => {
    const doubt = this.doubt();
    if (!doubt) return [];
    const { a, b, pair } = doubt;
    const held = pair.evidence.filter(({ field }) => shown(a, field) + shown(b, field) !== NOTHING + NOTHING);
    return held.map(({ field, level, bits }) => ({
      field: FIELD_WORDS[field as PersonField],
      a: shown(a, field),
      b: shown(b, field),
      words: wordsOf(doubt, field, level),
      share: Math.min(1, Math.abs(bits) / 12) * 50,
      against: bits < 0,
    }));
  });

  /** What the two hold besides what is compared. */
  private readonly others = computed(() => {
    const doubt = this.doubt();
    if (!doubt) return [];
    const { a, b, pair } = doubt;
    const compared = new Set(pair.evidence.map(({ field }) => field));
    return PERSON_FIELDS.filter((field) => !compared.has(field) && a.person[field] + b.person[field] !== '').map(
      (field) => ({ field: FIELD_WORDS[field], a: shown(a, field), b: shown(b, field) }),
    );
  });
  /** The cells as they came, those of a name side by side. */
  private readonly cells = computed(() => {
    const doubt = this.doubt();
    if (!doubt) return [];
    const [a, b] = [doubt.a, doubt.b].map(
      ({ cells }) => new Map(cells.flatMap(({ name, value }) => (value ? [[name, value] as const] : []))),
    );
    return [...new Set([...a!.keys(), ...b!.keys()])].map((field) => ({
      field,
      a: a!.get(field) ?? NOTHING,
      b: b!.get(field) ?? NOTHING,
    }));
  });
  protected readonly rest = computed(() =>
    [
      { title: this.lines().length > 0 ? 'All else they hold' : 'What they hold', lines: this.others() },
      { title: 'As they came', lines: this.cells() },
    ].filter(({ lines }) => lines.length > 0),
  );
  /** What was judged, and which weights it changed most. */
  protected readonly taught = computed(() => {
    const said = this.job()?.summary?.taught;
    const weights = this.held()?.taught ?? [];
    if (!said || weights.length === 0) return null;
    const words = weights.map(({ field, level, bits }) => {
      const is = FIELD_LEVELS[field]?.[level] ?? LEVEL_WORDS[level]!;
      const size = Math.abs(bits).toFixed(1);
      return `${FIELD_WORDS[field as PersonField]}, ${is}: ${bits > 0 ? 'for it' : 'against it'} by ${size} bits more`;
    });
    return { ...said, words };
  });

  protected readonly roundedDown = roundedDown;

  constructor() {
    bringInto(this.id);
    const subject = () => ({ subject: 'job', subjectId: this.id() }) as const;
    inject(Shortcuts).use({
      'ctrl+z': () => this.decisions.undo(subject(), () => this.follows.set(true)),
      'ctrl+shift+z': () => this.decisions.redo(subject(), () => this.follows.set(true)),
      s: () => this.answer('same'),
      d: () => this.answer('different'),
      'shift+s': () => this.answerAll(true),
      'shift+d': () => this.answerAll(false),
      l: () => this.later(),
      j: () => this.later(),
      k: () => this.at.update((at) => Math.max(0, at - 1)),
    });
    this.pairsStore.load(computed(() => ({ job: this.id(), version: this.version() })));
  }

  protected answer(kind: 'same' | 'different') {
    const pair = this.doubt()?.pair;
    if (!pair) return;
    this.decide(bodyOf(pair, kind), 1, (known) => known === pair);
  }

  private decide(body: DecisionBody, count: number, isGone: (pair: PairView | PairElsewhere) => boolean) {
    this.follows.set(false);
    this.decisions.decide(
      this.id(),
      body,
      () => this.drop(count, isGone),
      () => this.follows.set(true),
    );
  }

  /** Judged pairs leave the list; the one that stood behind them is next. */
  private drop(count: number, isGone: (pair: PairView | PairElsewhere) => boolean) {
    this.pairsStore.change(({ total, pairs, ...held }) => ({
      ...held,
      total: total - count,
      pairs: pairs.filter((pair) => !isGone(pair)),
    }));
    this.at.update((at) => Math.max(0, Math.min(at, (this.doubts()?.length ?? 1) - 1)));
  }

  /** The pair, and all others that show the same. */
  protected answerAll(same: boolean) {
    const pair = this.pair();
    if (!pair || pair.alike.length === 0) return this.answer(same ? 'same' : 'different');
    const pairs = [{ a: pair.a.id, b: pair.b.id }, ...pair.alike].map(({ a, b }): [number, number] => [a, b]);
    const gone = new Set(pairs.map((one) => one.join()));
    this.decide(
      { kind: 'judge', pairs, same },
      pairs.length,
      (known) => !isElsewhere(known) && gone.has([known.a.id, known.b.id].join()),
    );
  }

  protected later() {
    this.at.update((at) => (at + 1) % Math.max(1, this.doubts()?.length ?? 1));
  }
}

/** Who is held in another job already is not wanted here; who is somebody else passes. */
function bodyOf(pair: PairView | PairElsewhere, kind: 'same' | 'different'): DecisionBody {
  if (!isElsewhere(pair)) return { kind, a: pair.a.id, b: pair.b.id };
  const { recordIds, step } = pair;
  return kind === 'same' ? { kind: 'set-aside', recordIds } : { kind: 'keep', recordIds, step };
}

/** Two equal initials are no equal names. */
function wordsOf({ a, b }: Doubt, field: string, level: number): string {
  const isInitial = ({ person }: Side) => /^\p{L}\.?$/u.test(person.firstName);
  if (field === 'firstName' && level > 1 && (isInitial(a) || isInitial(b)))
    return isInitial(a) && isInitial(b) ? 'the same initial only' : 'its initial';
  return FIELD_LEVELS[field]?.[level] ?? LEVEL_WORDS[level]!;
}

const shown = (record: Side, field: string): string => record.person[field as PersonField] || NOTHING;
