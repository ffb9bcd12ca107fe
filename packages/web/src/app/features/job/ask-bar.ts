import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { servicesIn, stepWaits, stepWords, type AskEstimate, type Job, type Run, type Sought } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { valueOf } from '../../state/asked';
import { Doing } from '../../state/doing';
import { Session } from '../../state/session';
import { workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { MoneyPipe } from '../../ui/money';
import { Notices } from '../../ui/notices';
import { RunLine, timeLeft } from '../../ui/run-line';
import { EstimateStore, LeftStore } from './job-stores';
import { viewOf } from './steps/registry';
import type { StepState } from './steps/step-view';

const SOUGHT_WORDS: Record<Sought, { lack: string; found: string; unasked: string }> = {
  addresses: { lack: 'an address', found: 'valid', unasked: 'No finder is asked: patterns alone.' },
  phones: { lack: 'a phone', found: 'with one', unasked: 'No service is asked: choose one under Set up.' },
};

const LEFT_OF: Record<AskEstimate['leftOf'], string> = {
  job: '',
  folder: ' of the folder’s budget',
  month: ' of the month’s budget',
};

/** Time, cost and likely yield, said before anything is asked or paid; then the run itself. */
@Component({
  selector: 'cs-ask-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, CountPipe, MoneyPipe, RunLine],
  providers: [EstimateStore, LeftStore, MoneyPipe],
  template: `
    @for (run of asking(); track run.id) {
      <cs-run-line [run]="run" />
    } @empty {
      @if (waiting() > 0) {
        <div class="notice good">
          @if (estimate(); as e) {
            <span>
              @let sought = words();
              <b class="num">{{ e.contacts | count }}</b> people lack {{ sought.lack }}. Likely
              <b class="num">{{ e.valid.likely | count }}</b> {{ sought.found }} (<span class="num">{{
                e.valid.low | count
              }}</span>
              to <span class="num">{{ e.valid.high | count }}</span>), about {{ time() }}, cost likely
              <b class="num">{{ e.cost.likelyCents | money }}</b>{{ rangeOf(e.cost) }}, at most
              <span class="num">{{ e.cost.mostCents | money }}</span> of the
              <span class="num">{{ e.leftCents | money }}</span> left{{ leftOf[e.leftOf] }}.
              @if (e.finders.length === 0) {
                {{ sought.unasked }}
              }
              @if (e.budgetMayEnd) {
                The budget may end first; it is never passed.
              }
              <small>{{ restsOn(e) }}</small>
            </span>
            <div class="actions">
              @if (e.budgetMayEnd && e.leftOf === 'job' && short() > 0) {
                <button mat-stroked-button type="button" (click)="raise()">
                  Raise the budget by {{ short() | money }}, enough for all
                </button>
              }
              <button mat-flat-button type="button" (click)="start()">
                <cs-icon name="search" /> Look up {{ e.contacts | count }}{{ e.cost.mostCents > 0 ? ', at most ' : '' }}
                @if (e.cost.mostCents > 0) {
                  {{ e.cost.mostCents | money }}
                }
              </button>
            </div>
          } @else if (!view().seeks) {
            <span
              ><b class="num">{{ waiting() | count }}</b> {{ waitWords() }}.
              @if (atMostCents(); as cents) {
                {{ view().buys?.words }}: at most <span class="num">{{ cents | money }}</span>
                @if (left(); as left) {
                  of the <span class="num">{{ left.cents | money }}</span> left{{ leftOf[left.of] }}.
                  {{ cents > left.cents ? 'The budget may end first; it is never passed.' : '' }}
                } @else {
                  .
                }
              } @else {
                Asking costs nothing.
              }
            </span>
            @if (view().portions) {
              <label class="most"
                >at most
                <input
                  #most
                  class="field num"
                  type="number"
                  min="1"
                  placeholder="all"
                  (input)="most.value === '' ? portion.set(null) : portion.set(most.valueAsNumber)"
              /></label>
            }
            <button mat-flat-button type="button" [disabled]="asked() === null" (click)="start()">
              <cs-icon name="search" /> {{ view().ask ?? name() }} {{ asked() ?? 0 | count }}
            </button>
          }
        </div>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0 16px 10px;
    }
    :host:empty {
      display: none;
    }
    .notice {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
    }
    .notice span:first-child {
      flex: 1 1 340px;
    }
    .actions {
      display: flex;
      gap: 10px;
    }
    button {
      flex: none;
    }
    .most {
      color: var(--ink-2);
    }
    .most input {
      width: 80px;
      padding: 0 8px;
    }
  `,
})
export class AskBar {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly estimates = inject(EstimateStore);
  private readonly lefts = inject(LeftStore);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly money = inject(MoneyPipe);
  private readonly settings = inject(Session).settings;
  readonly job = input.required<Job>();
  readonly state = input.required<StepState>();
  readonly runs = input.required<Run[]>();
  /** That of another step is not this one's. */
  protected readonly estimate = computed(() => {
    const estimate = valueOf(this.estimates.asked());
    return estimate?.of === this.view().seeks ? estimate : null;
  });
  protected readonly words = computed(() => SOUGHT_WORDS[this.view().seeks ?? 'addresses']);
  protected readonly asking = computed(() =>
    this.runs().filter(
      ({ input: { kind, ...input } }) => kind === 'ask' && 'step' in input && input.step === this.state().step.id,
    ),
  );
  protected readonly view = computed(() => viewOf(this.state().step.kind));
  protected readonly name = computed(() => stepWords(this.state().step.kind));
  protected readonly waiting = computed(() => this.state().count.waits);
  /** How many are asked about at once; null: all. */
  protected readonly portion = linkedSignal<string, number | null>({
    source: () => this.state().step.id,
    computation: () => null,
  });
  /** Null while what is written is no number of contacts. */
  protected readonly asked = computed(() => {
    const portion = this.portion();
    if (portion === null) return this.waiting();
    return Number.isInteger(portion) && portion > 0 ? Math.min(portion, this.waiting()) : null;
  });
  /** What asking costs when nothing of it is known yet and all of it can be said; 0: nothing. */
  protected readonly atMostCents = computed(() => {
    const settings = this.settings();
    const from = (settings && this.view().buys?.from(this.state(), settings)) ?? [];
    const services = servicesIn(settings).filter(({ id }) => from.includes(id));
    return (this.asked() ?? 0) * services.reduce((sum, { priceCents }) => sum + priceCents, 0);
  });
  protected readonly left = computed(() => valueOf(this.lefts.asked()));
  protected readonly waitWords = computed(() => stepWaits(this.state().step.kind, this.waiting()));
  protected readonly time = computed(() => timeLeft(this.estimate()?.seconds ?? 0).replace(' left', ''));

  protected readonly leftOf = LEFT_OF;
  protected rangeOf = ({ lowCents, highCents }: AskEstimate['cost']): string =>
    highCents > lowCents ? ` (${this.money.transform(lowCents)} to ${this.money.transform(highCents)})` : '';
  protected restsOn = ({ rests: { lookups, timed } }: AskEstimate): string => {
    const n = (count: number) => count.toLocaleString('en-GB');
    if (lookups === 0) return 'Nothing was looked up here yet: this is what the trade expects.';
    return `This rests on ${n(lookups)} ${lookups === 1 ? 'lookup' : 'lookups'} before${timed > 0 ? `, ${n(timed)} of them timed` : ''}.`;
  };

  /** What is missing in the budget for the case that all are bought. */
  protected readonly short = computed(() => {
    const e = this.estimate();
    return e ? e.contacts * e.mostEachCents - e.leftCents : 0;
  });

  constructor() {
    this.estimates.load(
      computed(() => {
        const of = this.view().seeks;
        return of && this.waiting() > 0 ? { job: this.job(), of } : null;
      }),
    );
    this.lefts.load(computed(() => (this.atMostCents() > 0 ? this.job() : null)));
  }

  protected raise() {
    const budgetCents = this.job().budgetCents + this.short();
    this.doing.run(
      this.api.patchJob(this.job().id, { budgetCents, was: { budgetCents: this.job().budgetCents } }),
      (job) => {
        this.store.dispatch(workActions.jobCame({ job }));
        this.notices.say('The budget is raised. Ctrl Z takes it back.');
      },
    );
  }

  protected start() {
    const most = this.portion();
    this.doing.run(this.api.ask(this.job().id, { step: this.state().step.id, ...(most !== null && { most }) }));
  }
}
