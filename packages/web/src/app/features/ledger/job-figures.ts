import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { signalStore } from '@ngrx/signals';
import { sum } from 'd3-array';
import { forkJoin } from 'rxjs';
import { valueOf, withAsked } from '../../state/asked';
import { CountPipe } from '../../ui/count';
import { Status } from '../../ui/status/status';
import { NextValidChart } from './next-valid';
import { YieldBySource } from './yield-by-source';

/** `spent` has them asked anew. */
const FiguresStore = signalStore(
  withAsked((api, { jobId }: { jobId: number; spent: number }) =>
    forkJoin({ said: api.nextValid(jobId), rates: api.hitRates(jobId) }),
  ),
);

/** Of one job: what the next valid email costs, and which source yields how much. */
@Component({
  selector: 'cs-job-figures',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CountPipe, NextValidChart, Status, YieldBySource],
  providers: [FiguresStore],
  template: `
    @if (figures(); as figures) {
      @if (got() > 0 || figures.said.next.length > 0) {
        <div class="card">
          <p class="legend">
            <b>The next valid email costs</b
            ><span class="of" [title]="job().name"
              ><b>{{ nextWords() }}</b> · {{ job().name }}: {{ got() | count }} of
              {{ figures.said.target | count }}</span
            >
          </p>
          <cs-next-valid [said]="figures.said" [sourceCents]="sourceCents()" [nameOf]="nameOf()" [price]="price()" />
        </div>
        <div class="card">
          <p class="legend"><b>Yield by source</b><span class="of">valid of those looked up, 95 % interval</span></p>
          <cs-yield-by-source [rates]="figures.rates" />
        </div>
      }
    }
    <cs-status [request]="store.asked()" what="what the next valid email costs" />
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
      gap: 0 14px;
    }
    @media (width < 1200px) {
      :host {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    .of {
      flex: 1 1 0;
      min-width: 120px;
      overflow: hidden;
      color: var(--ink-2);
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  styleUrl: './cards.scss',
})
export class JobFigures {
  protected readonly store = inject(FiguresStore);
  readonly job = input.required<{ jobId: number; name: string; spentCents: number }>();
  readonly nameOf = input.required<(who: string) => string>();
  readonly price = input.required<(eachCents: number) => string>();
  protected readonly figures = computed(() => valueOf(this.store.asked()));
  protected readonly got = computed(() => sum(this.figures()?.said.got ?? [], ({ count }) => count));
  protected readonly sourceCents = computed(() => {
    const each = this.figures()?.rates.flatMap(({ eachCents }) => eachCents?.likely ?? []) ?? [];
    return each.length > 0 ? Math.min(...each) : null;
  });
  protected readonly nextWords = computed(() => {
    const next = this.figures()?.said.next.find(({ count }) => count >= 0.5);
    const cents = next ? next.eachCents : this.sourceCents();
    if (cents === null) return 'not known yet';
    return `likely ${cents > 0 ? this.price()(cents) : 'nothing'}${next ? '' : ', of rows to bring in'}`;
  });

  constructor() {
    const asked = computed(() => ({ jobId: this.job().jobId, spent: this.job().spentCents }), {
      equal: (a, b) => a.jobId === b.jobId && a.spent === b.spent,
    });
    this.store.load(asked);
  }
}
