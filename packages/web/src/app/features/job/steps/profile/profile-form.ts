import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { LOOSER, profileOptions } from '@sieve/core/steps/profile/options';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';
import { LOOSER_WORDS } from './looser-words';

const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'ga', 'cy'];
const nameOf = new Intl.DisplayNames('en', { type: 'language' });

@Component({
  selector: 'cs-profile-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatSelectModule, MatCheckboxModule],
  host: { class: 'step-fields' },
  template: `
    <ng-container [formGroup]="form">
      <fieldset class="wide" formGroupName="looser">
        <legend>Who is not found as the row says is looked for</legend>
        @for (way of ways; track way) {
          <mat-checkbox [formControlName]="way">{{ words[way] }}</mat-checkbox>
        }
      </fieldset>
      <mat-form-field
        ><mat-label>Taken when at least so sure, %</mat-label
        ><input matInput type="number" step="1" min="50" max="100" formControlName="takeFrom" /><mat-hint
          >Less sure ones are judged by you</mat-hint
        ></mat-form-field
      >
      <mat-form-field
        ><mat-label>Worth a look when at least so sure, %</mat-label
        ><input matInput type="number" step="1" min="0" max="100" formControlName="judgeFrom" /><mat-hint
          >Less sure ones are taken for none</mat-hint
        ></mat-form-field
      >
      <mat-form-field
        ><mat-label>Profiles in</mat-label
        ><mat-select formControlName="language"
          ><mat-option value="">any language</mat-option>
          @for (language of languages; track language) {
            <mat-option [value]="language">{{ languageName(language) }}</mat-option>
          }
        </mat-select></mat-form-field
      >
      <mat-checkbox formControlName="needed">Set aside who has none</mat-checkbox>
    </ng-container>
  `,
  styles: `
    fieldset {
      display: grid;
      grid-template-columns: 1fr 1fr;
      margin: 0;
      padding: 4px 12px 8px;
      border: 1px solid var(--line);
      border-radius: 7px;
    }
    legend {
      padding: 0 4px;
      color: var(--ink-2);
      font-size: 12px;
    }
  `,
})
export class ProfileForm implements StepForm {
  private readonly options = profileOptions.parse(inject(STEP_OPTIONS));
  private readonly fields = inject(NonNullableFormBuilder);
  protected readonly ways = LOOSER;
  protected readonly words = LOOSER_WORDS;
  protected readonly languages = [
    ...new Set([...LANGUAGES, ...(this.options.language ? [this.options.language] : [])]),
  ];
  protected languageName = (code: string) => nameOf.of(code) ?? code;
  readonly form = this.fields.group({
    looser: this.fields.group(Object.fromEntries(LOOSER.map((way) => [way, this.options.looser.includes(way)]))),
    takeFrom: [inHundred(this.options.takeFrom), [Validators.required, Validators.min(50), Validators.max(100)]],
    judgeFrom: [inHundred(this.options.judgeFrom), [Validators.required, Validators.min(0), Validators.max(100)]],
    language: [this.options.language],
    needed: [this.options.needed],
  });
  readonly value = () => {
    const { looser, takeFrom, judgeFrom, ...rest } = this.form.getRawValue();
    return {
      ...rest,
      looser: LOOSER.filter((way) => looser[way]),
      takeFrom: takeFrom / 100,
      judgeFrom: Math.min(judgeFrom, takeFrom) / 100,
    };
  };
}

const inHundred = (share: number) => Math.round(share * 1000) / 10;
