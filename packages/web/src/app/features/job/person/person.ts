import { phoneWords } from '../../../ui/phone-words';
import { sureWords } from '../../../ui/sure-words';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { DecisionBody, PersonField, VerdictReason } from '@sieve/core';
import {
  CHANGE_WORDS,
  FATE_WORDS,
  FIELD_WORDS,
  ISSUE_WORDS,
  REASON_WORDS,
  say,
  stepWords,
  type HeldValue,
  type PersonInFull,
  type ValueOrigin,
} from '@sieve/contract';
import { Store } from '@ngrx/store';
import { valueOf } from '../../../state/asked';
import { work } from '../../../state/work';
import { Ageing } from '../../../ui/ageing';
import { Icon } from '../../../ui/icon/icon';
import { MoneyPipe } from '../../../ui/money';
import { Shortcuts } from '../../../ui/shortcuts/shortcuts';
import { VerdictMark } from '../../../ui/verdict-mark';
import { dayWords } from '../../../ui/when';
import { PersonStore } from '../job-stores';
import { agreedOn, issuesOf, reasonSentence } from '../reason';
import { RecordDetails } from '../record-details';
import { sayOf } from '../say-of';
import { AlikeElsewhere } from './alike-elsewhere';
import { MergeTree } from './merge-tree';

type Line = PersonInFull['lines'][number];

const LINE_WORDS: Partial<Record<PersonField, string>> = { firstName: 'Name', street: 'Place' };
const ADDRESSES: readonly PersonField[] = ['email', 'phone', 'domain', 'profile'];

/** One person read in full: each value with where it came from and what was done to it, the others that could stand there, the merge, and where else the person is held. */
@Component({
  selector: 'cs-person',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    NgTemplateOutlet,
    RouterLink,
    MatButtonModule,
    Ageing,
    AlikeElsewhere,
    Icon,
    MergeTree,
    RecordDetails,
    VerdictMark,
  ],
  providers: [PersonStore, MoneyPipe],
  templateUrl: './person.html',
  styleUrl: './person.scss',
  host: { role: 'region', '[attr.aria-label]': 'name()' },
})
export class PersonPane {
  private readonly asked = inject(PersonStore);
  private readonly money = inject(MoneyPipe);
  private readonly jobs = inject(Store).selectSignal(work.selectJobEntities);
  readonly jobId = input.required<number>();
  readonly contactId = input.required<number>();
  readonly version = input(0);
  /** Where it stands in the list it was opened from. */
  readonly position = input<{ at: number; of: number } | null>(null);
  readonly decided = output<DecisionBody>();
  readonly moved = output<1 | -1>();
  readonly closed = output();

  protected readonly phoneWords = phoneWords;
  protected readonly person = computed(() => valueOf(this.asked.asked()));
  protected readonly problem = computed(() => {
    const asked = this.asked.asked();
    return asked.status === 'failed' ? asked.words : '';
  });
  protected readonly contact = computed(() => this.person()?.contact ?? null);
  protected readonly name = computed(() => this.contact()?.name || this.contact()?.email || 'No name');
  protected readonly reason = computed(() => (this.contact() ? reasonSentence(this.contact()!) : ''));
  protected readonly verdictWords = computed(() => REASON_WORDS[this.contact()?.reason as VerdictReason] ?? '');
  protected readonly filled = computed(() => this.person()?.lines.filter(({ values }) => values.length > 0) ?? []);
  protected readonly empty = computed(() => this.person()?.lines.filter(({ values }) => values.length === 0) ?? []);
  /** The first field of the line that is written. */
  protected readonly editing = signal<PersonField | null>(null);
  protected readonly ownFields = computed(() =>
    Object.entries(this.contact()?.extra ?? {}).filter(([, value]) => value !== ''),
  );
  protected readonly agreed = computed(() => (this.contact() ? agreedOn(this.contact()!) : ''));
  protected readonly issues = computed(() => (this.contact() ? issuesOf(this.contact()!) : []));
  protected readonly issueWords: Record<string, string> = ISSUE_WORDS;
  protected readonly say = sayOf;
  protected readonly changeWords: Record<string, string> = CHANGE_WORDS;
  protected wordOf = (field: PersonField) => FIELD_WORDS[field];
  protected is = (field: PersonField) => this.contact()?.person[field] ?? '';

  private readonly heading = viewChild<ElementRef<HTMLElement>>('heading');
  private readonly form = viewChild<ElementRef<HTMLElement>>('form');

