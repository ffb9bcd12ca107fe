import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { valueOf } from '../../state/request';
import { CountPipe } from '../../ui/count';
import { COMPANIES_A_PAGE, CompaniesStore } from './companies-store';

/** The companies of a job: what searches brought, each once, and how many of the job's contacts work there. */
@Component({
  selector: 'cs-companies-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe],
  providers: [CompaniesStore],
  templateUrl: './companies-list.html',
  styleUrl: './companies-list.scss',
})
export class CompaniesList {
  private readonly store = inject(CompaniesStore);
  readonly jobId = input.required<number>();
  readonly version = input(0);
  protected readonly q = signal('');
  protected readonly offset = linkedSignal({ source: this.q, computation: () => 0 });
  protected readonly pageSize = COMPANIES_A_PAGE;
  protected readonly page = computed(() => valueOf(this.store.page()));
  protected readonly problem = computed(() => {
    const page = this.store.page();
    return page.status === 'failed' ? page.words : '';
  });

  constructor() {
    this.store.load(
      computed(() => ({ jobId: this.jobId(), q: this.q(), offset: this.offset(), version: this.version() })),
    );
  }

  protected place(company: { city: string; region: string; country: string }): string {
    return [company.city, company.region, company.country].filter(Boolean).join(', ');
  }
}
