import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { DecisionRow } from '@sieve/contract';
import { Api } from '../../api/api';
import { valueOf } from '../../state/asked';
import { Doing } from '../../state/doing';
import { decisionWords } from '../../ui/decision-words';
import { Status } from '../../ui/status/status';
import { DecisionsStore } from './job-stores';

/** Everything a person decided in a job, newest first; each can be taken back and made to stand again. */
@Component({
  selector: 'cs-decision-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, DatePipe, Status],
  providers: [DecisionsStore],
  template: `
    <h2 mat-dialog-title>Decisions</h2>
    <mat-dialog-content>
      <ul>
        @for (row of rows(); track row.id) {
          <li [class.undone]="row.undoneAt !== null">
            <span>{{ words(row) }}{{ row.author === 'schedule' ? ' (by a schedule)' : '' }}</span
            ><small class="num">{{ row.at | date: 'd MMM HH:mm' }}</small>
            <button class="link" type="button" (click)="toggle(row)">
              {{ row.undoneAt !== null ? 'let it stand' : 'take back' }}
            </button>
          </li>
        } @empty {
          @if (rows()) {
            <li>Nothing was decided yet.</li>
          }
        }
      </ul>
      <cs-status [request]="request()" what="the decisions" />
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-flat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 1fr auto 84px;
      gap: 12px;
      padding: 7px 0;
      border-bottom: 1px solid var(--line-soft);
    }
    .undone span {
      color: var(--ink-3);
      text-decoration: line-through;
    }
    small {
      color: var(--ink-3);
    }
  `,
})
export class DecisionList {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly store = inject(DecisionsStore);
  private readonly jobId = inject<number>(MAT_DIALOG_DATA);
  protected readonly request = this.store.asked;
  protected readonly rows = computed(() => valueOf(this.request()));
  protected readonly words = ({ body }: DecisionRow) => decisionWords(body);

  constructor() {
    this.store.load(this.jobId);
  }

  protected toggle(row: DecisionRow) {
    this.doing.run(this.api.setUndone(row.id, row.undoneAt === null), () => this.store.load(this.jobId));
  }
}
