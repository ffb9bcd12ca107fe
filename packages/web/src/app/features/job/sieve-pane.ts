import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { stepWords, type Job } from '@sieve/contract';
import { CountPipe } from '../../ui/count';
import { forWhom } from '../../ui/for-whom';
import { Icon } from '../../ui/icon/icon';
import { JobMeter } from '../../ui/job-meter';
import { sieveLevels } from '../../ui/levels';
import { SieveShape } from '../../ui/sieve-shape';
import { statesOf, viewOf } from './steps/registry';
import { many } from './steps/step-view';

interface Tray {
  step: string | null;
  name: string;
  detail: string;
  left: number;
  aside: string;
  off: boolean;
}

/** Of a tray, in px; what is off takes less. */
const HEIGHT = 62;
const HEIGHT_OFF = 34;

const minus = (n: number) => (n > 0 ? `−${n.toLocaleString('en-GB')}` : '');

/** The brief's meter and the sieve, step by step. */
@Component({
  selector: 'cs-sieve-pane',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, JobMeter, SieveShape, CountPipe],
  template: `
    <div class="head">
      <h1>{{ job().name }}</h1>
      <p>{{ forWhom(job()) }}</p>
      <cs-job-meter [job]="job()" />
      <button type="button" class="link" (click)="openBrief()">Change the brief</button>
    </div>
    <div class="sieve">
      <cs-sieve-shape [levels]="levels()" [heights]="heights()" />
      <div class="trays">
        @for (tray of trays(); track tray.name) {
          <button
            type="button"
            class="tray"
            [class.on]="tray.step === step()"
            [class.off]="tray.off"
            [style.height.px]="heights()[$index]"
            [attr.aria-current]="tray.step === step() ? 'step' : null"
            (click)="tray.step ? chosen.emit(tray.step) : sources.emit()"
          >
            <span class="l"
              ><b>{{ tray.name }}</b
              ><small>{{ tray.detail }}</small></span
            >
            @if (!tray.off) {
              <span class="r"
                ><span class="num c">{{ tray.left | count }}</span
                ><small class="aside num">{{ tray.aside }}</small></span
              >
            }
          </button>
        }
      </div>
    </div>
    @if (job().summary?.companies; as companies) {
      <button type="button" class="link companies" (click)="showCompanies.emit()">
        <span class="num">{{ companies | count }}</span> {{ companies === 1 ? 'company' : 'companies' }}
      </button>
    }
    <div class="foot">
      <a mat-flat-button [routerLink]="['/jobs', job().id, 'export']"><cs-icon name="export" /> Export</a>
      <a mat-stroked-button [routerLink]="['/jobs', job().id, 'bring']"><cs-icon name="plus" /> Bring in</a>
    </div>
  `,
  styleUrl: './sieve-pane.scss',
})
export class SievePane {
  readonly job = input.required<Job>();
  /** Null: the sources; '': none of them. */
  readonly step = input.required<string | null>();
  readonly chosen = output<string>();
  readonly sources = output();
  readonly showCompanies = output();
  private readonly dialog = inject(MatDialog);
  protected readonly forWhom = forWhom;
  protected readonly levels = computed(() => sieveLevels(this.job()));

  protected readonly trays = computed<Tray[]>(() => {
    const { summary } = this.job();
    const left = (i: number) => (summary ? this.levels()[i]!.left : 0);
    return [
      {
        step: null,
        name: 'Sources',
        detail: summary ? many(summary.sources, 'source', 'sources') : 'none yet',
        left: left(0),
        aside: '',
        off: false,
      },
      ...statesOf(this.job()).map((state, i): Tray => {
        const view = viewOf(state.step.kind);
        return {
          step: state.step.id,
          name: stepWords(state.step.kind),
          detail: view.detail(state),
          left: left(i + 1),
          aside: minus(view.out?.(state) ?? state.count.aside),
          off: !state.step.on,
        };
      }),
    ];
  });
  protected readonly heights = computed(() => this.trays().map(({ off }) => (off ? HEIGHT_OFF : HEIGHT)));

  protected async openBrief() {
    const { BriefDialog } = await import('../../ui/brief-dialog');
    this.dialog.open(BriefDialog, { width: '480px', data: this.job() });
  }
}
