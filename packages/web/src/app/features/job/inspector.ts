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
import type { DecisionBody, PersonField, VerdictReason } from '@sieve/core';
import { PERSON_FIELDS } from '@sieve/core/model/person';
import { servicesIn, CHANGE_WORDS, FIELD_WORDS, ISSUE_WORDS, REASON_WORDS, type ContactView } from '@sieve/contract';
import { valueOf } from '../../state/asked';
import { Session } from '../../state/session';
import { Icon } from '../../ui/icon/icon';
import { BriefFit } from './brief-fit';
import { VerdictMark } from '../../ui/verdict-mark';
import { ContactStore } from './job-stores';
import { phoneWords } from '../../ui/phone-words';
import { sureWords } from '../../ui/sure-words';
import { ProfileChoice } from './profile-choice';
import { RecordDetails } from './record-details';
import { sayOf } from './say-of';
import { agreedOn, issuesOf, reasonSentence } from './reason';

/** How sure a value is, behind where it came from; nothing where that was not weighed. */
const sureOf = (sure: number | undefined): string => (sure === undefined ? '' : `, ${sureWords(sure)}`);

/** `level` and `team` are read from the title, the legal form from the company. */
const SHOWN = PERSON_FIELDS.filter((field) => !['level', 'team', 'legalForm'].includes(field));
type Change = ContactView['recordViews'][number]['changes'][number];

interface Line {
  field: PersonField;
  value: string;
  change: Change | undefined;
  recordId: number;
  origin: string;
}

/** One contact: each value with where it came from and what was done to it, the merge, and what can be decided about it. */
@Component({
  selector: 'cs-inspector',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, BriefFit, Icon, RecordDetails, ProfileChoice, VerdictMark],
  providers: [ContactStore],
  templateUrl: './inspector.html',
  styleUrl: './inspector.scss',
})
export class Inspector {
  private readonly store = inject(ContactStore);
  readonly jobId = input.required<number>();
  readonly contactId = input<number | null>(null);
  readonly version = input(0);
  /** Counts up when E is pressed. */
  readonly editWanted = input(0);
  readonly decided = output<DecisionBody>();
  /** A profile was chosen, by a key: the next row is next. */
  readonly judged = output();
  readonly opened = output();

  protected readonly view = computed(() => (this.contactId() === null ? null : valueOf(this.store.asked())));
  protected readonly problem = computed(() => {
    const asked = this.store.asked();
    return asked.status === 'failed' ? asked.words : '';
  });
  private readonly settings = inject(Session).settings;
  private readonly serviceName = (service: string) =>
    servicesIn(this.settings()).find(({ id }) => id === service)?.name ?? service;
  protected readonly editing = signal<PersonField | null>(null);
  protected readonly words: Record<'change' | 'field' | 'issue', Record<string, string>> = {
    change: CHANGE_WORDS,
    field: FIELD_WORDS,
    issue: ISSUE_WORDS,
  };
  protected readonly reason = computed(() => {
    const view = this.view();
    return view ? reasonSentence(view) : '';
  });
  protected readonly verdictWords = computed(() => REASON_WORDS[this.view()?.reason as VerdictReason] ?? '');

  protected readonly lines = computed<Line[]>(() => {
    const view = this.view();
    if (!view) return [];
    return SHOWN.filter((field) => view.person[field] !== '').map((field) => {
      const recordId = view.from[field] ?? view.id;
      const record = view.recordViews.find(({ id }) => id === recordId);
      const origin =
        view.filledBy[field] !== undefined && view.filledBy[field] !== 'directory'
          ? `from ${this.serviceName(view.filledBy[field])}${sureOf(view.found[field])}`
          : view.found[field] !== undefined
            ? `${field === 'profile' ? 'found' : 'from the profile'}, ${sureWords(view.found[field])}`
            : (field === 'domain' || field === 'company') && view.from[field] === 0
              ? `from colleagues at this ${field === 'domain' ? 'company' : 'domain'}`
              : field === 'email' && view.via !== 'given' && view.via !== ''
                ? `found by ${view.via}`
                : '';
      const phone = field === 'phone' && view.knownPhone ? phoneWords(view.knownPhone) : '';
      return {
        field,
        value: view.person[field],
        change: record?.changes.find((change) => change.field === field),
        recordId,
        origin: [origin, phone].filter(Boolean).join(' · '),
      };
    });
  });
  protected readonly issues = computed(() => (this.view() ? issuesOf(this.view()!) : []));
  protected readonly agreed = computed(() => (this.view() ? agreedOn(this.view()!) : ''));

  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');

  constructor() {
    effect(() => this.box()?.nativeElement.select());
    this.store.load(computed(() => ({ jobId: this.jobId(), id: this.contactId(), version: this.version() })));
    effect(() => {
      if (this.editWanted() > 0)
        this.editing.set(
          untracked(this.lines).find(({ field }) => field === 'title')?.field ??
            untracked(this.lines)[0]?.field ??
            null,
        );
    });
  }

  protected whyWords = (change: Change) => change.why.map((code) => this.words.change[code] ?? code).join(', ');

  protected readonly say = sayOf;

  protected chosen(view: ContactView, link: string) {
    this.decided.emit(sayOf.theirProfile(view, link));
    this.judged.emit();
  }

  protected save(view: ContactView, field: PersonField, value: string) {
    // Leaving the field by Escape takes it away, and that blurs it.
    if (this.editing() !== field) return;
    this.editing.set(null);
    const said = sayOf.write(view, field, value);
    if (said) this.decided.emit(said);
  }
}
