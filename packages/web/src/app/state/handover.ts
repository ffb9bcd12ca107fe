import { Injectable, signal } from '@angular/core';

/** A file that was dropped or rows that were pasted, on their way to Bring in. */
@Injectable({ providedIn: 'root' })
export class Handover {
  readonly files = signal<File[]>([]);

  take(): File[] {
    const files = this.files();
    this.files.set([]);
    return files;
  }

  /** Text of a table as a file; null when it is no table. */
  static tableOf(text: string): File | null {
    const rows = text.trim();
    return /[\t;,]/.test(rows) || rows.includes('\n')
      ? new File([text], 'pasted-rows.txt', { type: 'text/plain' })
      : null;
  }
}
