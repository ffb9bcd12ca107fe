import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { servicesIn, type Job } from '@sieve/contract';
import { Session } from '../../state/session';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { viewOf } from './steps/registry';
import type { StepState } from './steps/step-view';

/** The rules of a step as chips, each with what it set aside, and the way to change them. */
@Component({
  selector: 'cs-step-rules',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, CountPipe, NgComponentOutlet],
  template: `
    @for (chip of chips(); track chip.words) {
      @if (chip.count > 0 && chip.why; as code) {
        <button
          class="chip {{ chip.kind }}"
          type="button"
          title="Show those it set aside"
          [attr.aria-pressed]="code === why()"
          (click)="looked.emit(code === why() ? null : code)"
        >
          {{ chip.words }} <span class="num">−{{ chip.count | count }}</span>
        </button>
      } @else {
        <span class="chip {{ chip.kind }}"
          >{{ chip.words }}
          @if (chip.count > 0) {
            <span class="num">−{{ chip.count | count }}</span>
          }
        </span>
      }
    }
    @if (view().action; as action) {
      <ng-container *ngComponentOutlet="action; inputs: { job: job(), step: state().step }" />
    }
    <button mat-stroked-button type="button" (click)="edit()"><cs-icon name="sliders" /> {{ view().setUp }}</button>
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
    [aria-pressed='true'] {
      box-shadow: inset 0 0 0 1.5px currentColor;
      font-weight: 600;
    }
  `,
})
export class StepRules {
  private readonly dialog = inject(MatDialog);
  readonly job = input.required<Job>();
  readonly state = input.required<StepState>();
  /** The reason whose rows are shown. */
  readonly why = input('');
  /** The rows of a reason are asked for; null: all of them again. */
  readonly looked = output<string | null>();
  private readonly settings = inject(Session).settings;
  private readonly serviceName = (service: string) =>
    servicesIn(this.settings()).find(({ id }) => id === service)?.name ?? service;
  protected readonly view = computed(() => viewOf(this.state().step.kind));
  protected readonly chips = computed(() => this.view().chips(this.state(), this.serviceName));

  protected async edit() {
    const { StepDialog } = await import('./step-dialog');
    this.dialog.open(StepDialog, {
      width: this.view().wide ? '940px' : '620px',
      maxWidth: '94vw',
      data: { jobId: this.job().id, step: this.state().step },
    });
  }
}
