import { DatePipe } from '@angular/common';
import { HttpResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { SUPPRESSION_REASONS, type SuppressionEntry } from '@sieve/core/model/suppression';
import type { Column } from '@sieve/core/model/target';
import type { Inspection, SuppressionRow } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { filter, from, map, type Observable, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { valueOf, withLoaded } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { CountPipe } from '../../ui/count';
import { Notices } from '../../ui/notices';
import { Select } from '../../ui/select/select';
import { Status } from '../../ui/status/status';

/** Provided by the screen, which loads it anew when something is taken back. */
export const SuppressionsStore = signalStore(withLoaded((api) => api.suppressions()));

/** Who must not be contacted: written, brought in from a file, looked through and taken off. */
@Component({
  selector: 'cs-suppression-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, DatePipe, CountPipe, Select, Status],
  template: `
    <h2 id="suppression">Suppression list</h2>
    <p class="dim">
      Nobody named here is contacted from any job: people, and all of a firm. Who is only “not to be called” stays,
      without a phone.
    </p>
    <textarea
      #field
      rows="5"
      aria-label="Who to suppress, one a line"
      placeholder="an address, a phone with its +
a profile link, a domain
name, company
a company’s name"
    ></textarea>
    <p class="line">
      <cs-select label="Why" [options]="reasons" [value]="why()" (picked)="why.set($event)" />
      <label>until <input #until type="date" aria-label="Until; empty: for good" [min]="today" /></label>
    </p>
    <p class="line">
      <button mat-stroked-button type="button" (click)="suppress(field, until.value)">Suppress</button>
      <button mat-button type="button" (click)="file.click()">From a file…</button>
      <input #file type="file" hidden aria-label="A file of those to suppress" (change)="fromFile(file, until.value)" />
    </p>
    <cs-status [request]="store.asked()" what="the list" />
    @if (rows().length > 0) {
      <p class="line">
        <span class="dim">{{ shown().length | count }} of {{ rows().length | count }}</span>
        <input
          #words
          class="find"
          type="search"
          placeholder="Filter"
          aria-label="Filter the list"
          (input)="find.set(words.value)"
        />
      </p>
    }
    <ul>
      @for (row of shown().slice(0, most); track row.key) {
        <li [class.over]="row.until !== null && row.until < now">
          <span class="value" [class.mono]="row.kind !== 'person' && row.kind !== 'company'">{{ row.value }}</span>
          <button class="link" type="button" [attr.aria-label]="'Remove ' + row.value" (click)="remove(row)">
            remove
          </button>
          <small
            >{{ row.why }}{{ row.source ? ' · ' + row.source : '' }} · {{ row.at | date: 'd MMM y' }}
            @if (row.until !== null) {
              · {{ row.until < now ? 'ended' : 'until' }} {{ row.until | date: 'd MMM y' }}
            }
          </small>
        </li>
      } @empty {
        @if (store.asked().status === 'done') {
          <li class="dim">{{ rows().length > 0 ? 'No entry says that.' : 'Nobody yet.' }}</li>
        }
      }
    </ul>
    @if (shown().length > most) {
      <p class="dim">{{ shown().length - most | count }} more; filter to see them.</p>
    }
  `,
  styleUrl: './suppression-list.scss',
})
export class SuppressionList {
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly decisions = inject(Decisions);
  protected readonly store = inject(SuppressionsStore);
  protected readonly rows = computed(() => valueOf(this.store.asked()) ?? []);
  protected readonly find = signal('');
  protected readonly shown = computed(() => {
    const words = this.find().trim().toLowerCase();
    return this.rows().filter(({ value, why, source }) => `${value} ${why} ${source}`.toLowerCase().includes(words));
  });
  protected readonly most = 200;
  protected readonly now = Date.now();
  protected readonly today = new Date().toISOString().slice(0, 10);
  protected readonly reasons = SUPPRESSION_REASONS.map((value) => ({ value, label: value }));
  protected readonly why = signal<SuppressionEntry['why']>('asked not to be');

  constructor() {
    this.store.load();
  }

  protected suppress(field: HTMLTextAreaElement, until: string) {
    if (!field.value.trim()) return;
    this.doing.run(this.api.suppress({ text: field.value, ...this.because(until) }), ({ added, known, refused }) => {
      field.value = refused.join('\n');
      const left = refused.length > 0 ? ` ${refused.length} name nobody; they stand in the field.` : '';
      this.said(added, known, left);
    });
  }

  protected fromFile(input: HTMLInputElement, until: string) {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    const { name } = file;
    const done = this.api.upload(file, name).pipe(
      filter((event) => event instanceof HttpResponse),
      map(({ body }) => body!),
      switchMap(({ id }) =>
        this.api
          .inspect(id, name, { format: {}, columns: null, jobId: null, beginning: true })
          .pipe(
            switchMap((found) =>
              this.columnsOf(found).pipe(
                switchMap((columns) =>
                  this.api.suppressFile({ uploadId: id, name, format: found.format, columns, ...this.because(until) }),
                ),
              ),
            ),
          ),
      ),
    );
    this.doing.run(done, ({ added, known, nameless }) =>
      this.said(added, known, nameless > 0 ? ` ${nameless} rows name nobody.` : ''),
    );
  }

  /** As they are recognised, or corrected; nothing where it is left. */
  private columnsOf(found: Inspection): Observable<Column[]> {
    const options = { width: '940px', maxWidth: '94vw', data: found };
    return from(import('./suppression-file')).pipe(
      switchMap(({ SuppressionFile }) =>
        this.dialog.open<unknown, Inspection, Column[] | ''>(SuppressionFile, options).afterClosed(),
      ),
      filter((columns) => columns !== undefined && columns !== ''),
    );
  }

  protected remove({ key, value }: SuppressionRow) {
    this.doing.run(this.api.unsuppress(key), () => {
      this.store.load();
      this.doing.run(this.notices.done(`${value} may be contacted again`), () =>
        this.decisions.undo({ subject: 'settings', subjectId: 0 }, () => this.store.load()),
      );
    });
  }

  private because(until: string) {
    // To the end of that day, here.
    return { why: this.why(), until: until === '' ? null : new Date(`${until}T23:59:59`).getTime() };
  }

  private said(added: number, known: number, more: string) {
    this.notices.say(`${added} added.${known > 0 ? ` ${known} were on the list.` : ''}${more}`);
    this.store.load();
  }
}
