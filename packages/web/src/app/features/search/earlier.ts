import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { printSearch } from '@sieve/core/search/print';
import type { EarlierBatches } from '@sieve/contract';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { Icon } from '../../ui/icon/icon';
import { whenWords } from '../../ui/when';
import { SearchStore } from './search-store';

/** Batches that the search had before: changed conditions and new splits take them away, here they come back. */
@Component({
  selector: 'cs-earlier',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, MatMenuModule, Icon],
  template: `
    <button mat-button type="button" [matMenuTriggerFor]="menu" (menuOpened)="load()">
      <cs-icon name="history" /> Earlier batches
    </button>
    <mat-menu #menu>
      @for (one of earlier() ?? []; track one.decision) {
        <button mat-menu-item (click)="store.restore(one.decision)">
          {{ words(one) }}
        </button>
      } @empty {
        <p class="none" role="status">{{ earlier() ? 'It had no others yet.' : 'Looking…' }}</p>
      }
    </mat-menu>
  `,
  styles: `
    .none {
      padding: 6px 14px;
      color: var(--ink-2);
    }
  `,
})
export class Earlier {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  protected readonly store = inject(SearchStore);
  protected readonly earlier = signal<EarlierBatches[] | null>(null);
  private readonly now = computed(() => this.store.text());

  protected load() {
    const id = this.store.saved()?.id;
    if (id !== undefined) this.doing.run(this.api.earlierBatches(id), (earlier) => this.earlier.set(earlier));
  }

  protected words({ at, batches, search }: EarlierBatches): string {
    const text = printSearch(search);
    const of = text === this.now() ? 'of these conditions' : `of ${text}`;
    return `${batches} ${batches === 1 ? 'batch' : 'batches'} until ${whenWords(at)}, ${of}`;
  }
}
