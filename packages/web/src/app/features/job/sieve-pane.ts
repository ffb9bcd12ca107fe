import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { StepKind } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { JobMeter } from '../../ui/job-meter';
import { sieveLevels } from '../../ui/levels';
import { SieveShape } from '../../ui/sieve-shape';

interface Tray {
  step: StepKind | null;
  name: string;
  detail: string;
  left: number;
  aside: string;
}

/** The brief's meter and the sieve, step by step. */
@Component({
  selector: 'cs-sieve-pane',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, JobMeter, SieveShape, CountPipe],
  template: `
    <div class="head">
      <h1>{{ job().name }}</h1>
      <p>{{ job().note }}</p>
      <cs-job-meter [job]="job()" />
    </div>
    <div class="sieve">
      <cs-sieve-shape [levels]="levels()" />
      <div class="trays">
        @for (tray of trays(); track tray.name) {
          <button
            type="button"
            class="tray"
            [class.on]="tray.step === step()"
            [attr.aria-current]="tray.step === step() ? 'step' : null"
            (click)="tray.step ? chosen.emit(tray.step) : sources.emit()"
          >
            <span class="l"
              ><b>{{ tray.name }}</b
              ><small>{{ tray.detail }}</small></span
            >
            <span class="r"
              ><span class="num c">{{ tray.left | count }}</span
              ><small class="aside num">{{ tray.aside }}</small></span
            >
          </button>
        }
      </div>
    </div>
    <div class="foot">
      <a mat-flat-button [routerLink]="['/jobs', job().id, 'export']"><cs-icon name="export" /> Export</a>
      <a mat-stroked-button [routerLink]="['/jobs', job().id, 'bring']"><cs-icon name="plus" /> Bring in</a>
    </div>
  `,
  styleUrl: './sieve-pane.scss',
})
export class SievePane {
  readonly job = input.required<Job>();
  /** Null: the sources. */
  readonly step = input.required<StepKind | null>();
  readonly chosen = output<StepKind>();
  readonly sources = output();
  protected readonly levels = computed(() => sieveLevels(this.job()));

  protected readonly trays = computed<Tray[]>(() => {
    const { summary, steps } = this.job();
    const levels = this.levels();
    const minus = (n: number) => (n > 0 ? `−${n.toLocaleString('en-GB')}` : '');
    const left = (i: number) => (summary ? levels[i]!.left : 0);
    const many = (n: number, one: string, more: string) => `${n.toLocaleString('en-GB')} ${n === 1 ? one : more}`;
    const s = summary?.steps;
    return [
      {
        step: null,
        name: 'Sources',
        detail: summary ? many(summary.sources, 'file', 'files') : 'none yet',
        left: left(0),
        aside: '',
      },
      {
        step: 'tidy',
        name: 'Tidy',
        detail: summary ? `${summary.edits.toLocaleString('en-GB')} changes` : '',
        left: left(1),
        aside: minus(s?.tidy.aside ?? 0),
      },
      {
        step: 'match',
        name: 'Match duplicates',
        detail: steps.match.on ? (summary ? many(summary.pairs, 'pair to judge', 'pairs to judge') : '') : 'off',
        left: left(2),
        aside: minus(summary?.merged ?? 0),
      },
      {
        step: 'screen',
        name: 'Screen',
        detail: s?.screen.look
          ? many(s.screen.look, 'wants a look', 'want a look')
          : many(steps.screen.rules.length, 'rule', 'rules'),
        left: left(3),
        aside: minus(s?.screen.aside ?? 0),
      },
      {
        step: 'append',
        name: 'Append email',
        detail: steps.append.on
          ? s?.append.waits
            ? many(s.append.waits, 'waits', 'wait')
            : `patterns + ${many(steps.append.finders.length, 'finder', 'finders')}`
          : 'off',
        left: left(4),
        aside: minus(s?.append.aside ?? 0),
      },
      {
        step: 'verify',
        name: 'Verify',
        detail: steps.verify.on ? (s?.verify.waits ? many(s.verify.waits, 'waits', 'wait') : 'valid only') : 'off',
        left: left(5),
        aside: minus(s?.verify.aside ?? 0),
      },
    ];
  });
}
