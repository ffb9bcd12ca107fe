import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { DirectoryRow, TypedContact } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { EMPTY } from 'rxjs';
import { Api } from '../../api/api';
import { valueOf, withAsked } from '../../state/asked';
import { Doing } from '../../state/doing';
import { CountPipe } from '../../ui/count';
import { JobSelect } from '../../ui/job-select';
import { Notices } from '../../ui/notices';
import { Status } from '../../ui/status/status';
import { HeldList } from '../../ui/held-list';

const HeldStore = signalStore(withAsked((api, q: string) => (q === '' ? EMPTY : api.lookUp(q))));
const DirectoryStore = signalStore(withAsked((api, q: string) => (q === '' ? EMPTY : api.lookUpDirectory(q))));

/** A firm by its website or a person by their profile link: who is held, and what the directory has. */
@Component({
  selector: 'cs-look-up',
  host: { class: 'page' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe, JobSelect, Status, HeldList],
  providers: [HeldStore, DirectoryStore],
  template: `
    <header>
      <div>
        <h1>{{ title() }}</h1>
        <p class="dim">
          <span class="mono">{{ held()?.key }}</span>
          @if (held(); as held) {
            · {{ held.contacts.length | count }} held{{
              exported() > 0 ? ', ' + exported() + ' of them exported before' : ''
            }}
          }
        </p>
      </div>
      <cs-job-select label="Add to" [value]="jobId()" (picked)="jobId.set($event)" />
    </header>
    <cs-status [request]="heldStore.asked()" what="what is held" />
    @if (held()?.suppressed) {
      <p class="notice bad">On the suppression list: nobody there may be contacted.</p>
    }
    <h2>Held</h2>
    @if (held()?.contacts?.length) {
      <cs-held-list [contacts]="held()!.contacts" />
    } @else if (held()) {
      <p class="dim">Nobody of there is in any job.</p>
    }
    <h2>In the directory</h2>
    <cs-status [request]="directoryStore.asked()" what="the directory" />
    @if (firm(); as firm) {
      <p class="dim">
        {{ firm.company }} · {{ firm.place }} · {{ firm.found['sector'] }}
        @if (firm.found['employees']) {
          · {{ firm.found['employees'] }} people work there
        }
      </p>
    }
    @if (people().length > 0) {
      <table class="lines">
        <thead>
          <tr>
            <th>Who</th>
            <th>Title</th>
            <th>Place</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (row of people(); track row.id) {
            <tr>
              <td>{{ row.name }}</td>
              <td>{{ row.title }}</td>
              <td>{{ row.place }}</td>
              <td class="r">
                @if (added().has(row.id)) {
                  added
                } @else if (row.held) {
                  held
                } @else {
                  <button
                    class="link"
                    type="button"
                    [disabled]="jobId() === null"
                    [attr.aria-label]="'Add ' + row.name"
                    (click)="add(row)"
                  >
                    add
                  </button>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    } @else if (directoryStore.asked().status === 'done') {
      <p class="dim">The directory knows nobody there.</p>
    }
  `,
  styles: `
    header {
      display: flex;
      gap: 14px;
      align-items: flex-start;
      justify-content: space-between;
    }
    h1 {
      font-size: 20px;
    }
    h2 {
      margin: 18px 0 6px;
      font-size: 16px;
    }
    .dim {
      color: var(--ink-2);
    }
    .r {
      text-align: right;
    }
  `,
})
export class LookUp {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  protected readonly heldStore = inject(HeldStore);
  protected readonly directoryStore = inject(DirectoryStore);
  readonly q = input('');
  protected readonly jobId = signal<number | null>(null);
  protected readonly added = signal<ReadonlySet<string>>(new Set());
  protected readonly held = computed(() => valueOf(this.heldStore.asked()));
  private readonly rows = computed(() => valueOf(this.directoryStore.asked()) ?? []);
  protected readonly firm = computed(() => this.rows().find(({ id }) => id.startsWith('companies')));
  protected readonly people = computed(() => this.rows().filter(({ id }) => id.startsWith('people')));
  protected readonly exported = computed(
    () => this.held()?.contacts.filter(({ exportedAt }) => exportedAt !== null).length ?? 0,
  );
  protected readonly title = computed(() => {
    const held = this.held();
    const person = held?.about === 'person' ? (held.contacts[0]?.name ?? this.people()[0]?.name) : undefined;
    return person ?? (held?.company || this.firm()?.company || this.q());
  });

  constructor() {
    this.heldStore.load(this.q);
    this.directoryStore.load(this.q);
  }

  protected add(row: DirectoryRow) {
    const job = this.jobId();
    if (job === null) return;
    const website = row.found['website'];
    const said = { fullName: row.name, title: row.title, company: row.company, place: row.place, profile: row.link };
    const contact: TypedContact = { ...said, ...(typeof website === 'string' && { website }) };
    this.doing.run(this.api.addContact(job, contact), () => {
      this.added.update((all) => new Set([...all, row.id]));
      this.notices.say(`${row.name} is in the job.`);
    });
  }
}
