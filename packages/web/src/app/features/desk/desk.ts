import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import type { Job } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { catchError, of } from 'rxjs';
import { Api } from '../../api/api';
import { work } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { JobMeter } from '../../ui/job-meter';
import { sieveLevels } from '../../ui/levels';
import { MoneyPipe } from '../../ui/money';
import { RunLine } from '../../ui/run-line';
import { SieveShape } from '../../ui/sieve-shape';
import { whenWords } from '../../ui/when';
import { SpendChart } from './spend-chart';

/** The jobs with how far each is, what waits for a person, what runs, what was spent. */
@Component({
  selector: 'cs-desk',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, JobMeter, SieveShape, RunLine, CountPipe, MoneyPipe, SpendChart],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
})
export class Desk {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  protected readonly jobs = this.store.selectSignal(work.selectAllJobs);
  protected readonly loaded = this.store.selectSignal(work.selectLoaded);
  protected readonly running = this.store.selectSignal(work.selectLiveRuns);
  protected readonly day = signal(new Date().toLocaleDateString('en-GB', { weekday: 'long' }));
  protected readonly month = new Date().toLocaleDateString('en-GB', { month: 'long' });
  private readonly searches = toSignal(this.api.searches().pipe(catchError(() => of([]))), { initialValue: [] });
  protected readonly standing = computed(() => this.searches().filter(({ nextAt }) => nextAt !== null));
  protected readonly when = whenWords;
  protected readonly spend = toSignal(this.api.spend().pipe(catchError(() => of([]))), { initialValue: [] });
  protected readonly spentThisMonth = computed(() => {
    const month = new Date().toISOString().slice(0, 7);
    return this.spend()
      .filter(({ day }) => day.startsWith(month))
      .reduce((sum, { cents }) => sum + cents, 0);
  });
  protected readonly levels = sieveLevels;
  protected readonly waits = computed(() =>
    this.jobs().flatMap((job) => {
      if (!job.summary) return [];
      const { pairs, steps } = job.summary;
      return [
        {
          icon: 'merge' as const,
          count: pairs,
          what: pairs === 1 ? 'pair to judge' : 'pairs to judge',
          job,
          link: ['/jobs', job.id, 'judge'],
          query: {},
        },
        {
          icon: 'eye' as const,
          count: steps.screen.look,
          what: steps.screen.look === 1 ? 'row wants a look' : 'rows want a look',
          job,
          link: ['/jobs', job.id],
          query: { step: 'screen', fate: 'look' },
        },
        {
          icon: 'mail' as const,
          count: steps.verify.waits,
          what: 'addresses to verify',
          job,
          link: ['/jobs', job.id],
          query: { step: 'verify', fate: 'waits' },
        },
        {
          icon: 'search' as const,
          count: steps.append.waits,
          what: 'people without an address',
          job,
          link: ['/jobs', job.id],
          query: { step: 'append', fate: 'waits' },
        },
      ].filter(({ count }) => count > 0);
    }),
  );

  protected nextStep({ summary, targetValid }: Job): string {
    if (!summary || summary.records === 0) return 'Bring in a file to begin';
    const parts: string[] = [];
    if (summary.pairs > 0) parts.push(`${summary.pairs} ${summary.pairs === 1 ? 'pair' : 'pairs'} to judge`);
    if (summary.steps.screen.look > 0)
      parts.push(`${summary.steps.screen.look} ${summary.steps.screen.look === 1 ? 'row wants' : 'rows want'} a look`);
    if (parts.length > 0) return parts.join(' · ');
    if (summary.steps.append.waits > 0) return `${summary.steps.append.waits} people without an address`;
    if (targetValid > 0 && summary.verdicts.valid >= targetValid) return 'Target reached: ready to export';
    return `${summary.verdicts.valid} ready to export`;
  }

  protected async newJob() {
    const { NewJobDialog } = await import('../../ui/new-job');
    this.dialog.open(NewJobDialog, { width: '460px' });
  }
}
