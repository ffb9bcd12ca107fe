import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { TriedService, TryService } from '@sieve/contract';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';

/** Asks a service, as it stands in the form, for what costs nothing, and says what came of it. */
@Component({
  selector: 'cs-try-service',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule],
  template: `
    <button
      mat-stroked-button
      type="button"
      [disabled]="isAsking() || url() === ''"
      [attr.aria-label]="'Try ' + (name() || 'it')"
      (click)="ask()"
    >
      Try it
    </button>
    <span role="status" [class.bad]="isBad()">{{ words() }}</span>
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
      align-items: center;
      min-width: 0;
    }
    button {
      flex: none;
    }
    span {
      color: var(--ink-2);
      font-size: 12px;
    }
    .bad {
      color: var(--plum);
    }
  `,
})
export class TryServiceButton {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  readonly kind = input<TryService['kind']>('account');
  readonly name = input.required<string>();
  readonly url = input.required<string>();
  readonly key = input.required<string>();
  /** What came of it; nothing any more once another address or key is typed. */
  private readonly tried = linkedSignal<string, TriedService | string | null>({
    source: () => `${this.url()} ${this.key()}`,
    computation: () => null,
  });
  protected readonly isAsking = computed(() => this.tried() === 'asking');
  protected readonly isBad = computed(() => {
    const tried = this.tried();
    return tried !== null && tried !== 'asking' && (typeof tried === 'string' || tried.state === 'down');
  });
  protected readonly words = computed(() => {
    const tried = this.tried();
    if (tried === null) return '';
    if (tried === 'asking') return 'asking…';
    if (typeof tried === 'string') return tried;
    if (tried.state === 'down') return `Cannot be asked: ${tried.reason}.`;
    const plan = tried.plan ? ` ${tried.plan.left} of the ${tried.plan.credits} credits of its plan are left.` : '';
    return `Answers, in ${tried.ms} ms, and takes the key.${plan}`;
  });

  protected ask() {
    const asked = { kind: this.kind(), name: this.name(), url: this.url(), key: this.key() };
    const tell = (tried: TriedService | string) => {
      if (asked.url === this.url() && asked.key === this.key()) this.tried.set(tried);
    };
    this.tried.set('asking');
    this.doing.run(this.api.tryService(asked), tell, tell);
  }
}
