import { inject, Injectable } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Observable } from 'rxjs';

/** Short words at the foot of the page. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly bar = inject(MatSnackBar);

  say(words: string) {
    this.bar.open(words, 'Close', { duration: 5000 });
  }

  bad(words: string) {
    this.bar.open(words, 'Close', { duration: 12_000, politeness: 'assertive' });
  }

  /** Says what was done and offers to take it back. */
  done(words: string): Observable<void> {
    return this.bar.open(words, 'Take back', { duration: 7000 }).onAction();
  }
}
