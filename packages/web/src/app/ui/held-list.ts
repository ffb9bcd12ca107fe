import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { HeldContact } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { work } from '../state/work';
import { whenWords } from './when';

const FATE_WORDS: Record<HeldContact['fate'], string> = {
  pass: 'passes',
  aside: 'set aside',
  look: 'wants a look',
  waits: 'waits',
};

/** People who are held, with the job, where they stand there and when they left. */
@Component({
  selector: 'cs-held-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <table class="lines">
      <thead>
        <tr>
          <th>Who</th>
          <th>Title</th>
          <th>Firm</th>
          <th>Address</th>
          <th>Job</th>
          <th>Exported</th>
        </tr>
      </thead>
      <tbody>
        @for (one of contacts(); track one.jobId + ' ' + one.contact) {
          <tr>
            <td>
              <a
                [routerLink]="['/jobs', one.jobId]"
                [queryParams]="{ step: one.step, fate: one.fate, row: one.contact }"
                >{{ one.name || one.email }}</a
              >
            </td>
            <td>{{ one.title }}</td>
            <td>{{ one.company }}</td>
            <td class="mono">{{ one.email }}</td>
            <td>{{ jobNames()[one.jobId] }}, {{ fates[one.fate] }}</td>
            <td>{{ one.exportedAt ? when(one.exportedAt) : 'never' }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
})
export class HeldList {
  private readonly jobs = inject(Store).selectSignal(work.selectAllJobs);
  readonly contacts = input.required<readonly HeldContact[]>();
  protected readonly fates = FATE_WORDS;
  protected readonly when = whenWords;
  protected readonly jobNames = computed(() => Object.fromEntries(this.jobs().map(({ id, name }) => [id, name])));
}
