import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { BouncesTold } from '@sieve/contract';
import { Api } from '../../../../api/api';
import { Doing } from '../../../../state/doing';
import { Notices } from '../../../../ui/notices';
import { many } from '../step-view';

/** Takes in bounces: what came back teaches which addresses are nobody's, and which domains accept and send back. */
@Component({
  selector: 'cs-bounces-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Bounces</h2>
    <mat-dialog-content>
      <p class="dim">
        Addresses whose mail came back, one a line, with the code if there is one (5.1.1); or the notifications
        themselves (RFC 3464). All jobs learn from it, for good: facts are not taken back.
      </p>
      <textarea
        #box
        rows="9"
        class="mono"
        aria-label="Bounces"
        [value]="text()"
        (input)="text.set(box.value)"
      ></textarea>
      <button mat-button type="button" (click)="file.click()">From a file…</button>
      <input #file type="file" hidden aria-label="A file of bounces" (change)="read(file)" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Close</button>
      <button mat-flat-button type="button" [disabled]="text().trim() === ''" (click)="learn()">Learn from them</button>
    </mat-dialog-actions>
  `,
  styles: `
    .dim {
      margin: 0 0 8px;
      color: var(--ink-2);
    }
    textarea {
      width: 100%;
      padding: 8px 10px;
      border: 1px solid var(--line);
      border-radius: 7px;
      background: var(--flour);
      color: inherit;
      font-size: 12px;
    }
  `,
})
export class BouncesDialog {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly dialog = inject(MatDialogRef<BouncesDialog>);
  protected readonly text = signal('');

  protected read(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = '';
    if (file) void file.text().then((text) => this.text.set(text));
  }

  protected learn() {
    this.doing.run(this.api.bounces(this.text()), (told) => {
      this.notices.say(toldWords(told));
      this.dialog.close();
    });
  }
}

export const toldWords = ({ invalid, full, refused, unread, domains }: BouncesTold): string =>
  [
    `${many(invalid, 'address has', 'addresses have')} no mailbox`,
    full > 0 && `${many(full, 'mailbox is', 'mailboxes are')} full`,
    refused > 0 && `${many(refused, 'bounce says', 'bounces say')} nothing of the address`,
    domains.length > 0 &&
      `accepted before and sent back: ${domains.slice(0, 3).join(', ')}${domains.length > 3 ? ' …' : ''}`,
    unread > 0 && `${many(unread, 'line names', 'lines name')} nobody`,
  ]
    .filter(Boolean)
    .join('; ') + '.';
