import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import type { SieveStep } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { Icon } from '../../../../ui/icon/icon';
import { BouncesDialog } from './bounces-dialog';

/** Every row as it came, with the verdict on its address, as a file; and the bounces that teach verdicts. */
@Component({
  selector: 'cs-verdicts-link',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon],
  template: `
    <a mat-stroked-button [href]="'/api/jobs/' + job().id + '/verdicts'" download
      ><cs-icon name="download" /> All rows with verdicts</a
    >
    <button mat-stroked-button type="button" (click)="bounces()"><cs-icon name="mail" /> Bounces…</button>
  `,
  styles: `
    :host {
      display: flex;
      gap: 7px;
    }
  `,
})
export class VerdictsLink {
  private readonly dialog = inject(MatDialog);
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();

  protected bounces() {
    this.dialog.open(BouncesDialog, { width: '560px' });
  }
}
