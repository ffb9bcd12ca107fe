import { inject, Injectable } from '@angular/core';
import type { DecisionBody, SieveStep } from '@sieve/core';
import type { DecisionRow, DecisionSubject, LoggedBody } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { switchMap } from 'rxjs';
import { Api } from '../api/api';
import { decisionWords } from '../ui/decision-words';
import { Notices } from '../ui/notices';
import { Doing } from './doing';
import { workActions } from './work';

type Which = (body: LoggedBody) => boolean;

/** Tells the server what a person decided, says so, and takes it back or makes it again on wish. */
@Injectable({ providedIn: 'root' })
export class Decisions {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly doing = inject(Doing);
  private readonly store = inject(Store);

  /** @param takenBack when it is taken back by the notice that says what was done */
  decide(jobId: number, body: DecisionBody, then: () => void = () => undefined, takenBack?: () => void) {
    this.doing.run(this.api.decide(jobId, body), (row) => {
      this.offer(row, decisionWords(body), takenBack);
      then();
    });
  }

  configure(jobId: number, step: SieveStep, was: SieveStep) {
    this.doing.run(this.api.configure(jobId, step, was), ({ job, decision }) => {
      this.store.dispatch(workActions.jobCame({ job }));
      this.offer(decision, 'The step is set up anew; the rows are being sifted');
    });
  }

  /**
   * Ctrl Z: one's own last decision about what is on the screen, by its number; never one that a schedule made.
   * @param isHere whether a decision about it shows on this screen
   */
  undo(subject: DecisionSubject, then: () => void = () => undefined, isHere: Which = () => true) {
    this.doing.run(this.api.decisions(subject), (rows) => {
      const last = rows.find((row) => row.author === 'you' && row.undoneAt === null && isHere(row.body));
      if (last) this.setUndone(last, true, then);
      else this.notices.say('No decision of yours is left to take back here.');
    });
  }

  /** Ctrl Shift Z: the decision that was taken back last. */
  redo(subject: DecisionSubject, then: () => void = () => undefined, isHere: Which = () => true) {
    this.doing.run(this.api.decisions(subject), (rows) => {
      const [last] = rows
        .filter(({ author, undoneAt, body }) => author === 'you' && undoneAt !== null && isHere(body))
        .sort((a, b) => b.undoneAt! - a.undoneAt! || a.id - b.id);
      if (last) this.setUndone(last, false, then);
      else this.notices.say('Nothing was taken back here.');
    });
  }

  setUndone(row: Pick<DecisionRow, 'id' | 'body'>, undone: boolean, then: () => void = () => undefined) {
    this.doing.run(this.api.setUndone(row.id, undone), () => {
      this.notices.say(`${undone ? 'Taken back' : 'Made again'}: ${decisionWords(row.body)}`);
      then();
    });
  }

  private offer(row: DecisionRow, words: string, takenBack: () => void = () => undefined) {
    this.doing.run(this.notices.done(words).pipe(switchMap(() => this.api.setUndone(row.id, true))), () => {
      this.notices.say(`Taken back: ${words}`);
      takenBack();
    });
  }
}
