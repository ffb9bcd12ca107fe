import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { screenOptions, type RuleField, type WordRule } from '@sieve/core/steps/screen/options';
import { Icon } from '../../../../ui/icon/icon';
import { STEP_OPTIONS } from '../step-options';
import { listOf, type StepForm } from '../step-view';

const FIELDS: { value: RuleField; label: string }[] = [
  { value: 'title', label: 'Title' },
  { value: 'company', label: 'Company' },
  { value: 'name', label: 'Name' },
  { value: 'place', label: 'Place' },
  { value: 'domain', label: 'Domain' },
  { value: 'email', label: 'Email' },
  { value: 'note', label: 'Note' },
  { value: 'any', label: 'Anywhere' },
];

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
  host: { class: 'step-fields' },
  templateUrl: './screen-form.html',
  styles: `
    .rule {
      display: grid;
      grid-template-columns: 118px 128px 1fr 34px;
      gap: 8px;
      align-items: start;
    }
  `,
})
export class ScreenForm implements StepForm {
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly options = screenOptions.parse(inject(STEP_OPTIONS));
  protected readonly fields = FIELDS;
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
        .map((rule) => ({ ...rule, words: listOf(rule.words, /[,\n]/) }))
        .filter(({ words }) => words.length > 0),
    };
  };

  protected addRule() {
    this.rules.push(this.ruleForm({ field: 'title', fate: 'aside', words: [] }));
  }

  private ruleForm({ field, fate, words }: WordRule) {
    return this.builder.group({ field: [field], fate: [fate], words: [words.join(', ')] });
  }
}
