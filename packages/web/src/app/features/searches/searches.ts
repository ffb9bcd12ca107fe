import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { printSearch } from '@sieve/core/search/print';
import type { PickList, SearchRow } from '@sieve/contract';
import { Api, wordsOf } from '../../api/api';
import { byFolder } from '../../ui/by-folder';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { whenWords } from '../../ui/when';

/** All saved searches by folder, and the pick lists. */
@Component({
  selector: 'cs-searches',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, CountPipe],
  templateUrl: './searches.html',
  styleUrl: './searches.scss',
})
export class Searches {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  protected readonly searches = signal<SearchRow[] | null>(null);
  protected readonly lists = signal<PickList[]>([]);
  protected readonly folders = computed(() => byFolder(this.searches() ?? []));
  protected readonly text = ({ search }: SearchRow) => printSearch(search);
  protected readonly when = whenWords;

  constructor() {
    const error = (thrown: unknown) => {
      this.searches.update((known) => known ?? []);
      this.notices.bad(wordsOf(thrown));
    };
    this.api.searches().subscribe({ next: (searches) => this.searches.set(searches), error });
    this.api.pickLists().subscribe({ next: (lists) => this.lists.set(lists), error });
  }
}
