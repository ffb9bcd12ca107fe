import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import type { SieveStep } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { Icon } from '../../../../ui/icon/icon';
import { JudgeLink } from '../judge-link';

@Component({
  selector: 'cs-screen-actions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, JudgeLink],
  styles: `
    :host {
      display: flex;
      gap: 8px;
    }
  `,
  template: `
    <button mat-stroked-button type="button" (click)="open()"><cs-icon name="list" /> Groups</button>
    <cs-judge-link [job]="job()" [step]="step()" />
  `,
})
export class ScreenActions {
  private readonly dialog = inject(MatDialog);
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();

  protected async open() {
    const { GroupsDialog } = await import('./groups-dialog');
    this.dialog.open(GroupsDialog, {
      width: '640px',
      maxWidth: '94vw',
      data: { jobId: this.job().id, step: this.step().id },
    });
  }
}
