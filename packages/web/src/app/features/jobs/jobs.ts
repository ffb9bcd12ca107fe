import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { work } from '../../state/work';
import { byFolder } from '../../ui/by-folder';
import { CountPipe } from '../../ui/count';
import { FilterBox, holds } from '../../ui/filter-box';
import { forWhom } from '../../ui/for-whom';
import { Icon } from '../../ui/icon/icon';
import { MoneyPipe } from '../../ui/money';

/** All jobs by folder. */
@Component({
  selector: 'cs-jobs',
  host: { class: 'page' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, CountPipe, MoneyPipe, FilterBox],
  template: `
    <header>
      <h1>Jobs</h1>
      <cs-filter-box label="Filter the jobs" [q]="q()" />
      <button mat-flat-button type="button" (click)="newJob()"><cs-icon name="plus" /> New job</button>
    </header>
    @for (folder of folders(); track folder.name) {
      <h2><cs-icon name="folder" /> {{ folder.name || 'No folder' }}</h2>
      <table class="lines">
        <thead>
          <tr>
            <th>Name</th>
            <th>For</th>
            <th class="r">Records</th>
            <th class="r">Valid</th>
            <th class="r">Target</th>
            <th class="r">Spent</th>
            <th class="r">Budget</th>
          </tr>
        </thead>
        <tbody>
          @for (job of folder.items; track job.id) {
            <tr>
              <td>
                <a [routerLink]="['/jobs', job.id]">{{ job.name }}</a>
              </td>
              <td class="dim">{{ forWhom(job) }}</td>
              <td class="r num">{{ job.summary?.records | count }}</td>
              <td class="r num">{{ job.summary?.verdicts?.valid | count }}</td>
              <td class="r num">{{ job.targetValid | count }}</td>
              <td class="r num">{{ job.spentCents | money }}</td>
              <td class="r num">{{ job.budgetCents | money }}</td>
            </tr>
          }
        </tbody>
      </table>
    } @empty {
      <p class="dim">
        {{ q() ? 'No job is named so.' : 'No job yet. A job takes your lists from raw rows to verified contacts.' }}
      </p>
    }
  `,
  styles: `
    header {
      display: flex;
      gap: 10px;
      margin-bottom: 6px;
    }
    h1 {
      flex: 1;
      font-size: 22px;
    }
    h2 {
      font-size: 14px;
      margin: 18px 0 7px;
    }
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class Jobs {
  private readonly dialog = inject(MatDialog);
  private readonly jobs = inject(Store).selectSignal(work.selectAllJobs);
  protected readonly forWhom = forWhom;
  /** Set by the address: opens the dialog at once. */
  readonly new = input<string>();
  readonly q = input<string>();
  protected readonly folders = computed(() =>
    byFolder(this.jobs().filter((job) => holds(this.q(), job.name, job.client, job.folder, job.note))),
  );

  constructor() {
    effect(() => {
      if (this.new()) void this.newJob();
    });
  }

  protected async newJob() {
    const { BriefDialog } = await import('../../ui/brief-dialog');
    this.dialog.open(BriefDialog, { width: '480px', data: null });
  }
}
