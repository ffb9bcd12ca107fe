import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Job } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { work } from '../state/work';
import { Select } from './select/select';

const NEW = 0;

/** Where something goes: one of the jobs, or a new one that is made here. */
@Component({
  selector: 'cs-job-select',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Select],
  template: `
    <cs-select
      placeholder="choose a job…"
      [label]="label()"
      [options]="options()"
      [value]="value()"
      [disabled]="disabled()"
      (picked)="pick($event)"
    />
  `,
})
export class JobSelect {
  private readonly dialog = inject(MatDialog);
  private readonly jobs = inject(Store).selectSignal(work.selectAllJobs);
  readonly label = input.required<string>();
  readonly value = input<number | null>(null);
  readonly disabled = input(false);
  readonly picked = output<number>();
  protected readonly options = computed(() => [
    ...this.jobs().map(({ id, name }) => ({ value: id, label: name })),
    { value: NEW, label: 'New job…' },
  ]);

  protected async pick(id: number) {
    if (id !== NEW) return this.picked.emit(id);
    const { BriefDialog } = await import('./brief-dialog');
    this.dialog
      .open<unknown, unknown, Job>(BriefDialog, { width: '480px', data: 'chosen' })
      .afterClosed()
      .subscribe((job) => job && this.picked.emit(job.id));
  }
}
