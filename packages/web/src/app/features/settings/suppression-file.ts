import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { Column } from '@sieve/core/model/target';
import type { Inspection } from '@sieve/contract';
import { ColumnsTable } from '../../ui/columns/columns-table';

/** Which columns of a file say who is to be suppressed; closes with them. */
@Component({
  selector: 'cs-suppression-file',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, ColumnsTable],
  template: `
    <h2 mat-dialog-title>Who is named in {{ found.name }}</h2>
    <mat-dialog-content>
      <p>
        An address, a phone, a profile link, a name with its company, a domain or a company’s name: whatever a row says.
      </p>
      <cs-columns-table [found]="found" [columns]="columns()" (changed)="columns.set($event)" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Close</button>
      <button mat-flat-button type="button" cdkFocusInitial [mat-dialog-close]="columns()">Suppress them</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      margin: 0 0 10px;
      color: var(--ink-2);
    }
  `,
})
export class SuppressionFile {
  protected readonly found = inject<Inspection>(MAT_DIALOG_DATA);
  protected readonly columns = signal<readonly Column[]>(this.found.mapping);
}
