import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { printSearch } from '@sieve/core/search/print';
import type { SearchRow } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { valueOf, withLoaded } from '../../state/asked';
import { byFolder } from '../../ui/by-folder';
import { CountPipe } from '../../ui/count';
import { FilterBox, holds } from '../../ui/filter-box';
import { Icon } from '../../ui/icon/icon';
import { Status } from '../../ui/status/status';
import { whenWords } from '../../ui/when';

const SearchesStore = signalStore(withLoaded((api) => api.searches()));
const PickListsStore = signalStore(withLoaded((api) => api.pickLists()));

/** All saved searches by folder, and the pick lists. */
@Component({
  selector: 'cs-searches',
  host: { class: 'page' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, CountPipe, Status, FilterBox],
  providers: [SearchesStore, PickListsStore],
  templateUrl: './searches.html',
  styleUrl: './searches.scss',
})
export class Searches {
  private readonly store = inject(SearchesStore);
  private readonly pickLists = inject(PickListsStore);
  protected readonly request = this.store.asked;
  protected readonly searches = computed(() => valueOf(this.request()));
  readonly q = input<string>();
  protected readonly lists = computed(() =>
    (valueOf(this.pickLists.asked()) ?? []).filter(({ name }) => holds(this.q(), name)),
  );
  protected readonly folders = computed(() =>
    byFolder(
      (this.searches() ?? []).filter((search) => holds(this.q(), search.name, search.folder, this.text(search))),
    ),
  );
  protected readonly text = ({ search }: SearchRow) => printSearch(search);
  protected readonly when = whenWords;

  constructor() {
    this.store.load();
    this.pickLists.load();
  }
}
