import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  type AbstractControl,
  NonNullableFormBuilder,
  ReactiveFormsModule,
  type ValidationErrors,
  Validators,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import {
  screenOptions,
  type BlankRule,
  type RangeRule,
  type ScreenOptions,
  type WordRule,
} from '@sieve/core/steps/screen/options';
import { ownValue } from '@sieve/core/text/own-value';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import type { SieveStep } from '@sieve/core';
import { debounceTime, filter, map, startWith } from 'rxjs';
import { CountPipe } from '../../../../ui/count';
import { Icon } from '../../../../ui/icon/icon';
import { Status } from '../../../../ui/status/status';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { listOf, type StepForm } from '../step-view';

type Rule = WordRule | RangeRule | BlankRule;
type How = 'words' | 'range' | BlankRule['is'];
const HOW_WORDS: Record<How, string> = { words: 'says', range: 'lies', blank: 'is blank', filled: 'is not blank' };
/** Rows are counted anew when nothing was typed for so long, in ms. */
const PAUSE = 400;
const ELSEWHERE: { value: ScreenOptions['heldElsewhere']; label: string }[] = [
  { value: 'pass', label: 'pass' },
  { value: 'look', label: 'want a look' },
  { value: 'aside', label: 'are set aside' },
];
type Field = Rule['field'];
const FIELDS: { value: Field; label: string }[] = [
  { value: 'title', label: 'Title' },
  { value: 'level', label: 'Level' },
  { value: 'team', label: 'Team' },
  { value: 'company', label: 'Company' },
  { value: 'sector', label: 'Sector' },
  { value: 'headcount', label: 'Headcount' },
  { value: 'name', label: 'Name' },
  { value: 'place', label: 'Place' },
  { value: 'domain', label: 'Domain' },
  { value: 'email', label: 'Email' },
  { value: 'phone', label: 'Phone' },
  { value: 'profile', label: 'Profile link' },
  { value: 'note', label: 'Note' },
  { value: 'any', label: 'Anywhere' },
];

const EffectStore = signalStore(
  withAsked((api, { jobId, options }: { jobId: number; options: SieveStep['options'] }) =>
    api.screenEffect(jobId, options),
  ),
);
/** A rule without words or bounds takes nobody. */
const saysSomething = (rule: Rule): boolean =>
  'words' in rule ? rule.words.length > 0 : 'is' in rule || rule.from !== '' || rule.to !== '';

const OwnFieldsStore = signalStore(withAsked((api, job: number) => api.ownFields(job)));

