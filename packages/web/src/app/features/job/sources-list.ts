import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { ISSUE_WORDS, type SourceRow } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { valueOf } from '../../state/asked';
import { Doing } from '../../state/doing';
import { workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Status } from '../../ui/status/status';
import { IssuesStore, SourcesStore } from './job-stores';

/** Where the rows of a job came from: how many, which could not be read and why; each source can be taken out and put back. */
@Component({
  selector: 'cs-sources-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink, MatButtonModule, Icon, CountPipe, Status],
  providers: [SourcesStore, IssuesStore],
  templateUrl: './sources-list.html',
  styleUrl: './sources-list.scss',
})
export class SourcesList {
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly sourcesStore = inject(SourcesStore);
  private readonly store = inject(Store);
  private readonly issuesStore = inject(IssuesStore);
  readonly jobId = input.required<number>();
  readonly version = input(0);
  protected readonly request = this.sourcesStore.asked;
  protected readonly sources = computed(() => valueOf(this.request()) ?? []);
  protected readonly opened = signal<number | null>(null);
  protected readonly issues = computed(() => valueOf(this.issuesStore.asked()) ?? []);
  protected readonly words: Record<string, string> = ISSUE_WORDS;

  protected readonly isOfFile = ({ origin }: SourceRow): boolean =>
    ['table', 'workbook', 'page', 'objects', 'cards'].includes(origin.kind);

  protected originWords({ origin, about }: SourceRow): string {
    switch (origin.kind) {
      case 'table':
        return origin.encoding;
      case 'workbook':
        return origin.sheet ? `sheet ${origin.sheet}` : 'workbook';
      case 'page':
        return `page, ${origin.sheet || 'the best set'}`;
      case 'objects':
        return origin.lines ? 'JSON lines' : 'JSON';
      case 'cards':
        return 'vCards';
      case 'directory':
        return `${about} of a search`;
      case 'picks':
        return `${about} of a pick list`;
      case 'typed':
        return 'added by hand';
      case 'harvest':
        return origin.address ? `harvest of ${origin.address.replace(/^https?:\/\//, '')}` : 'harvest of a page';
    }
  }

  constructor() {
    this.sourcesStore.load(computed(() => ({ jobId: this.jobId(), version: this.version() })));
  }

  /** Has a bringing in that was stopped go on where it was. */
  protected goOn(id: number) {
    this.store.dispatch(workActions.runAsked({ id, action: 'resume' }));
    this.notices.say('It goes on where it was stopped.');
  }

  protected take(source: SourceRow, out: boolean) {
    this.doing.run(this.api.setUndone(source.decision, out), () => {
      this.sourcesStore.change((all) => all.map((one) => (one.id === source.id ? { ...one, out } : one)));
      this.doing.run(
        this.notices.done(out ? `${source.name} is taken out; its rows are kept` : `${source.name} is back`),
        () => this.take(source, !out),
      );
    });
  }

  protected async readAnew(source: SourceRow) {
    const { ColumnsDialog } = await import('./columns-dialog');
    this.dialog.open(ColumnsDialog, { width: '940px', maxWidth: '94vw', data: { jobId: this.jobId(), source } });
  }

  protected open({ id }: SourceRow) {
    if (this.opened() === id) return this.opened.set(null);
    this.issuesStore.forget();
    this.opened.set(id);
    this.issuesStore.load({ jobId: this.jobId(), source: id });
  }
}
