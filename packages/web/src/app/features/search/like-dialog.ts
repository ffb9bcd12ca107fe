import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Search } from '@sieve/core';
import { describeCondition } from '@sieve/core/search/describe';
import type { DirectoryRow, LikeView } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { EMPTY, map } from 'rxjs';
import { valueOf, withAsked } from '../../state/asked';
import { CountPipe } from '../../ui/count';
import { Status } from '../../ui/status/status';

interface LikeData {
  about: 'people' | 'companies';
  rows: DirectoryRow['found'][];
}

const LikesStore = signalStore(withAsked((api, { about, rows }: LikeData) => api.like(about, rows)));
const CountStore = signalStore(
  withAsked((api, search: Search) =>
    search.conditions.length === 0 ? EMPTY : api.countSearch(search).pipe(map(({ count }) => ({ search, count }))),
  ),
);

/** From good examples to a search for more like them: what they share, each with how many have it. */
@Component({
  selector: 'cs-like-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, CountPipe, Status],
  providers: [LikesStore, CountStore],
  template: `
    <h2 mat-dialog-title>More like {{ data.rows.length === 1 ? 'this one' : 'these ' + data.rows.length }}</h2>
    <mat-dialog-content>
      @if (likes(); as found) {
        @for (like of found; track $index) {
          <label>
            <input type="checkbox" [checked]="chosen().has($index)" (change)="toggle($index)" />
            <span>{{ words(like) }}</span>
            <small>{{ data.rows.length > 1 ? like.shared + ' of ' + like.of + ' · ' : '' }}</small>
            <span class="num">{{ like.count | count }}</span>
          </label>
        } @empty {
          <p>They have nothing in common that can be searched for.</p>
        }
        <p class="all">
          All that is chosen together: <b class="num">{{ count() === null ? '…' : (count() | count) }}</b>
        </p>
      }
      <cs-status [request]="request()" what="what they share" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Close</button>
      <button mat-flat-button [disabled]="chosen().size === 0" (click)="dialog.close(search())">Search</button>
    </mat-dialog-actions>
  `,
  styles: `
    label {
      display: grid;
      grid-template-columns: 22px minmax(0, 1fr) auto auto;
      gap: 8px;
      padding: 6px 0;
      border-bottom: 1px solid var(--line-soft);
    }
    small {
      color: var(--ink-3);
    }
    input {
      accent-color: var(--spruce);
    }
    .all {
      margin-top: 10px;
      text-align: right;
    }
  `,
})
export class LikeDialog {
  private readonly likesStore = inject(LikesStore);
  private readonly counts = inject(CountStore);
  protected readonly dialog = inject(MatDialogRef<LikeDialog, Search>);
  protected readonly data = inject<LikeData>(MAT_DIALOG_DATA);
  protected readonly request = this.likesStore.asked;
  protected readonly likes = computed(() => valueOf(this.request()));
  /** The first three, until something is chosen. */
  protected readonly chosen = linkedSignal<ReadonlySet<number>>(() => new Set((this.likes() ?? []).slice(0, 3).keys()));
  protected readonly count = computed(() => {
    const counted = valueOf(this.counts.asked());
    return counted?.search === this.search() ? counted.count : null;
  });
  protected readonly words = ({ condition }: LikeView) => describeCondition(condition);
  protected readonly search = computed<Search>(() => ({
    about: this.data.about,
    conditions: (this.likes() ?? []).filter((_, i) => this.chosen().has(i)).map(({ condition }) => condition),
  }));

  constructor() {
    this.likesStore.load(this.data);
    this.counts.load(this.search);
  }

  protected toggle(at: number) {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(at)) next.add(at);
      return next;
    });
  }
}