@Component({
  selector: 'cs-screen-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    MatCheckboxModule,
    MatButtonModule,
    Icon,
    CountPipe,
    Status,
  ],
  providers: [OwnFieldsStore, EffectStore],
  host: { class: 'step-fields' },
  templateUrl: './screen-form.html',
  styles: `
    .rule {
      display: grid;
      grid-template-columns: 140px 124px minmax(0, 1fr) 128px 64px 34px;
      gap: 8px;
      align-items: start;
    }
    .takes {
      padding-top: 10px;
      color: var(--plum);
      text-align: right;
    }
    .effect {
      margin-left: 12px;
      color: var(--ink-2);
    }
    .range {
      align-items: start;
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class ScreenForm implements StepForm {
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly options = screenOptions.parse(inject(STEP_OPTIONS));
  private readonly own = inject(OwnFieldsStore);
  protected readonly effects = inject(EffectStore);
  protected readonly elsewhere = ELSEWHERE;
  private readonly ownFields = computed(() => valueOf(this.own.asked()) ?? []);
  /** With the fields of the person's own that the job has, and those that rules name. */
  protected readonly fields = computed(() => {
    const named = this.options.rules.flatMap(({ field }) => (field.startsWith('own:') ? [field] : []));
    const own = new Set<Field>([...this.ownFields().map(({ name }): Field => `own:${name}`), ...named]);
    return [...FIELDS, ...[...own].map((value) => ({ value, label: value.slice('own:'.length) }))];
  });
  protected readonly rules = this.builder.array(this.options.rules.map((rule) => this.ruleForm(rule)));
  readonly form = this.builder.group({
    briefTitles: [this.options.briefTitles.join('\n')],
    suppression: [this.options.suppression],
    heldElsewhere: [this.options.heldElsewhere],
    leftElsewhere: [this.options.leftElsewhere],
    atMostPerCompany: [this.options.atMostPerCompany, [Validators.min(0), Validators.max(10_000)]],
    rules: this.rules,
  });
  readonly value = () => {
    const { briefTitles, rules, ...rest } = this.form.getRawValue();
    return {
      ...this.options,
      ...rest,
      briefTitles: listOf(briefTitles, /\n/),
      rules: rules.map((rule) => this.ruleOf(rule)).filter(saysSomething),
    };
  };
  protected readonly howWords = HOW_WORDS;
  protected readonly effect = computed(() => valueOf(this.effects.asked()));

  constructor() {
    const jobId = inject(STEP_JOB);
    this.own.load(jobId);
    this.effects.load(
      this.form.valueChanges.pipe(
        startWith(null),
        debounceTime(PAUSE),
        filter(() => this.form.valid),
        map(() => ({ jobId, options: this.value() })),
      ),
    );
  }

  /** How many the rule in a row of the form takes; those that say nothing yet are not among the counted. */
  protected takes(at: number): string {
    const says = this.rules.getRawValue().map((rule) => saysSomething(this.ruleOf(rule)));
    const counted = this.effect()?.rules ?? [];
    // A rule has come or gone since they were counted.
    if (!says[at] || counted.length !== says.filter(Boolean).length) return '';
    const taken = counted[says.slice(0, at).filter(Boolean).length];
    return taken === undefined ? '' : `−${taken.toLocaleString('en-GB')}`;
  }

  protected howsOf(field: Field): How[] {
    return [
      'words',
      ...(this.rangeOf(field) ? (['range'] as const) : []),
      ...(field === 'any' ? [] : (['blank', 'filled'] as const)),
    ];
  }

  /** Another field: what was said of the one before does not hold of it. */
  protected refit({ controls, value: { how } }: ReturnType<typeof this.ruleForm>) {
    controls.from.setValue('');
    controls.to.setValue('');
    const hows = this.howsOf(controls.field.value);
    if (how === 'words' || !hows.some((known) => known === how))
      controls.how.setValue(hows.includes('range') ? 'range' : 'words');
  }

  /** What the values of a rule's field are ranges of; null where words are looked for. */
  protected rangeOf(field: Field): RangeRule['type'] | null {
    if (field === 'headcount') return 'number';
    const type = this.ownFields().find(({ name }) => field === `own:${name}`)?.type;
    if (type === 'number') return type;
    if (type === 'date' || type === 'month-date') return 'date';
    const rule = this.options.rules.find((known) => known.field === field);
    return rule && 'type' in rule ? rule.type : null;
  }

  protected addRule() {
    this.rules.push(this.ruleForm({ field: 'title', fate: 'aside', words: [] }));
  }

  private ruleOf({
    field,
    fate,
    how,
    words,
    from,
    to,
  }: ReturnType<ReturnType<typeof this.ruleForm>['getRawValue']>): Rule {
    if ((how === 'blank' || how === 'filled') && field !== 'any') return { field, fate, is: how };
    const type = this.rangeOf(field);
    if (how !== 'range' || type === null) return { field, fate, words: listOf(words, /[,\n]/) };
    const bound = (text: string) => (text.trim() === '' ? '' : (ownValue(type, text) ?? ''));
    return { field: field as RangeRule['field'], type, fate, from: bound(from), to: bound(to) };
  }

  /** A bound has to be of its field's type. */
  private readonly isBound = (control: AbstractControl<string>): ValidationErrors | null => {
    const type = this.rangeOf((control.parent?.get('field')?.value as Field | undefined) ?? 'any');
    return type === null || control.value.trim() === '' || ownValue(type, control.value) !== null
      ? null
      : { bound: type };
  };

  private ruleForm(rule: Rule) {
    const how: How = 'is' in rule ? rule.is : 'words' in rule ? 'words' : 'range';
    return this.builder.group({
      field: [rule.field],
      fate: [rule.fate],
      how: [how],
      words: ['words' in rule ? rule.words.join(', ') : ''],
      from: ['from' in rule ? rule.from : '', this.isBound],
      to: ['to' in rule ? rule.to : '', this.isBound],
    });
  }
}
