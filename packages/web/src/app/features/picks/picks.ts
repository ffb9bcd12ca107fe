import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  numberAttribute,
  linkedSignal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { companyConditions } from '@sieve/core/search/like';
import { printSearch } from '@sieve/core/search/print';
import type { DirectoryRow } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { valueOf, withAsked, withLoaded } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { work } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { Status } from '../../ui/status/status';
import { FilterBox, holds } from '../../ui/filter-box';
import { JobSelect } from '../../ui/job-select';

const PicksStore = signalStore(withAsked((api, list: number) => api.picks(list)));
const PickListsStore = signalStore(withLoaded((api) => api.pickLists()));

/** A pick list: rows picked over many searches, on their way to a job. */
@Component({
  selector: 'cs-picks',
  host: { class: 'page' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [JobSelect, FilterBox, RouterLink, MatButtonModule, Icon, CountPipe, Status],
  providers: [PicksStore, PickListsStore],
  template: `
    @if (rows()) {
      <header>
        <div>
          <h1>{{ list()?.name }}</h1>
          <p>
            <span class="num">{{ rows()?.length | count }}</span> {{ list()?.about }} picked ·
            <a routerLink="/search">all searches</a>
          </p>
        </div>
        @for (part of companies(); track $index) {
          <a mat-stroked-button routerLink="/search/new" [queryParams]="{ q: part.q }">{{ part.words }}</a>
        }
        @if (rows()?.length) {
          <a mat-stroked-button [href]="'/api/pick-lists/' + id() + '/file'" download
            ><cs-icon name="export" /> Export</a
          >
        }
        <cs-filter-box label="Filter the rows" [q]="q()" />
        <cs-job-select label="Job" [value]="jobId()" [disabled]="!rows()?.length" (picked)="jobId.set($event)" />
        <button
          mat-flat-button
          type="button"
          [disabled]="!rows()?.length || jobId() === null"
          (click)="toJob(jobId()!)"
        >
          Add to the job
        </button>
      </header>
      <table class="lines">
        <tbody>
          @for (row of shown(); track row.id) {
            <tr>
              <td>
                <b>{{ row.name }}</b>
              </td>
              <td>{{ row.title || row.found['sector'] }}</td>
              <td>{{ list()?.about === 'companies' ? '' : row.company }}</td>
              <td class="dim">{{ row.place }}</td>
              <td class="r">
                <button
                  mat-button
                  type="button"
                  [attr.aria-label]="'Take ' + row.name + ' off the list'"
                  (click)="off(row)"
                >
                  <cs-icon name="close" />
                </button>
              </td>
            </tr>
          } @empty {
            <tr>
              <td class="dim">Nothing is picked yet. Mark rows of a search with Space and pick them.</td>
            </tr>
          }
        </tbody>
      </table>
    }
    <cs-status [request]="request()" what="the picks" />
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 10px;
      margin-bottom: 12px;
    }
    header div {
      flex: 1;
    }
    h1 {
      font-size: 22px;
    }
    p,
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class Picks {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  protected readonly jobs = inject(Store).selectSignal(work.selectAllJobs);
  /** The newest job, until another is chosen. */
  protected readonly jobId = linkedSignal(() => this.jobs()[0]?.id ?? null);
  readonly id = input.required<number, unknown>({ transform: numberAttribute });
  private readonly picks = inject(PicksStore);
  private readonly pickLists = inject(PickListsStore);
  protected readonly request = this.picks.asked;
  protected readonly rows = computed(() => valueOf(this.request()));
  readonly q = input<string>();
  protected readonly shown = computed(() =>
    (this.rows() ?? []).filter((row) => holds(this.q(), row.name, row.title, row.company, row.place)),
  );
  private readonly lists = computed(() => valueOf(this.pickLists.asked()) ?? []);
  protected readonly list = computed(() => this.lists().find(({ id }) => id === this.id()));
  /** Searches for the people in the companies: one condition holds 500 names, so long lists have several. */
  protected readonly companies = computed(() => {
    if (this.list()?.about === 'people') return [];
    const parts = companyConditions((this.rows() ?? []).map(({ company }) => company));
    let from = 1;
    return parts.map((condition) => {
      const to = from + ('terms' in condition ? condition.terms.length : 0) - 1;
      const words = parts.length === 1 ? 'People in them' : `People in ${from}–${to}`;
      from = to + 1;
      return { words, q: printSearch({ about: 'people', conditions: [condition] }) };
    });
  });

  constructor() {
    this.picks.load(this.id);
    this.pickLists.load();
    const subject = () => ({ subject: 'pick-list', subjectId: this.id() }) as const;
    const again = () => this.picks.load(this.id());
    const decisions = inject(Decisions);
    inject(Shortcuts).use({
      'ctrl+z': () => decisions.undo(subject(), again),
      'ctrl+shift+z': () => decisions.redo(subject(), again),
    });
  }

  protected off(row: DirectoryRow) {
    this.doing.run(this.api.unpick(this.id(), row.id), () =>
      this.picks.change((rows) => rows.filter(({ id }) => id !== row.id)),
    );
  }

  protected toJob(jobId: number) {
    this.doing.run(this.api.picksToJob(this.id(), jobId), ({ rows }) => {
      this.notices.say(`${rows} rows added; take them back in the job with Ctrl Z`);
      void this.router.navigate(['/jobs', jobId]);
    });
  }
}
