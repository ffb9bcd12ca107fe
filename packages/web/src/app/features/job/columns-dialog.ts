import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Column } from '@sieve/core/model/target';
import type { SourceRow } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { ColumnsTable } from '../../ui/columns/columns-table';
import { Status } from '../../ui/status/status';

const ColumnsStore = signalStore(
  withAsked((api, { jobId, sourceId }: { jobId: number; sourceId: number }) => api.sourceColumns(jobId, sourceId)),
);

/** How the columns of a source are read, after it came in: a decision that holds for the rows that come later too. */
@Component({
  selector: 'cs-columns-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, ColumnsTable, Status],
  providers: [ColumnsStore],
  template: `
    <h2 mat-dialog-title>Columns of {{ source.name }}</h2>
    <mat-dialog-content>
      <p>
        The rows stay as they came; they are tidied and sifted anew. Rows that come later, and the next table with these
        headings, are read so too.
      </p>
      @if (found(); as found) {
        <cs-columns-table [found]="found" [columns]="columns()" (changed)="columns.set($event)" />
      }
      <cs-status [request]="request()" what="the columns" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Close</button>
      <button mat-flat-button type="button" [disabled]="!isChanged()" (click)="use()">Read them so</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      margin: 0 0 10px;
      color: var(--ink-2);
    }
  `,
})
export class ColumnsDialog {
  private readonly store = inject(ColumnsStore);
  private readonly decisions = inject(Decisions);
  private readonly dialog = inject(MatDialogRef<ColumnsDialog>);
  private readonly data = inject<{ jobId: number; source: SourceRow }>(MAT_DIALOG_DATA);
  protected readonly source = this.data.source;
  protected readonly request = this.store.asked;
  protected readonly found = computed(() => valueOf(this.request()));
  protected readonly columns = linkedSignal<readonly Column[]>(() => this.found()?.mapping ?? []);
  protected readonly isChanged = computed(
    () => JSON.stringify(this.columns()) !== JSON.stringify(this.found()?.mapping ?? []),
  );

  constructor() {
    this.store.load({ jobId: this.data.jobId, sourceId: this.source.id });
  }

  protected use() {
    const columns = this.columns().map((column) => ({ ...column }));
    this.decisions.decide(this.data.jobId, { kind: 'columns', sourceId: this.source.id, columns }, () =>
      this.dialog.close(),
    );
  }
}
