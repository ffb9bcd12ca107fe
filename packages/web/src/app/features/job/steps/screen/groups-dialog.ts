import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { ContactGroup, GroupQuery } from '@sieve/contract';
import { GROUP_FIELDS, type GroupBy, type GroupField } from '@sieve/core/steps/screen/options';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import { Decisions } from '../../../../state/decisions';
import { CountPipe } from '../../../../ui/count';
import { Select } from '../../../../ui/select/select';
import { Status } from '../../../../ui/status/status';
import { OwnFieldsStore } from './own-fields-store';

const GroupsStore = signalStore(
  withAsked((api, { jobId, ...query }: { jobId: number } & GroupQuery) => api.groups(jobId, query)),
);
const BY: Record<GroupField, string> = {
  title: 'Titles',
  level: 'Levels',
  team: 'Teams',
  company: 'Companies',
  domain: 'Domains',
  sector: 'Sectors',
  city: 'Towns',
  region: 'Regions',
  country: 'Countries',
};

/** Those who came, grouped by a field and counted: a whole group goes or stays with one key. */
@Component({
  selector: 'cs-groups-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatButtonModule, CountPipe, Select, Status],
  providers: [GroupsStore, OwnFieldsStore],
  host: { '(keydown)': 'onKey($event)' },
  template: `
    <h2 mat-dialog-title>Groups, the largest first</h2>
    <mat-dialog-content>
      <p class="dim">
        <cs-select label="Grouped by" [options]="fields()" [value]="by()" (picked)="group($event)" />
        <span>X sets the whole group aside · R keeps it · G groups by another field</span>
      </p>
      <ul role="listbox" [attr.aria-label]="words()" tabindex="0" cdkFocusInitial>
        @for (group of groups(); track group.value) {
          <li
            role="option"
            tabindex="-1"
            [attr.aria-selected]="$index === at()"
            [class.on]="$index === at()"
            (click)="at.set($index)"
            (keydown.enter)="at.set($index)"
          >
            <span class="num">{{ group.count | count }}</span>
            <span [class.gone]="group.fate === 'aside'">{{ group.value }}</span>
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
            <li class="none">Nobody who has come to the screen has one.</li>
          }
        }
      </ul>
      <cs-status [request]="request()" what="the groups" />
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
    .dim {
      display: flex;
      align-items: center;
      gap: 12px;
    }
    cs-select {
      flex: none;
      width: 130px;
    }
    li.none {
      display: block;
    }
    small,
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class GroupsDialog {
  private readonly store = inject(GroupsStore);
  private readonly own = inject(OwnFieldsStore);
  private readonly decisions = inject(Decisions);
  private readonly data = inject<{ jobId: number; step: string }>(MAT_DIALOG_DATA);
  protected readonly request = this.store.asked;
  protected readonly groups = computed(() => valueOf(this.request()) ?? []);
  protected readonly at = signal(0);
  protected readonly by = signal<GroupBy>('title');
  /** The standard fields, and those of the person's own that the job has. */
  protected readonly fields = computed<{ value: GroupBy; label: string }[]>(() => [
    ...GROUP_FIELDS.map((value) => ({ value, label: BY[value] })),
    ...(valueOf(this.own.asked()) ?? []).map(({ name }) => ({ value: `own:${name}` as const, label: name })),
  ]);
  protected readonly words = computed(() => this.fields().find(({ value }) => value === this.by())?.label ?? '');

  constructor() {
    this.own.load(this.data.jobId);
    this.store.load(computed(() => ({ ...this.data, by: this.by() })));
  }

  protected group(by: GroupBy) {
    this.at.set(0);
    this.by.set(by);
  }

  protected say(group: ContactGroup, fate: 'keep' | 'aside') {
    this.decisions.decide(this.data.jobId, { kind: 'group', by: this.by(), value: group.value, fate }, () =>
      this.store.change((groups) => groups.map((known) => (known.value === group.value ? { ...group, fate } : known))),
    );
  }

  protected onKey(event: KeyboardEvent) {
    const group = this.groups()[this.at()];
    const step = { ArrowDown: 1, j: 1, ArrowUp: -1, k: -1 }[event.key];
    if (step) this.at.update((at) => Math.max(0, Math.min(this.groups().length - 1, at + step)));
    else if (event.key === 'g' && !event.ctrlKey && !event.metaKey)
      this.group(
        this.fields()[(this.fields().findIndex(({ value }) => value === this.by()) + 1) % this.fields().length]!.value,
      );
    else if (event.key === 'x' && group) this.say(group, 'aside');
    else if (event.key === 'r' && group) this.say(group, 'keep');
    else return;
    event.preventDefault();
  }
}
