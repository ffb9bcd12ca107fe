import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { signalStore } from '@ngrx/signals';
import type { FirmRule } from '@sieve/core/steps/company/firm-rules';
import { LEAST_TAUGHT } from '@sieve/core/steps/company/learn';
import { companyOptions } from '@sieve/core/steps/company/options';
import { debounceTime, filter, map, startWith } from 'rxjs';
import { valueOf, withAsked } from '../../../../state/asked';
import { Session } from '../../../../state/session';
import { CountPipe } from '../../../../ui/count';
import { MoneyPipe } from '../../../../ui/money';
import { Status } from '../../../../ui/status/status';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { listOf, type StepForm } from '../step-view';

const EffectStore = signalStore(
  withAsked((api, { jobId, options }: { jobId: number; options: unknown }) => api.firmEffect(jobId, options)),
);
/** Companies are counted anew when nothing was typed for so long, in ms. */
const PAUSE = 400;
const RULES: readonly [code: FirmRule | 'like-competitor', words: string][] = [
  ['competitor', 'competitors'],
  ['like-competitor', 'like competitors'],
  ['company-sector-out', 'not sectors'],
  ['company-sector', 'sectors'],
  ['company-headcount', 'people'],
  ['company-growth', 'growth'],
  ['company-place', 'places'],
  ['company-technology', 'uses'],
  ['company-hiring', 'hires'],
  ['company-topics', 'topics'],
];

/** What is asked of companies, and which are wanted. */
@Component({
  selector: 'cs-company-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatCheckboxModule, CountPipe, MoneyPipe, Status],
  providers: [EffectStore],
  host: { class: 'step-fields' },
  templateUrl: './company-form.html',
  styles: `
    fieldset {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 8px 12px;
      margin: 0;
      padding: 6px 12px 10px;
      border: 1px solid var(--line);
      border-radius: 7px;
    }
    legend {
      padding: 0 4px;
      color: var(--ink-2);
      font-size: 12px;
    }
    .all {
      grid-column: 1 / -1;
    }
    p {
      grid-column: 1 / -1;
      margin: 0;
      color: var(--ink-2);
    }
    .takes {
      color: var(--plum);
    }
    @media (max-width: 700px) {
      fieldset {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class CompanyForm implements StepForm {
  private readonly options = companyOptions.parse(inject(STEP_OPTIONS));
  private readonly fields = inject(NonNullableFormBuilder);
  private readonly settings = inject(Session).settings;
  protected readonly service = computed(() => this.settings()?.companyService ?? null);
  protected readonly directory = computed(() => this.settings()?.directory ?? null);
  protected readonly topicService = computed(() => this.settings()?.topicService ?? null);
  protected readonly leastTaught = LEAST_TAUGHT;
  protected readonly model = computed(() => this.settings()?.languageModel ?? null);
  readonly form = this.fields.group({
    question: [this.options.question, Validators.maxLength(200)],
    speaksFor: [this.options.speaksFor.join('\n')],
    speaksAgainst: [this.options.speaksAgainst.join('\n')],
    learns: [this.options.learns],
    sureFrom: [Math.round(this.options.sureFrom * 100), [Validators.required, Validators.min(50), Validators.max(99)]],
    byModel: [this.options.readBy !== ''],
    finds: [this.options.findBy !== ''],
    findInDirectory: [this.options.findInDirectory],
    readsTopics: [this.options.topicsBy !== ''],
    topics: [this.options.topics.join(', ')],
    details: [this.options.detailsBy !== ''],
    sectors: [this.options.sectors.join(', ')],
    notSectors: [this.options.notSectors.join(', ')],
    headcountFrom: [this.options.headcountFrom, [Validators.required, Validators.min(0)]],
    headcountTo: [this.options.headcountTo, [Validators.required, Validators.min(0)]],
    growthFrom: this.fields.control<number | null>(this.options.growthFrom, Validators.min(-100)),
    growthTo: this.fields.control<number | null>(this.options.growthTo, Validators.min(-100)),
    places: [this.options.places.join(', ')],
    technology: [this.options.technology.join(', ')],
    hiring: [this.options.hiring.join(', ')],
    competitors: [this.options.competitors.join('\n')],
    likeCompetitors: [
      Math.round(this.options.likeCompetitors * 100),
      [Validators.required, Validators.min(0), Validators.max(100)],
    ],
  });
  readonly value = () => {
    const { finds, details, byModel, readsTopics, sureFrom, ...form } = this.form.getRawValue();
    const id = this.service()?.id;
    // A service that is gone from the settings stays in the step until somebody takes it out.
    const words = (text: string) => listOf(text, /[,;\n]/);
    return {
      ...form,
      speaksFor: listOf(form.speaksFor, /\n/),
      speaksAgainst: listOf(form.speaksAgainst, /\n/),
      sureFrom: sureFrom / 100,
      findBy: finds ? (id ?? this.options.findBy) : '',
      detailsBy: details ? (id ?? this.options.detailsBy) : '',
      readBy: byModel ? (this.model()?.id ?? this.options.readBy) : '',
      topicsBy: readsTopics ? (this.topicService()?.id ?? this.options.topicsBy) : '',
      topics: words(form.topics),
      sectors: words(form.sectors),
      notSectors: words(form.notSectors),
      places: words(form.places),
      technology: words(form.technology),
      hiring: words(form.hiring),
      competitors: listOf(form.competitors, /[;\n]/),
      likeCompetitors: form.likeCompetitors / 100,
    };
  };
  protected readonly effects = inject(EffectStore);
  /** What each rule would take, the first of them first. */
  protected readonly takes = computed(() => {
    const effect = valueOf(this.effects.asked());
    return (
      effect && {
        ...effect,
        rules: RULES.flatMap(([code, words]) => (effect.rules[code] ? [{ words, count: effect.rules[code] }] : [])),
      }
    );
  });

  constructor() {
    const jobId = inject(STEP_JOB);
    this.effects.load(
      this.form.valueChanges.pipe(
        startWith(null),
        debounceTime(PAUSE),
        filter(() => this.form.valid),
        map(() => ({ jobId, options: this.value() })),
      ),
    );
  }
}
