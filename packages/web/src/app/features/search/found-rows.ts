import { ChangeDetectionStrategy, Component, effect, ElementRef, inject, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Router } from '@angular/router';
import type { Search } from '@sieve/core/model/search';
import { companyConditions } from '@sieve/core/search/like';
import { printSearch } from '@sieve/core/search/print';
import { postingAge } from '@sieve/core/search/posting-age';
import type { DirectoryRow } from '@sieve/contract';
import { Decisions } from '../../state/decisions';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { SearchStore } from './search-store';

/** The rows of a search, page by page: marked with Space, picked onto a list, led on to more like them. */
@Component({
  selector: 'cs-found-rows',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, MatMenuModule, Icon],
  templateUrl: './found-rows.html',
  styleUrl: './found-rows.scss',
})
export class FoundRows {
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly decisions = inject(Decisions);
  private readonly dialog = inject(MatDialog);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly store = inject(SearchStore);
  protected readonly marked = signal<ReadonlySet<string>>(new Set());
  protected readonly at = signal(0);
  /** The list that rows were put on last. */
  private pickedTo: number | null = null;

  protected ageOf = ({ found }: DirectoryRow) => postingAge(Number(found['age']));
  protected ageWords(row: DirectoryRow): string {
    const days = Number(row.found['age']);
    const age = days < 1 ? 'today' : days === 1 ? '1 day old' : `${days} days old`;
    return { fresh: `${age}, fresh`, usual: age, stale: `${age}, stale` }[this.ageOf(row)];
  }

  constructor() {
    inject(Shortcuts).use({
      j: () => this.step(1),
      k: () => this.step(-1),
      arrowdown: () => this.step(1),
      arrowup: () => this.step(-1),
      space: (event) => this.markHere(event),
      'ctrl+z': () => this.unpick(),
    });
    effect(() => {
      if (this.store.count() !== null && this.store.page() === null) untracked(() => this.show(1));
    });
  }

  protected show(page: number) {
    this.at.set(0);
    this.marked.set(new Set());
    this.store.askPage(page);
  }

  protected mark({ id }: DirectoryRow) {
    this.marked.update((marked) => {
      const next = new Set(marked);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  protected markPage(which: 'all' | 'new' | 'none') {
    const rows = which === 'none' ? [] : (this.store.page()?.rows ?? []);
    this.marked.set(new Set(rows.filter(({ held }) => which === 'all' || !held).map(({ id }) => id)));
  }

  private markedRows(): DirectoryRow[] {
    return (this.store.page()?.rows ?? []).filter(({ id }) => this.marked().has(id));
  }

  /** @param most the first so many of the result; null for the marked rows */
  protected async pick(most: number | null, onlyNew = false) {
    const { PickDialog } = await import('./pick-dialog');
    const page = this.store.pageAt();
    const ids = most === null ? [...this.marked()] : null;
    const body = { search: this.store.search(), page, ids, most: most ?? 0, onlyNew };
    this.dialog
      .open(PickDialog, { width: '460px', data: { about: this.store.search().about, body } })
      .afterClosed()
      .subscribe((list: number | undefined) => {
        this.pickedTo = list ?? this.pickedTo;
        this.show(page);
      });
  }

  /** Takes the last pick from here back. */
  private unpick(): boolean {
    const subjectId = this.pickedTo;
    if (subjectId === null) return false;
    this.pickedTo = null;
    this.decisions.undo({ subject: 'pick-list', subjectId }, () => this.show(this.store.pageAt()));
    return true;
  }

  /** From companies or postings to the people in them, or to the companies themselves. */
  protected goTo(about: 'people' | 'companies') {
    const rows = this.marked().size > 0 ? this.markedRows() : (this.store.page()?.rows ?? []);
    const [condition] = companyConditions(rows.map(({ company }) => company));
    if (condition) this.open({ about, conditions: [condition] });
  }

  protected async more() {
    const rows = this.markedRows();
    if (rows.length === 0) return this.notices.say('Mark one or several good rows first, with Space.');
    const { LikeDialog } = await import('./like-dialog');
    const data = { about: this.store.search().about, rows: rows.map(({ found }) => found) };
    this.dialog
      .open(LikeDialog, { width: '520px', data })
      .afterClosed()
      .subscribe((search: Search | undefined) => search && this.open(search));
  }

  private open(search: Search) {
    void this.router.navigate(['/search/new'], { queryParams: { q: printSearch(search) } });
  }

  /** @returns false when there is no row to go to */
  private step(by: number): boolean {
    const last = (this.store.page()?.rows.length ?? 0) - 1;
    if (last < 0) return false;
    this.at.update((at) => Math.max(0, Math.min(last, at + by)));
    this.host.nativeElement.querySelectorAll('tr.row')[this.at()]?.scrollIntoView({ block: 'nearest' });
    return true;
  }

  private markHere({ target }: KeyboardEvent): boolean {
    const row = this.store.page()?.rows[this.at()];
    if (!row || (target as HTMLElement).tagName === 'BUTTON') return false;
    this.mark(row);
    return true;
  }
}
