import { inject, Injectable } from '@angular/core';
import type { DecisionBody, StepOptions } from '@sieve/core';
import { Store } from '@ngrx/store';
import { Api, wordsOf } from '../api/api';
import { decisionWords } from '../ui/decision-words';
import { Notices } from '../ui/notices';
import { workActions } from './work';

/** Tells the server what a person decided, says so, and takes it back on wish. */
@Injectable({ providedIn: 'root' })
export class Decisions {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly store = inject(Store);

  decide(jobId: number, body: DecisionBody, then: () => void = () => undefined) {
    this.api.decide(jobId, body).subscribe({
      next: ({ id }) => {
        this.offer(jobId, id, decisionWords(body));
        then();
      },
      error: (error: unknown) => this.notices.bad(wordsOf(error)),
    });
  }

  configure(jobId: number, options: StepOptions) {
    this.api.configure(jobId, options).subscribe({
      next: (job) => {
        this.store.dispatch(workActions.jobCame({ job }));
        this.notices.done('The step is set up anew; the rows are being sifted').subscribe(() => this.undo(jobId));
      },
      error: (error: unknown) => this.notices.bad(wordsOf(error)),
    });
  }

  /** Ctrl Z: the last decision that stands. */
  undo(jobId: number) {
    this.api.undo(jobId).subscribe({
      next: ({ body }) => this.notices.say(`Taken back: ${decisionWords(body)}`),
      error: (error: unknown) => this.notices.bad(wordsOf(error)),
    });
  }

  private offer(jobId: number, id: number, words: string) {
    this.notices.done(words).subscribe(() =>
      this.api.setUndone(jobId, id, true).subscribe({
        next: () => this.notices.say(`Taken back: ${words}`),
        error: (error: unknown) => this.notices.bad(wordsOf(error)),
      }),
    );
  }
}
