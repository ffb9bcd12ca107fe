import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { batchesIn, readSheet } from './batch-sheet';
import { SearchStore } from './search-store';
import { Select } from '../../ui/select/select';

/** Batches written by hand, one a line, or pasted as rows of a sheet. */
@Component({
  selector: 'cs-by-hand',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Select, MatButtonModule],
  template: `
    <p>
      One batch a line, or rows copied from a spreadsheet with a search in one of the columns. What is missing and what
      is counted twice is said at once.
    </p>
    <textarea
      #hand
      rows="8"
      aria-label="Batches, one a line"
      [value]="lines()"
      (input)="text.set(hand.value)"
    ></textarea>
    @if (sheet().columns.length > 1) {
      <div class="columns">
        <span class="named"
          >Searches are in
          <cs-select
            label="Column of the searches"
            [options]="columnOptions()"
            [value]="searchColumn()"
            (picked)="searchColumn.set($event)"
        /></span>
        <span>Keep with each row that comes:</span>
        @for (name of sheet().columns; track $index) {
          @if ($index !== searchColumn()) {
            <label><input type="checkbox" [checked]="kept().has($index)" (change)="toggle($index)" /> {{ name }}</label>
          }
        }
      </div>
    }
    @if (problem()) {
      <p class="bad" role="alert">{{ problem() }}</p>
    }
    <div class="acts">
      <button mat-flat-button type="button" [disabled]="sheet().rows.length === 0" (click)="use()">
        Use these batches
      </button>
      <button mat-button type="button" (click)="done.emit()">Back</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 9px;
    }
    textarea {
      width: 100%;
      padding: 8px 10px;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--flour);
      color: var(--ink);
      font: 12.5px/1.5 var(--mono);
      resize: vertical;
    }
    .columns,
    .acts,
    label {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 12px;
    }
    label {
      gap: 5px;
    }
    p,
    span {
      color: var(--ink-2);
    }
  `,
})
export class ByHand {
  private readonly store = inject(SearchStore);
  /** The batches as they are. */
  readonly lines = input.required<string>();
  readonly done = output();
  protected readonly text = linkedSignal(() => this.lines());
  protected readonly sheet = computed(() => readSheet(this.text()));
  protected readonly columnOptions = computed(() => this.sheet().columns.map((label, value) => ({ value, label })));
  protected readonly searchColumn = linkedSignal(() => this.sheet().searchColumn);
  protected readonly kept = signal<ReadonlySet<number>>(new Set());
  protected readonly problem = signal('');

  protected toggle(column: number) {
    this.kept.update((kept) => {
      const next = new Set(kept);
      if (!next.delete(column)) next.add(column);
      return next;
    });
  }

  protected use() {
    const { batches, problem } = batchesIn(this.sheet(), this.searchColumn(), this.kept(), this.store.search());
    this.problem.set(problem);
    if (problem === '') this.store.setBatches(batches, () => this.done.emit());
  }
}
