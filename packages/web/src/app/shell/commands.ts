import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { stepWords, type FoundContact, type FoundThings } from '@sieve/contract';
import { canonicalLink } from '@sieve/core/tidy/link';
import { Store } from '@ngrx/store';
import { catchError, debounceTime, map, of, switchMap } from 'rxjs';
import { Api } from '../api/api';
import { work } from '../state/work';

interface Command {
  label: string;
  detail: string;
  go: unknown[];
  query?: Record<string, string | number>;
}

const NOTHING: FoundThings = { contacts: [], searches: [], pickLists: [], sources: [] };
const NOT_ASKED: Command = { label: 'Contacts and lists could not be asked for', detail: 'try again', go: [] };
/** The parts of the settings by name. */
const SETTINGS: Record<string, string> = {
  finders: 'finders, prices and keys',
  directory: 'directory, pace and hours',
  mail: 'mail and name server',
  lists: 'word lists',
  web: 'web pages and simulated hosts',
  shapes: 'known shapes of tables',
  money: 'names, money and time zone',
  suppression: 'suppression list',
};

/** Finds a job, a step, a search, a list, a source, a contact of any job, or an action by name. */
@Component({
  selector: 'cs-commands',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  template: `
    <input
      #field
      type="text"
      role="combobox"
      aria-expanded="true"
      aria-controls="commands"
      aria-label="Find a job, contact or action"
      placeholder="Find a job, contact or action, or look up a website"
      [value]="text()"
      (input)="type(field.value)"
      (keydown)="onKey($event)"
    />
    <ul id="commands" role="listbox">
      @for (command of found(); track $index) {
        <li
          role="option"
          tabindex="-1"
          [attr.aria-selected]="$index === at()"
          [class.on]="$index === at()"
          (click)="run(command)"
          (keydown.enter)="run(command)"
          (mouseenter)="at.set($index)"
        >
          <span>{{ command.label }}</span><small>{{ command.detail }}</small>
        </li>
      } @empty {
        <li class="none">Nothing has that name.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      padding: 10px;
    }
    input {
      width: 100%;
      height: 38px;
      padding: 0 12px;
      border: 1px solid var(--line);
      border-radius: 7px;
      background: var(--flour);
      color: var(--ink);
      font: 14px var(--ui);
    }
    ul {
      margin: 8px 0 0;
      padding: 0;
      list-style: none;
      max-height: 360px;
      overflow: auto;
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 14px;
      padding: 7px 12px;
      border-radius: 6px;
      cursor: pointer;
    }
    li.on {
      background: var(--saffron-wash);
    }
    small {
      color: var(--ink-2);
    }
    .none {
      color: var(--ink-2);
      cursor: default;
    }
  `,
})
export class Commands {
  private readonly router = inject(Router);
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialogRef<Commands>);
  private readonly jobs = inject(Store).selectSignal(work.selectAllJobs);
  private readonly jobNames = computed(() => Object.fromEntries(this.jobs().map(({ id, name }) => [id, name])));
  protected readonly text = signal('');
  protected readonly at = signal(0);

  private readonly contacts = toSignal(
    toObservable(this.text).pipe(
      debounceTime(120),
      switchMap((q) =>
        q.trim().length < 2
          ? of<FoundThings | null>(NOTHING)
          : this.api.find(q.trim()).pipe(catchError(() => of(null))),
      ),
      map((found) => (found ? this.commandsOf(found) : [NOT_ASKED])),
    ),
    { initialValue: [] as Command[] },
  );

  private readonly fixed = computed<Command[]>(() => [
    { label: 'Desk', detail: 'screen', go: ['/desk'] },
    { label: 'Searches', detail: 'screen', go: ['/search'] },
    { label: 'New search', detail: 'action', go: ['/search/new'] },
    { label: 'New job', detail: 'action', go: ['/jobs'], query: { new: 1 } },
    { label: 'Bring in a file', detail: 'action', go: ['/bring'] },
    { label: 'Runs: running, to come, failed, done', detail: 'screen', go: ['/runs'] },
    { label: 'Settings', detail: 'screen', go: ['/settings'] },
    ...Object.entries(SETTINGS).map(([part, words]) => ({
      label: `Settings: ${words}`,
      detail: 'screen',
      go: ['/settings'],
      query: { part },
    })),
    ...this.jobs().flatMap((job): Command[] => [
      { label: job.name, detail: 'job', go: ['/jobs', job.id] },
      { label: `Add one contact: ${job.name}`, detail: 'action', go: ['/jobs', job.id, 'bring'], query: { one: 1 } },
      { label: `Export: ${job.name}`, detail: 'action', go: ['/jobs', job.id, 'export'] },
      { label: `Bring in: ${job.name}`, detail: 'action', go: ['/jobs', job.id, 'bring'] },
      { label: `Judge pairs: ${job.name}`, detail: 'action', go: ['/jobs', job.id, 'judge'] },
      { label: `Sources: ${job.name}`, detail: 'sources', go: ['/jobs', job.id], query: { show: 'sources' } },
      ...job.sieve.map(({ id, kind }) => ({
        label: `${stepWords(kind)}: ${job.name}`,
        detail: 'step',
        go: ['/jobs', job.id],
        query: { step: id },
      })),
    ]),
  ]);
  protected readonly found = computed(() => {
    const words = this.text().toLowerCase().split(/\s+/).filter(Boolean);
    return [
      ...this.lookUp(),
      ...this.fixed().filter(({ label }) => words.every((word) => label.toLowerCase().includes(word))),
      ...this.contacts(),
    ].slice(0, 30);
  });

  /** A firm's website or a person's profile link is looked up. */
  private readonly lookUp = computed((): Command[] => {
    const q = this.text().trim();
    const isLink = canonicalLink(q) !== '';
    return isLink
      ? [{ label: `Look up ${q}`, detail: 'who is held, and what the directory has', go: ['/look-up'], query: { q } }]
      : [];
  });

  private commandsOf(found: FoundThings): Command[] {
    return [
      ...found.searches.map(({ id, name }) => ({ label: name, detail: 'search', go: ['/search', id] })),
      ...found.pickLists.map(({ id, name }) => ({ label: name, detail: 'pick list', go: ['/pick-lists', id] })),
      ...found.sources.map(({ jobId, name }) => ({
        label: name,
        detail: `source of ${this.jobNames()[jobId] ?? ''}`,
        go: ['/jobs', jobId],
        query: { show: 'sources' },
      })),
      ...found.contacts.map((contact) => contactCommand(this.jobNames()[contact.jobId] ?? '', contact)),
    ];
  }

  protected type(text: string) {
    this.text.set(text);
    this.at.set(0);
  }

  protected onKey(event: KeyboardEvent) {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
      event.preventDefault();
      this.at.update((at) => Math.max(0, Math.min(this.found().length - 1, at + step)));
    } else if (event.key === 'Enter') {
      const command = this.found()[this.at()];
      if (command) this.run(command);
    }
  }

  protected run({ go, query }: Command) {
    if (go.length === 0) return;
    this.dialog.close();
    void this.router.navigate(go, query ? { queryParams: query } : {});
  }
}

const contactCommand = (job: string, { jobId, contact, name, company, step, fate }: FoundContact): Command => ({
  label: [name, company].filter(Boolean).join(', '),
  detail: `contact in ${job}`,
  go: ['/jobs', jobId],
  query: { step, fate, row: contact },
});
