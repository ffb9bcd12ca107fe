import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { type AbstractControl, type FormControl, ReactiveFormsModule, type ValidationErrors } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { TitleWord } from '@sieve/core';
import { LEVELS } from '@sieve/core/words/titles/ranks';
import { TEAMS } from '@sieve/core/words/titles/teams';
import type { TitleChanges } from '@sieve/contract';
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

/** Words of titles with the level and team that they mean here, and what a change of them would change. */
@Component({
  selector: 'cs-title-words',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, CountPipe],
  template: `
    <mat-form-field
      ><mat-label>Words of titles, with level and team</mat-label
      ><textarea
        matInput
        rows="3"
        placeholder="milk chaser: specialist, supply"
        [formControl]="control()"
        (input)="changes.set(null)"
      ></textarea>
      <mat-error>{{ control().getError('problem') }}</mat-error>
    </mat-form-field>
    <p class="dim">
      Levels: {{ levels }}. Teams: {{ teams }}.
      <button class="link" type="button" [disabled]="control().invalid" (click)="ask()">What would change?</button>
    </p>
    @if (changes(); as said) {
      <p role="status">
        {{ said.contacts === 0 ? 'Nobody’s level or team would change.' : '' }}
        @if (said.contacts > 0) {
          <b class="num">{{ said.contacts | count }}</b> contacts over all jobs, the most common first:
        }
      </p>
      <ul>
        @for (one of said.titles; track one.title) {
          <li>
            <span class="num">{{ one.count | count }}</span> {{ one.title }}
            <small
              ><s>{{ meaning(one.was) }}</s> {{ meaning(one.is) }}</small
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
export class TitleWords {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  readonly control = input.required<FormControl<string>>();
  protected readonly levels = LEVELS.join(', ');
  protected readonly teams = TEAMS.join(', ');
  protected readonly changes = signal<TitleChanges | null>(null);

  protected ask() {
    const { words } = titleWordsIn(this.control().value);
    this.doing.run(this.api.titleChanges(words), (changes) => this.changes.set(changes));
  }

  protected meaning({ level, team }: Omit<TitleWord, 'words'>): string {
    return [level, team].filter(Boolean).join(', ') || 'nothing';
  }
}
