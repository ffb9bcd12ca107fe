import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import type { StepKind } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';

interface Chip {
  words: string;
  count: number;
  kind: 'keep' | 'drop' | '';
}

/** The rules of a step as chips, each with what it set aside, and the way to change them. */
@Component({
  selector: 'cs-step-rules',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, CountPipe],
  template: `
    @for (chip of chips(); track chip.words) {
      <span class="chip {{ chip.kind }}"
        >{{ chip.words }}
        @if (chip.count > 0) {
          <span class="num">−{{ chip.count | count }}</span>
        }
      </span>
    }
    @if (step() === 'match' && pairs() > 0) {
      <a mat-flat-button [routerLink]="['/jobs', job().id, 'judge']"
        ><cs-icon name="merge" /> Judge {{ pairs() | count }} {{ pairs() === 1 ? 'pair' : 'pairs' }}</a
      >
    }
    @if (step() === 'screen') {
      <button mat-stroked-button type="button" (click)="editTitles()"><cs-icon name="list" /> Titles</button>
    }
    <button mat-stroked-button type="button" (click)="edit()">
      <cs-icon name="sliders" /> {{ step() === 'screen' ? 'Edit rules' : 'Set up' }}
    </button>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 7px;
      padding: 0 16px 10px;
    }
    .num {
      opacity: 0.8;
    }
  `,
})
export class StepRules {
  private readonly dialog = inject(MatDialog);
  readonly job = input.required<Job>();
  readonly step = input.required<StepKind>();
  protected readonly pairs = computed(() => this.job().summary?.pairs ?? 0);

  protected readonly chips = computed<Chip[]>(() => {
    const { steps, summary } = this.job();
    const rules = summary?.rules ?? {};
    switch (this.step()) {
      case 'tidy':
        return [{ words: `Phones without a country are ${steps.tidy.phoneCountry}`, count: 0, kind: '' }];
      case 'match':
        return [
          { words: `Merged from ${steps.match.mergeFrom.toFixed(2)}`, count: summary?.merged ?? 0, kind: 'keep' },
          { words: `Judged from ${steps.match.judgeFrom.toFixed(2)}`, count: 0, kind: '' },
          {
            words: `About ${Math.round((summary?.expectedError ?? 0) * 1000)} in 1,000 merges are expected to be wrong`,
            count: 0,
            kind: '',
          },
        ];
      case 'screen':
        return [
          ...(steps.screen.briefTitles.length > 0
            ? [
                {
                  words: `Title is one of the brief’s ${steps.screen.briefTitles.length}`,
                  count: rules['title-not-in-brief'] ?? 0,
                  kind: 'keep' as const,
                },
              ]
            : []),
          ...steps.screen.rules.map((rule, i): Chip => ({
            words: `${capital(rule.field)} says ${shortList(rule.words)}`,
            count: rules[`rule-${i}`] ?? 0,
            kind: rule.fate === 'aside' ? 'drop' : 'keep',
          })),
          ...(steps.screen.suppression
            ? [{ words: 'Suppression list', count: rules['suppressed'] ?? 0, kind: 'drop' as const }]
            : []),
          ...(steps.screen.atMostPerCompany > 0
            ? [
                {
                  words: `At most ${steps.screen.atMostPerCompany} a company`,
                  count: rules['company-full'] ?? 0,
                  kind: '' as const,
                },
              ]
            : []),
          ...(rules['by-hand'] ? [{ words: 'By hand', count: rules['by-hand'], kind: 'drop' as const }] : []),
          ...(rules['title-group'] ? [{ words: 'Titles', count: rules['title-group'], kind: 'drop' as const }] : []),
        ];
      case 'append':
        return [
          {
            words: steps.append.on ? `${steps.append.candidates} addresses tried from patterns` : 'Off',
            count: 0,
            kind: '',
          },
          ...steps.append.finders.map((finder): Chip => ({ words: `then ${finder}`, count: 0, kind: 'keep' })),
        ];
      case 'verify': {
        const v = summary?.verdicts;
        return v
          ? (['valid', 'risky', 'invalid', 'unknown'] as const).map((verdict): Chip => ({
              words: `${verdict} ${v[verdict].toLocaleString('en-GB')}`,
              count: 0,
              kind: verdict === 'valid' ? 'keep' : '',
            }))
          : [];
      }
    }
  });

  protected async edit() {
    const { StepDialog } = await import('./step-dialog');
    this.dialog.open(StepDialog, { width: '620px', data: { job: this.job(), step: this.step() } });
  }

  protected async editTitles() {
    const { TitlesDialog } = await import('./titles-dialog');
    this.dialog.open(TitlesDialog, { width: '640px', data: this.job().id });
  }
}

const capital = (word: string) => word[0]!.toUpperCase() + word.slice(1);
const shortList = (words: string[]) =>
  words.length > 4 ? `${words.slice(0, 3).join(', ')} and ${words.length - 3} more` : words.join(', ');
