import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { CONTACT_PARTS, type ContactPart } from '@sieve/core/model/contact-parts';
import { TARGET_WORDS, type HeldAlready, type TypedContact } from '@sieve/contract';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { Api, wordsOf } from '../../api/api';
import { Doing } from '../../state/doing';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { HeldList } from '../../ui/held-list';

/** One contact by form, or from a signature, a page's text or a card that is pasted; who is held already is told at once. */
@Component({
  selector: 'cs-one-contact',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, HeldList],
  template: `
    <h2>One contact</h2>
    @if (jobId() === null) {
      <p class="notice">Choose the job that it goes to, on the left.</p>
    } @else {
      <p class="dim">
        Paste a signature, a card or a line of a page; or write. Nothing of what is pasted is lost: the rest is the
        note.
      </p>
      <textarea
        #pasted
        class="field"
        rows="5"
        aria-label="A signature, a card or a text to read"
        placeholder="Maren Oakhill, Technical Manager&#10;Brackenfold Dairies · 0113 496 0417"
        (paste)="readSoon(pasted)"
        (change)="read(pasted.value)"
      ></textarea>
      <form (submit)="add(); $event.preventDefault()">
        @for (part of parts; track part) {
          <label
            >{{ words[part] }}
            <input
              #field
              class="field"
              [class.mono]="part === 'email' || part === 'phone' || part === 'website' || part === 'profile'"
              [attr.aria-label]="words[part]"
              [value]="contact()[part] ?? ''"
              (input)="write(part, field.value)"
          /></label>
        }
        <div class="acts">
          <button mat-flat-button type="submit" [disabled]="isEmpty()"><cs-icon name="plus" /> Add to the job</button>
          <button mat-button type="button" (click)="done.emit()">Back to files</button>
        </div>
      </form>
      @if (held(); as held) {
        @if (held.suppressed) {
          <p class="notice bad" role="alert">
            On the suppression list: they asked not to be contacted, or a colleague has them.
          </p>
        }
        @if (held.contacts.length > 0) {
          <h3 role="status">Held already</h3>
          <cs-held-list [contacts]="held.contacts" />
        } @else if (!isEmpty()) {
          <p class="dim" role="status">Held in no job.</p>
        }
      }
    }
  `,
  styles: `
    .dim {
      margin: 3px 0 10px;
      color: var(--ink-2);
    }
    textarea {
      width: 100%;
      height: auto;
      max-width: 640px;
      padding: 8px 10px;
    }
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
      gap: 10px 14px;
      max-width: 760px;
      margin: 12px 0;
    }
    label {
      color: var(--ink-2);
      font-size: 12px;
    }
    input {
      display: block;
      width: 100%;
      padding: 0 8px;
    }
    .acts {
      grid-column: 1 / -1;
    }
    h3 {
      margin: 14px 0 6px;
      font-size: 15px;
    }
  `,
})
export class OneContact {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  readonly jobId = input<number | null>(null);
  readonly done = output();

  protected readonly parts = CONTACT_PARTS;
  protected readonly words = TARGET_WORDS;
  protected readonly contact = signal<TypedContact>({});
  protected readonly isEmpty = computed(
    () => !CONTACT_PARTS.some((part) => part !== 'note' && this.contact()[part]?.trim()),
  );
  protected readonly held = toSignal(
    toObservable(computed(() => ({ job: this.jobId(), contact: this.contact(), isEmpty: this.isEmpty() }))).pipe(
      debounceTime(200),
      switchMap(({ job, contact, isEmpty }) =>
        job === null || isEmpty
          ? of<HeldAlready | null>(null)
          : this.api.heldAlready(job, contact).pipe(
              catchError((error: unknown) => {
                this.notices.bad(wordsOf(error));
                return of(null);
              }),
            ),
      ),
    ),
    { initialValue: null },
  );

  protected write(part: ContactPart, value: string) {
    this.contact.update((contact) => ({ ...contact, [part]: value }));
  }

  /** The field has what is pasted a moment later. */
  protected readSoon(field: HTMLTextAreaElement) {
    setTimeout(() => this.read(field.value));
  }

  protected read(text: string) {
    const job = this.jobId();
    if (job === null || text.trim() === '') return;
    this.doing.run(this.api.readContact(job, text), (contact) => this.contact.set(contact));
  }

  protected add() {
    const job = this.jobId();
    if (job === null || this.isEmpty()) return;
    const said = Object.fromEntries(Object.entries(this.contact()).filter(([, value]) => value.trim() !== ''));
    this.doing.run(this.api.addContact(job, said), () => {
      this.notices.say(
        `${said['fullName'] ?? said['email'] ?? 'The contact'} is in the job. Ctrl Z there takes it back.`,
      );
      this.contact.set({});
    });
  }
}
