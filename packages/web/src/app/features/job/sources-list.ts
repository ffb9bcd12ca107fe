import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { RowIssue } from '@sieve/core';
import { ISSUE_WORDS, type SourceRow } from '@sieve/contract';
import { Api, wordsOf } from '../../api/api';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';

/** Where the rows of a job came from: how many, which could not be read and why; each source can be taken out and put back. */
@Component({
  selector: 'cs-sources-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink, MatButtonModule, Icon, CountPipe],
  templateUrl: './sources-list.html',
  styleUrl: './sources-list.scss',
})
export class SourcesList {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  readonly jobId = input.required<number>();
  readonly version = input(0);
  protected readonly sources = signal<SourceRow[]>([]);
  protected readonly opened = signal<number | null>(null);
  protected readonly issues = signal<RowIssue[]>([]);
  protected readonly words: Record<string, string> = ISSUE_WORDS;

  protected originWords({ origin, about }: SourceRow): string {
    switch (origin.kind) {
      case 'table':
        return origin.encoding;
      case 'workbook':
        return origin.sheet ? `sheet ${origin.sheet}` : 'workbook';
      case 'directory':
        return `${about} of a search`;
      case 'picks':
        return `${about} of a pick list`;
    }
  }

  constructor() {
    effect((onCleanup) => {
      this.version();
      const asking = this.api.sources(this.jobId()).subscribe({
        next: (sources) => this.sources.set(sources),
        error: (error: unknown) => this.notices.bad(wordsOf(error)),
      });
      onCleanup(() => asking.unsubscribe());
    });
  }

  protected take(source: SourceRow, out: boolean) {
    this.api.setUndone(source.decision, out).subscribe({
      next: () => {
        this.sources.update((all) => all.map((one) => (one.id === source.id ? { ...one, out } : one)));
        this.notices
          .done(out ? `${source.name} is taken out; its rows are kept` : `${source.name} is back`)
          .subscribe(() => this.take(source, !out));
      },
      error: (error: unknown) => this.notices.bad(wordsOf(error)),
    });
  }

  protected open({ id }: SourceRow) {
    if (this.opened() === id) return this.opened.set(null);
    this.issues.set([]);
    this.opened.set(id);
    this.api.sourceIssues(this.jobId(), id).subscribe({
      next: (issues) => this.issues.set(issues),
      error: (error: unknown) => this.notices.bad(wordsOf(error)),
    });
  }
}
