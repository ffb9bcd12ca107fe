import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  signal,
} from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { toObservable } from '@angular/core/rxjs-interop';
import { screenOptions, type ScreenOptions } from '@sieve/core/steps/screen/options';
import type { ScreenRule } from '@sieve/core/steps/screen/rules';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import type { SieveStep } from '@sieve/core';
import { debounceTime, filter, map, merge, of } from 'rxjs';
import { CountPipe } from '../../../../ui/count';
import { Icon } from '../../../../ui/icon/icon';
import { Select } from '../../../../ui/select/select';
import { Sentence } from '../../../../ui/sentence/sentence';
import type { Apply, CountIf } from '../../../../ui/sentence/sentence-model';
import { Status } from '../../../../ui/status/status';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { listOf, type StepForm } from '../step-view';
import { OwnFieldsStore } from './own-fields-store';
import { changed, clausesOf, ruleSubjects } from './rule-sentence';

/** Rows are counted anew when nothing was typed for so long, in ms. */
const PAUSE = 400;
const FATES: { value: ScreenRule['fate']; label: string }[] = [
  { value: 'aside', label: 'Set aside' },
  { value: 'keep', label: 'Keep only' },
];
const ELSEWHERE: { value: ScreenOptions['heldElsewhere']; label: string }[] = [
  { value: 'pass', label: 'pass' },
  { value: 'look', label: 'want a look' },
  { value: 'aside', label: 'are set aside' },
];
const EffectStore = signalStore(
  withAsked((api, { jobId, options }: { jobId: number; options: SieveStep['options'] }) =>
    api.screenEffect(jobId, options),
  ),
);
/** A rule without conditions takes nobody. */
const saysSomething = ({ conditions }: ScreenRule): boolean => conditions.length > 0;

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
    Select,
    Sentence,
    Status,
  ],
  providers: [OwnFieldsStore, EffectStore],
  host: { class: 'step-fields' },
  templateUrl: './screen-form.html',
  styles: `
    .rule {
      display: grid;
      grid-template-columns: 128px minmax(0, 1fr) 64px 34px;
      gap: 8px;
      align-items: start;
    }
    .takes {
      padding-top: 10px;
      color: var(--plum);
      text-align: right;
    }
    /* As high while what the rules take is loading: what moved under the pointer was not pressed. */
    .add {
      display: flex;
      gap: 12px;
      align-items: center;
      min-height: 48px;
    }
    .effect {
      color: var(--ink-2);
    }
    cs-sentence {
      padding: 2px 10px 6px;
      border: 1px solid var(--line);
      border-radius: 7px;
      font-size: 14.5px;
      line-height: 34px;
    }
  `,
})
export class ScreenForm implements StepForm {
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly options = screenOptions.parse(inject(STEP_OPTIONS));
  private readonly own = inject(OwnFieldsStore);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly effects = inject(EffectStore);
  protected readonly elsewhere = ELSEWHERE;
  protected readonly fates = FATES;
  /** With the fields of the person's own that the job has, and those that rules name. */
  protected readonly subjects = computed(() => {
    const held = (valueOf(this.own.asked()) ?? []).map(({ name }) => name);
    const named = this.rules().flatMap(({ conditions }) => conditions.map(({ field }) => field));
    const own = named.flatMap((field) => (field.startsWith('own:') ? [field.slice('own:'.length)] : []));
    return ruleSubjects([...new Set([...held, ...own])]);
  });
  protected readonly rules = signal<readonly ScreenRule[]>(this.options.rules);
  protected readonly sentences = computed(() =>
    this.rules().map((rule, at) => ({
      rule,
      clauses: clausesOf(rule, this.subjects()),
      apply: ((change) => {
        const next = changed(this.rules()[at]!, change, this.subjects());
        if (typeof next === 'string') return next;
        this.put(at, next);
        return '';
      }) satisfies Apply,
    })),
  );
  /** What a change would take is said once it stands. */
  protected readonly countIf: CountIf = () => of(null);
  readonly form = this.builder.group({
    briefTitles: [this.options.briefTitles.join('\n')],
    suppression: [this.options.suppression],
    heldElsewhere: [this.options.heldElsewhere],
    leftElsewhere: [this.options.leftElsewhere],
    atMostPerCompany: [this.options.atMostPerCompany, [Validators.min(0), Validators.max(10_000)]],
  });
  readonly value = () => {
    const { briefTitles, ...rest } = this.form.getRawValue();
    return {
      ...this.options,
      ...rest,
      briefTitles: listOf(briefTitles, /\n/),
      rules: this.rules().filter(saysSomething),
    };
  };
  protected readonly effect = computed(() => valueOf(this.effects.asked()));

  constructor() {
    const jobId = inject(STEP_JOB);
    this.own.load(jobId);
    this.effects.load(
      merge(this.form.valueChanges, toObservable(this.rules)).pipe(
        debounceTime(PAUSE),
        filter(() => this.form.valid),
        map(() => ({ jobId, options: this.value() })),
      ),
    );
  }

  /** How many the rule in a row of the form takes; those that say nothing yet are not among the counted. */
  protected takes(at: number): string {
    const says = this.rules().map(saysSomething);
    const counted = this.effect()?.rules ?? [];
    // A rule has come or gone since they were counted.
    if (!says[at] || counted.length !== says.filter(Boolean).length) return '';
    const taken = counted[says.slice(0, at).filter(Boolean).length];
    return taken === undefined ? '' : `−${taken.toLocaleString('en-GB')}`;
  }

  protected put(at: number, rule: ScreenRule) {
    this.rules.update((rules) => rules.with(at, rule));
  }

  protected addRule() {
    this.rules.update((rules) => [...rules, { fate: 'aside', conditions: [] }]);
    afterNextRender(() => this.host.querySelectorAll<HTMLElement>('.rule .caret')[this.rules().length - 1]?.focus(), {
      injector: this.injector,
    });
  }

  protected remove(at: number) {
    this.rules.update((rules) => rules.filter((_, i) => i !== at));
  }
}
