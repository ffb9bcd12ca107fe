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
import { screenOptions, type RangeRule, type WordRule } from '@sieve/core/steps/screen/options';
import { ownValue } from '@sieve/core/text/own-value';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import { Icon } from '../../../../ui/icon/icon';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { listOf, type StepForm } from '../step-view';

type Rule = WordRule | RangeRule;
type Field = Rule['field'];
const FIELDS: { value: Field; label: string }[] = [
  { value: 'title', label: 'Title' },
  { value: 'company', label: 'Company' },
  { value: 'name', label: 'Name' },
  { value: 'place', label: 'Place' },
  { value: 'domain', label: 'Domain' },
  { value: 'email', label: 'Email' },
  { value: 'note', label: 'Note' },
  { value: 'any', label: 'Anywhere' },
];

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
  ],
  providers: [OwnFieldsStore],
  host: { class: 'step-fields' },
  templateUrl: './screen-form.html',
  styles: `
    .rule {
      display: grid;
      grid-template-columns: 118px 128px 1fr 34px;
      gap: 8px;
      align-items: start;
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
    atMostPerCompany: [this.options.atMostPerCompany, [Validators.min(0), Validators.max(10_000)]],
    rules: this.rules,
  });
  readonly value = () => {
    const { briefTitles, rules, ...rest } = this.form.getRawValue();
    return {
      ...this.options,
      ...rest,
      briefTitles: listOf(briefTitles, /\n/),
      rules: rules
        .map((rule) => this.ruleOf(rule))
        .filter((rule) => ('words' in rule ? rule.words.length > 0 : rule.from !== '' || rule.to !== '')),
    };
  };

  constructor() {
    this.own.load(inject(STEP_JOB));
  }

  /** What the values of a rule's field are ranges of; null where words are looked for. */
  protected rangeOf(field: Field): RangeRule['type'] | null {
    const type = this.ownFields().find(({ name }) => field === `own:${name}`)?.type;
    if (type === 'number') return type;
    if (type === 'date' || type === 'month-date') return 'date';
    const rule = this.options.rules.find((known) => known.field === field);
    return rule && 'type' in rule ? rule.type : null;
  }

  protected addRule() {
    this.rules.push(this.ruleForm({ field: 'title', fate: 'aside', words: [] }));
  }

  private ruleOf({ field, fate, words, from, to }: ReturnType<ReturnType<typeof this.ruleForm>['getRawValue']>): Rule {
    const type = this.rangeOf(field);
    if (type === null) return { field, fate, words: listOf(words, /[,\n]/) };
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
    return this.builder.group({
      field: [rule.field],
      fate: [rule.fate],
      words: ['words' in rule ? rule.words.join(', ') : ''],
      from: ['from' in rule ? rule.from : '', this.isBound],
      to: ['to' in rule ? rule.to : '', this.isBound],
    });
  }
}
