import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { type FormArray, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import type { RuleField, StepKind, StepOptions } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { Decisions } from '../../state/decisions';
import { Session } from '../../state/session';
import { Icon } from '../../ui/icon/icon';

const RULE_FIELDS: { value: RuleField; label: string }[] = [
  { value: 'title', label: 'Title' },
  { value: 'company', label: 'Company' },
  { value: 'name', label: 'Name' },
  { value: 'place', label: 'Place' },
  { value: 'domain', label: 'Domain' },
  { value: 'email', label: 'Email' },
  { value: 'note', label: 'Note' },
  { value: 'any', label: 'Any column' },
];

/** How one step works. Saving is a decision, so it can be taken back. */
@Component({
  selector: 'cs-step-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    MatCheckboxModule,
    MatButtonModule,
    Icon,
  ],
  templateUrl: './step-dialog.html',
  styles: `
    .fields {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 12px;
      padding-top: 8px !important;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .rule {
      display: grid;
      grid-template-columns: 118px 128px 1fr 34px;
      gap: 8px;
      grid-column: 1 / -1;
      align-items: start;
    }
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class StepDialog {
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly decisions = inject(Decisions);
  private readonly dialog = inject(MatDialogRef<StepDialog>);
  private readonly data = inject<{ job: Job; step: StepKind }>(MAT_DIALOG_DATA);
  protected readonly finders = inject(Session).settings;
  protected readonly fields = RULE_FIELDS;
  protected readonly step = this.data.step;
  private readonly steps = this.data.job.steps;

  protected readonly tidy = this.builder.group({
    phoneCountry: [this.steps.tidy.phoneCountry, [Validators.required, Validators.pattern(/^[A-Za-z]{2}$/)]],
  });
  protected readonly match = this.builder.group({
    on: [this.steps.match.on],
    mergeFrom: [this.steps.match.mergeFrom, [Validators.required, Validators.min(0.5), Validators.max(1)]],
    judgeFrom: [this.steps.match.judgeFrom, [Validators.required, Validators.min(0.01), Validators.max(1)]],
    survivor: [this.steps.match.survivor],
  });
  protected readonly screen = this.builder.group({
    briefTitles: [this.steps.screen.briefTitles.join('\n')],
    suppression: [this.steps.screen.suppression],
    atMostPerCompany: [this.steps.screen.atMostPerCompany, [Validators.min(0), Validators.max(10_000)]],
    rules: this.builder.array(
      this.steps.screen.rules.map((rule) => this.ruleForm(rule.field, rule.fate, rule.words.join(', '))),
    ),
  });
  protected readonly append = this.builder.group({
    on: [this.steps.append.on],
    candidates: [this.steps.append.candidates, [Validators.min(0), Validators.max(12)]],
    finders: [this.steps.append.finders],
  });
  protected readonly verify = this.builder.group({ on: [this.steps.verify.on] });

  protected get rules(): FormArray<ReturnType<StepDialog['ruleForm']>> {
    return this.screen.controls.rules;
  }

  protected addRule() {
    this.rules.push(this.ruleForm('title', 'aside', ''));
  }

  protected save() {
    const form = this[this.step];
    if (form.invalid) return form.markAllAsTouched();
    this.decisions.configure(this.data.job.id, this.options());
    this.dialog.close();
  }

  private ruleForm(field: RuleField, fate: 'keep' | 'aside', words: string) {
    return this.builder.group({ field: [field], fate: [fate], words: [words] });
  }

  private options(): StepOptions {
    switch (this.step) {
      case 'tidy':
        return { kind: 'tidy', phoneCountry: this.tidy.getRawValue().phoneCountry.toUpperCase() };
      case 'match':
        return { kind: 'match', ...this.match.getRawValue() };
      case 'screen': {
        const { briefTitles, rules, ...rest } = this.screen.getRawValue();
        return {
          kind: 'screen',
          ...rest,
          briefTitles: listOf(briefTitles, /\n/),
          rules: rules
            .map((rule) => ({ ...rule, words: listOf(rule.words, /[,\n]/) }))
            .filter(({ words }) => words.length > 0),
        };
      }
      case 'append':
        return { kind: 'append', ...this.append.getRawValue() };
      case 'verify':
        return { kind: 'verify', ...this.verify.getRawValue() };
    }
  }
}

const listOf = (text: string, between: RegExp): string[] => [
  ...new Set(
    text
      .split(between)
      .map((word) => word.trim())
      .filter(Boolean),
  ),
];
