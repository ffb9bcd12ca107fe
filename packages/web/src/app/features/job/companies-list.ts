import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { valueOf } from '../../state/asked';
import { CountPipe } from '../../ui/count';
import { FilterBox } from '../../ui/filter-box';
import { Pager } from '../../ui/pager';
import { Status } from '../../ui/status/status';
import { COMPANIES_A_PAGE, CompaniesStore } from './companies-store';

/** The companies of a job: what searches brought, each once, and how many of the job's contacts work there. */
@Component({
  selector: 'cs-companies-list',
  host: { class: 'pane-middle' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CountPipe, FilterBox, Pager, Status],
  providers: [CompaniesStore],
  templateUrl: './companies-list.html',
  styleUrl: './companies-list.scss',
})
export class CompaniesList {
  private readonly store = inject(CompaniesStore);
  readonly jobId = input.required<number>();
  readonly q = input('');
  readonly version = input(0);
  protected readonly offset = linkedSignal({ source: this.q, computation: () => 0 });
  protected readonly pageSize = COMPANIES_A_PAGE;
  protected readonly request = this.store.asked;
  protected readonly page = computed(() => valueOf(this.request()));

  constructor() {
    this.store.load(
      computed(() => ({ jobId: this.jobId(), q: this.q(), offset: this.offset(), version: this.version() })),
    );
  }

  protected place(company: { city: string; region: string; country: string }): string {
    return [company.city, company.region, company.country].filter(Boolean).join(', ');
  }
}
