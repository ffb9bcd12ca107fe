import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { type AbstractControl, type FormControl, ReactiveFormsModule, type ValidationErrors } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { TitleWord } from '@sieve/core';
import { NAME_PARTS, type NamePart } from '@sieve/core/model/word-lists';
import { LEVELS } from '@sieve/core/words/titles/ranks';
import { TEAMS } from '@sieve/core/words/titles/teams';
import type { WordChanges, WordChangesBody } from '@sieve/contract';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { CountPipe } from '../../ui/count';

const LINE = /^(?<words>[^:]+):(?<means>.+)$/;

/** Reads `words: level, team`, one a line, either of the two enough. `problem`: what is wrong with the first line that is not so. */
export function titleWordsIn(text: string): { words: TitleWord[]; problem: string } {
  const words: TitleWord[] = [];
  for (const [at, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const bad = (what: string) => ({ words, problem: `Line ${at + 1}: ${what}` });
    const { words: said, means } = LINE.exec(line.toLowerCase())?.groups ?? {};
    if (!said?.trim() || !means) return bad('wants words, a colon, and a level or a team');
    const one: TitleWord = { words: said.trim(), level: '', team: '' };
    for (const name of means.split(',').map((part) => part.trim())) {
      const [level, team] = [LEVELS.find((known) => known === name), TEAMS.find((known) => known === name)];
      if (level) one.level = level;
      else if (team) one.team = team;
      else return bad(`“${name}” is no level and no team`);
    }
    words.push(one);
  }
  return { words, problem: '' };
}

export const titleWordsText = (words: readonly TitleWord[]): string =>
  words.map(({ words, level, team }) => `${words}: ${[level, team].filter(Boolean).join(', ')}`).join('\n');

export const titleWordsOnly = ({ value }: AbstractControl<string>): ValidationErrors | null => {
  const { problem } = titleWordsIn(value);
  return problem ? { problem } : null;
};

/** Reads `word: honorific`, one a line. */
export function namePartsIn(text: string): { parts: NamePart[]; problem: string } {
  const parts: NamePart[] = [];
  for (const [at, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const { words: word, means } = LINE.exec(line.toLowerCase())?.groups ?? {};
    const is = NAME_PARTS.find((known) => known === means?.trim());
    if (!word?.trim() || !is)
      return { parts, problem: `Line ${at + 1}: wants a word, a colon, and one of ${NAME_PARTS.join(', ')}` };
    parts.push({ word: word.trim(), is });
  }
  return { parts, problem: '' };
}

export const namePartsText = (parts: readonly NamePart[]): string =>
  parts.map(({ word, is }) => `${word}: ${is}`).join('\n');

export const namePartsOnly = ({ value }: AbstractControl<string>): ValidationErrors | null => {
  const { problem } = namePartsIn(value);
  return problem ? { problem } : null;
};

/** The lines of a text, as they were written, each once. */
export const linesIn = (text: string): string[] => [
  ...new Set(
    text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  ),
];

/** One list of words: how it is written, and what the values are that it changes. */
interface Kind {
  label: string;
  placeholder: string;
  hint: string;
  /** The list, as a text of the form. */
  list: (text: string) => WordChangesBody;
}

const KINDS = {
  titleWords: {
    label: 'Words of titles, with level and team',
    placeholder: 'milk chaser: specialist, supply',
    hint: `Levels: ${LEVELS.join(', ')}. Teams: ${TEAMS.join(', ')}.`,
    list: (text) => ({ titleWords: titleWordsIn(text).words }),
  },
  legalForms: {
    label: 'Legal forms, as they are to be written',
    placeholder: 'Sp. z o.o.',
    hint: 'Split off where they end a company’s name.',
    list: (text) => ({ legalForms: linesIn(text) }),
  },
  nameParts: {
    label: 'Parts of people’s names',
    placeholder: 'baroness: honorific',
    hint: `Each is one of ${NAME_PARTS.join(', ')}; a word that ships as something else is what you say.`,
    list: (text) => ({ nameParts: namePartsIn(text).parts }),
  },
} satisfies Record<string, Kind>;

/** A list of words of one's own, and what a change of it would change. */
@Component({
  selector: 'cs-own-words',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, CountPipe],
  template: `
    <mat-form-field
      ><mat-label>{{ kind().label }}</mat-label
      ><textarea
        matInput
        rows="3"
        [placeholder]="kind().placeholder"
        [formControl]="control()"
        (input)="changes.set(null)"
      ></textarea>
      <mat-error>{{ control().getError('problem') }}</mat-error>
    </mat-form-field>
    <p class="dim">
      {{ kind().hint }}
      <button class="link" type="button" [disabled]="control().invalid" (click)="ask()">What would change?</button>
    </p>
    @if (changes(); as said) {
      <p role="status">
        {{ said.contacts === 0 ? 'Nobody would change.' : '' }}
        @if (said.contacts > 0) {
          <b class="num">{{ said.contacts | count }}</b> contacts over all jobs, the most common first:
        }
      </p>
      <ul>
        @for (one of said.values; track one.value) {
          <li>
            <span class="num">{{ one.count | count }}</span> {{ one.value }}
            <small
              ><s>{{ one.was || 'nothing' }}</s> {{ one.is || 'nothing' }}</small
            >
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 14px;
    }
    mat-form-field {
      width: 100%;
    }
    p {
      margin: 4px 0 6px;
    }
    ul {
      padding: 0;
      margin: 0 0 12px;
      list-style: none;
    }
    li {
      display: flex;
      gap: 10px;
      align-items: baseline;
      padding: 3px 0;
      border-bottom: 1px solid var(--line-soft);
    }
    li .num {
      min-width: 48px;
      text-align: right;
    }
    small,
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class OwnWords {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  readonly list = input.required<keyof typeof KINDS>();
  readonly control = input.required<FormControl<string>>();
  protected readonly kind = computed<Kind>(() => KINDS[this.list()]);
  protected readonly changes = signal<WordChanges | null>(null);

  protected ask() {
    const text = this.control().value;
    // What would change is told of the words that stand there, not of earlier ones.
    this.doing.run(this.api.wordChanges(this.kind().list(text)), (changes) => {
      if (text === this.control().value) this.changes.set(changes);
    });
  }
}
