import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { TitleGroup } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import { Decisions } from '../../../../state/decisions';
import { CountPipe } from '../../../../ui/count';
import { Status } from '../../../../ui/status/status';

const TitlesStore = signalStore(
  withAsked((api, { jobId, step }: { jobId: number; step: string }) => api.titles(jobId, step)),
);

/** Titles grouped and counted: a whole group goes or stays with one key. */
@Component({
  selector: 'cs-titles-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, CountPipe, Status],
  providers: [TitlesStore],
  host: { '(keydown)': 'onKey($event)' },
  template: `
    <h2 mat-dialog-title>Titles, most common first</h2>
    <mat-dialog-content>
      <p class="dim">↑ ↓ move · X sets the whole group aside · R keeps it</p>
      <ul role="listbox" aria-label="Titles" tabindex="0" cdkFocusInitial>
        @for (group of groups(); track group.title) {
          <li
            role="option"
            tabindex="-1"
            [attr.aria-selected]="$index === at()"
            [class.on]="$index === at()"
            (click)="at.set($index)"
            (keydown.enter)="at.set($index)"
          >
            <span class="num">{{ group.count | count }}</span>
            <span [class.gone]="group.fate === 'aside'">{{ group.title }}</span>
            <small>{{
              group.fate === 'aside'
                ? 'set aside by you'
                : group.fate === 'keep'
                  ? 'kept by you'
                  : group.aside === group.count
                    ? 'set aside'
                    : group.aside > 0
                      ? group.aside + ' set aside'
                      : 'pass'
            }}</small>
            <button
              class="link"
              type="button"
              tabindex="-1"
              (click)="say(group, group.fate === 'aside' ? 'keep' : 'aside')"
            >
              {{ group.fate === 'aside' ? 'keep' : 'set aside' }}
            </button>
          </li>
        } @empty {
          @if (request().status === 'done') {
            <li>No titles have come to the screen.</li>
          }
        }
      </ul>
      <cs-status [request]="request()" what="the titles" />
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-flat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    ul {
      margin: 8px 0 0;
      padding: 0;
      list-style: none;
      outline-offset: 2px;
    }
    li {
      display: grid;
      grid-template-columns: 52px 1fr 130px 70px;
      gap: 10px;
      padding: 6px 8px;
      border-bottom: 1px solid var(--line-soft);
      cursor: default;
    }
    .on {
      background: var(--saffron-wash);
    }
    .gone {
      text-decoration: line-through;
      color: var(--plum);
    }
    small,
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class TitlesDialog {
  private readonly store = inject(TitlesStore);
  private readonly decisions = inject(Decisions);
  private readonly data = inject<{ jobId: number; step: string }>(MAT_DIALOG_DATA);
  protected readonly request = this.store.asked;
  protected readonly groups = computed(() => valueOf(this.request()) ?? []);
  protected readonly at = signal(0);

  constructor() {
    this.store.load(this.data);
  }

  protected say(group: TitleGroup, fate: 'keep' | 'aside') {
    this.decisions.decide(this.data.jobId, { kind: 'group', title: group.title, fate }, () =>
      this.store.change((groups) => groups.map((known) => (known.title === group.title ? { ...group, fate } : known))),
    );
  }

  protected onKey(event: KeyboardEvent) {
    const group = this.groups()[this.at()];
    const step = { ArrowDown: 1, j: 1, ArrowUp: -1, k: -1 }[event.key];
    if (step) this.at.update((at) => Math.max(0, Math.min(this.groups().length - 1, at + step)));
    else if (event.key === 'x' && group) this.say(group, 'aside');
    else if (event.key === 'r' && group) this.say(group, 'keep');
    else return;
    event.preventDefault();
  }
}
