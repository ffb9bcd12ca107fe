import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { CountPipe } from '../../ui/count';
import { SearchStore } from './search-store';

/** Rows drawn at random over the whole result: who would come, and what lets the misfits in. */
@Component({
  selector: 'cs-sample-pane',
  host: { class: 'pane-right padded' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe],
  templateUrl: './sample-pane.html',
  styleUrl: './sample-pane.scss',
})
export class SamplePane {
  protected readonly store = inject(SearchStore);
  protected readonly expected = computed(() => {
    const promised = this.store.sample()?.promised;
    const n = (value: number) => value.toLocaleString('en-GB');
    return promised ? `expect ${n(promised.likely)}, between ${n(promised.low)} and ${n(promised.high)}` : '';
  });
}
