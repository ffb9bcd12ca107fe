import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { runName, runWords, type Run } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { work, workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { FilterBox, holds } from '../../ui/filter-box';
import { RunLine } from '../../ui/run-line';
import { whenWords } from '../../ui/when';

/** All runs: what runs and what is to come, what failed and why, what is done. */
@Component({
  selector: 'cs-runs',
  host: { class: 'page' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, CountPipe, FilterBox, RunLine],
  template: `
    <header>
      <h1>Runs</h1>
      <cs-filter-box label="Filter the runs" [q]="q()" />
    </header>
    <div class="two">
      <section>
        <h2>Running</h2>
        @for (run of running(); track run.id) {
          <cs-run-line [run]="run" />
        } @empty {
          <p class="dim">Nothing runs now.</p>
        }
      </section>
      <section>
        <h2>
          To come <small class="num">{{ toCome().length | count }}</small>
        </h2>
        @for (run of toCome().slice(0, MOST_SHOWN); track run.id) {
          <cs-run-line [run]="run" />
        } @empty {
          <p class="dim">Nothing waits its turn.</p>
        }
        @if (toCome().length > MOST_SHOWN) {
          <p class="dim">and {{ toCome().length - MOST_SHOWN | count }} more behind them.</p>
        }
      </section>
    </div>
    @for (part of ended(); track part.title) {
      <h2>{{ part.title }}</h2>
      @if (part.runs.length > 0) {
        <table class="lines">
          <thead>
            <tr>
              <th>What</th>
              <th>Job</th>
              <th>When</th>
              <th>{{ part.outcome }}</th>
              <th><span class="visually-hidden">Actions</span></th>
            </tr>
          </thead>
          <tbody>
            @for (run of part.runs; track run.id) {
              <tr>
                <td>{{ name(run) }}</td>
                <td>
                  @if (run.jobId > 0) {
                    <a [routerLink]="['/jobs', run.jobId]">{{ run.jobName }}</a>
                  } @else if (searchOf(run); as search) {
                    <a [routerLink]="['/search', search]">its search</a>
                  }
                </td>
                <td class="num">{{ run.endedAt ? when(run.endedAt) : '' }}</td>
                <td [class.why]="run.state === 'failed'">
                  {{ run.state === 'cancelled' ? stopped(run) : words(run) }}
                </td>
                <td class="r">
                  @if (run.state !== 'done') {
                    <button mat-stroked-button type="button" (click)="again(run)">
                      {{ run.state === 'cancelled' ? 'Go on' : 'Try again' }}
                    </button>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      } @else {
        <p class="dim">{{ part.none }}</p>
      }
    }
  `,
  styles: `
    header {
      display: flex;
      align-items: baseline;
      gap: 14px;
    }
    h1 {
      font-size: 22px;
    }
    h2 {
      font-size: 14px;
      margin: 20px 0 7px;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 0 28px;
    }
    .dim,
    small {
      color: var(--ink-2);
      font-weight: 400;
    }
    h2 small {
      font-family: var(--ui);
    }
    table {
      table-layout: fixed;
    }
    th:nth-child(1) {
      width: 112px;
    }
    th:nth-child(2) {
      width: 26%;
    }
    th:nth-child(3) {
      width: 118px;
    }
    th:nth-child(5) {
      width: 128px;
    }
    td {
      padding-block: 5px;
    }
    td button {
      white-space: nowrap;
    }
    .why {
      color: var(--brick);
    }
    @media (width < 1100px) {
      .two {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class Runs {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly store = inject(Store);
  private readonly runs = this.store.selectSignal(work.selectAllRuns);
  protected readonly MOST_SHOWN = 20;
  readonly q = input<string>();
  protected readonly name = (run: Run) => runName(run.input);
  protected readonly words = runWords;
  protected readonly when = whenWords;
  private readonly inState = (...states: Run['state'][]) =>
    computed(() =>
      this.runs().filter(
        (run) => states.includes(run.state) && holds(this.q(), runName(run.input), run.jobName, runWords(run)),
      ),
    );
  protected readonly running = this.inState('running');
  private readonly later = this.inState('queued', 'paused');
  /** In the order in which they come. */
  protected readonly toCome = computed(() => [...this.later()].reverse());
  private readonly failed = this.inState('failed', 'cancelled');
  private readonly done = this.inState('done');
  protected readonly ended = computed(() => [
    { title: 'Failed or stopped', runs: this.failed(), outcome: 'Why', none: 'Nothing failed.' },
    {
      title: 'Done',
      runs: this.done(),
      outcome: 'What came of it',
      none: 'Nothing is done yet. Bring in a file, or pull a search.',
    },
  ]);

  private readonly unseen = computed(
    () => this.runs().find(({ state, seenAt }) => state === 'failed' && seenAt === null)?.id,
  );

  constructor() {
    // Looked at here, they leave the desk; said once for each that comes, whatever else moves.
    effect(() => {
      if (this.unseen() !== undefined)
        this.doing.run(this.api.seeRuns(), (runs) => this.store.dispatch(workActions.runsCame({ runs })));
    });
  }

  /** What is missing of a run that was stopped for good. */
  protected stopped({ done, total }: Run): string {
    const n = (count: number) => count.toLocaleString('en-GB');
    return total > done
      ? `stopped by you: ${n(done)} of ${n(total)}, ${n(total - done)} are missing`
      : 'stopped by you';
  }

  protected searchOf = ({ input }: Run) => ('searchId' in input ? input.searchId : null);
  protected again({ id }: Run) {
    this.store.dispatch(workActions.runAsked({ id, action: 'resume' }));
  }
}
