import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Subject } from '@sieve/core';
import type { PickList, PicksBody } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Api } from '../../api/api';
import { valueOf, withLoaded } from '../../state/asked';
import { Doing } from '../../state/doing';
import { CountPipe } from '../../ui/count';
import { Notices } from '../../ui/notices';
import { Status } from '../../ui/status/status';

interface PickData {
  about: Subject;
  body: PicksBody;
}

const PickListsStore = signalStore(withLoaded((api) => api.pickLists()));

/** Which pick list the rows go on, an old or a new one. */
@Component({
  selector: 'cs-pick-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, CountPipe, Status],
  providers: [PickListsStore],
  template: `
    <h2 mat-dialog-title>Onto which pick list?</h2>
    <mat-dialog-content>
      <form (submit)="create($event, name.value)">
        @if (data.body.ids === null) {
          <label
            >The first
            <input
              #n
              class="most"
              type="number"
              min="1"
              max="2500"
              [value]="most()"
              (input)="most.set(n.valueAsNumber)"
            />
            of the result</label
          >
        }
        <cs-status [request]="request()" what="the lists" />
        @for (list of lists(); track list.id) {
          <button class="list" type="button" [disabled]="busy() || !fits()" (click)="pick(list)">
            <b>{{ list.name }}</b><span class="num">{{ list.picks | count }}</span>
          </button>
        }
        <div class="new">
          <input #name aria-label="Name of a new list" placeholder="A new list" maxlength="200" />
          <button mat-stroked-button type="submit" [disabled]="busy() || !fits()">Pick</button>
        </div>
      </form>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .list {
      display: flex;
      justify-content: space-between;
      width: 100%;
      padding: 8px 10px;
      border: 0;
      border-bottom: 1px solid var(--line-soft);
      background: none;
      cursor: pointer;
    }
    .list:hover {
      background: var(--saffron-wash);
    }
    form {
      padding: 4px 0;
    }
    label,
    .new {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    label {
      padding-bottom: 10px;
    }
    .new {
      margin-top: 12px;
    }
    input {
      flex: 1;
      height: 31px;
      padding: 0 9px;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--flour);
      color: var(--ink);
      font: inherit;
    }
    input.most {
      flex: none;
      width: 84px;
    }
  `,
})
export class PickDialog {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly dialog = inject(MatDialogRef<PickDialog>);
  protected readonly data = inject<PickData>(MAT_DIALOG_DATA);
  private readonly doing = inject(Doing);
  private readonly pickLists = inject(PickListsStore);
  protected readonly request = this.pickLists.asked;
  protected readonly lists = computed(() =>
    (valueOf(this.request()) ?? []).filter(({ about }) => about === this.data.about),
  );
  protected readonly busy = signal(false);
  /** How many of the result, when no rows were marked. */
  protected readonly most = signal(this.data.body.most ?? 0);
  protected readonly fits = computed(
    () => this.data.body.ids !== null || (Number.isInteger(this.most()) && this.most() >= 1 && this.most() <= 2500),
  );

  constructor() {
    this.pickLists.load();
  }

  protected create(event: Event, name: string) {
    event.preventDefault();
    if (!name.trim() || !this.fits()) return;
    this.doing.run(this.api.createPickList(name.trim(), this.data.about), (list) => this.pick(list));
  }

  protected pick(list: PickList) {
    this.busy.set(true);
    this.doing.run(
      this.api.pick(list.id, { ...this.data.body, most: this.most() }),
      ({ added, picks }) => {
        this.notices.say(`${added.toLocaleString('en-GB')} picked; ${list.name} has ${picks.toLocaleString('en-GB')}`);
        this.dialog.close(list.id);
      },
      (words) => {
        this.busy.set(false);
        this.notices.bad(words);
      },
    );
  }
}
