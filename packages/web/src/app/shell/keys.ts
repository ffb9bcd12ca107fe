import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';

const KEYS: [where: string, keys: [key: string, does: string][]][] = [
  [
    'Anywhere',
    [
      ['Ctrl K', 'find a job, contact or action'],
      ['Ctrl Z', 'take back your last decision here'],
      ['Ctrl Shift Z', 'make it again'],
      ['?', 'this list'],
    ],
  ],
  [
    'Rows of a job',
    [
      ['↑ ↓ or J K', 'next and previous row'],
      ['Enter', 'read the person in full'],
      ['Space', 'mark the row'],
      ['X', 'set aside the row, or all marked'],
      ['R', 'restore the row, or all marked'],
      ['E', 'edit the selected row'],
      ['/', 'filter the rows'],
      ['Ctrl C', 'copy the marked rows, as shown'],
      ['Ctrl V', 'paste rows into the job'],
      ['1 2 3', 'pass, set aside, want a look'],
    ],
  ],
  [
    'A person in full',
    [
      ['J K', 'next and previous'],
      ['Space', 'keep or restore'],
      ['X', 'set aside'],
      ['E N', 'write the title, a note'],
      ['Esc', 'back to the rows'],
    ],
  ],
  [
    'Companies',
    [
      ['J K', 'next and previous'],
      ['Y N C', 'its website says yes, no, cannot tell'],
      ['S D', 'one company, or two'],
      ['X R', 'set aside, keep'],
      ['O', 'open its page'],
    ],
  ],
  [
    'Judging pairs',
    [
      ['S', 'same person'],
      ['D', 'two people'],
      ['Shift S D', 'all that show the same'],
      ['L', 'later'],
    ],
  ],
  [
    'Whose profile it is',
    [
      ['1 … 9', 'this one is theirs'],
      ['0', 'none of them'],
    ],
  ],
];

@Component({
  selector: 'cs-keys',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule],
  template: `
    <h2 mat-dialog-title>All keys</h2>
    <mat-dialog-content>
      <div class="groups">
        @for (group of keys; track group[0]) {
          <section>
            <h3>{{ group[0] }}</h3>
            <dl>
              @for (key of group[1]; track key[0]) {
                <dt>
                  <kbd>{{ key[0] }}</kbd>
                </dt>
                <dd>{{ key[1] }}</dd>
              }
            </dl>
          </section>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-flat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .groups {
      columns: 2;
      column-gap: 30px;
    }
    section {
      break-inside: avoid;
      margin-bottom: 14px;
    }
    h3 {
      font-size: 14px;
      margin-bottom: 6px;
    }
    dl {
      display: grid;
      grid-template-columns: 92px 1fr;
      gap: 5px 8px;
      margin: 0;
    }
    dd {
      margin: 0;
    }
  `,
})
export class Keys {
  protected readonly keys = KEYS;
}