  constructor() {
    this.asked.load(computed(() => ({ jobId: this.jobId(), id: this.contactId(), version: this.version() })));
    effect(() => {
      this.contactId();
      untracked(() => this.editing.set(null));
    });
    // Whoever opened it goes on by keys from here.
    effect(() => this.heading()?.nativeElement.focus({ preventScroll: true }));
    effect(() => this.form()?.nativeElement.querySelector<HTMLElement>('input, textarea')?.focus());
    inject(Shortcuts).use({
      escape: () => this.closed.emit(),
      j: () => this.moved.emit(1),
      k: () => this.moved.emit(-1),
      e: () => this.write('title'),
      n: () => this.write('note'),
      space: (event) => (event.target instanceof HTMLButtonElement ? false : this.keep()),
    });
  }

  protected labelOf = ({ fields }: Line): string => LINE_WORDS[fields[0]!] ?? FIELD_WORDS[fields[0]!];
  protected isAddress = ({ fields }: Line): boolean => ADDRESSES.includes(fields[0]!);
  protected textOf = (line: Line, { parts }: HeldValue): string =>
    line.fields.flatMap((field) => parts[field] || []).join(line.fields.includes('city') ? ', ' : ' ');

  /** Where a value came from, in a few words. */
  protected originWords(value: HeldValue): string {
    const records = value.origins.filter(({ kind }) => kind === 'record');
    const all = this.contact()!.recordViews.length;
    if (records.length > 1 && records.length === all) return `all ${all} records agree`;
    return value.origins.map((origin) => this.from(origin, records.length > 0)).join('; ');
  }

  private from(origin: ValueOrigin, isOfARecord: boolean): string {
    switch (origin.kind) {
      case 'record':
        return `${origin.source}, row ${origin.line}, ${dayWords(origin.at)}`;
      case 'you':
        return `${isOfARecord ? 'chosen' : 'written'} by you, ${dayWords(origin.at)}`;
      case 'colleagues':
        return 'from colleagues at this company';
      case 'directory':
        return `from the directory, ${sureWords(origin.sure)}`;
      case 'service':
        return `from ${origin.name}${origin.sure === undefined ? '' : `, ${sureWords(origin.sure)}`}`;
      case 'pattern':
        return 'made of the name by the pattern of the domain';
      case 'finder':
        return `${origin.name}, ${origin.cents === null ? 'nothing charged' : this.money.transform(origin.cents)}, ${dayWords(origin.at)}`;
    }
  }

  protected jobName = (id: number): string => this.jobs()[id]?.name ?? `job ${id}`;
  protected day = dayWords;
  protected stateWords({ step, state, code, why }: PersonInFull['jobs'][number]['fate']): string {
    return state === 'pass' ? 'passed' : `${step ? `${stepWords(step)}: ` : ''}${say(FATE_WORDS[code] ?? code, why)}`;
  }

  /** What tidying did to a value; fields that came of one cell say it once. */
  protected doneTo({ changes }: HeldValue): HeldValue['changes'] {
    const once = new Map(changes.map((change) => [`${change.was} ${change.why.join()}`, change]));
    return [...once.values()].filter(({ was, is }) => was !== '' && was !== is);
  }

  /** Opens a line to write in. */
  protected write(field: PersonField) {
    this.editing.set(this.person()?.lines.find(({ fields }) => fields.includes(field))?.fields[0] ?? null);
  }

  protected save(line: Line, event: Event) {
    event.preventDefault();
    const form = new FormData(event.target as HTMLFormElement);
    this.editing.set(null);
    for (const field of line.fields) {
      const said = sayOf.write(this.contact()!, field, (form.get(field) as string | null) ?? '');
      if (said) this.decide(said);
    }
  }

  /** Has another of the values that are known stand. */
  protected choose(line: Line, value: HeldValue) {
    const { recordIds } = this.contact()!;
    const of = recordIn(value);
    const field = line.fields[0]!;
    this.decide(
      of === undefined
        ? { kind: 'edit', recordIds, field, value: value.parts[field] ?? '' }
        : { kind: 'choose', recordIds, recordId: of, field },
    );
  }

  /** The record whose value it is; none for what no record holds. */
  protected recordIn = recordIn;

  protected keep() {
    const contact = this.contact()!;
    if (contact.fate.state === 'look' || contact.fate.state === 'aside') this.decide(sayOf.keep(contact));
  }

  /** While the next person is still on its way, nothing is said of the last one. */
  protected decide(body: DecisionBody) {
    if (this.contact()!.id === this.contactId()) this.decided.emit(body);
  }
}

const recordIn = ({ origins }: HeldValue): number | undefined =>
  origins.find((origin) => origin.kind === 'record')?.recordId;
