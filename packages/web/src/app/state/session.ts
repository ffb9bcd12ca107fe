import { computed, effect, inject, Injectable, signal } from '@angular/core';
import type { Settings, SettingsView } from '@sieve/contract';
import { Api } from '../api/api';
import { Doing } from './doing';

export type Theme = 'auto' | 'light' | 'dark';

/** The settings in use, and this browser's theme. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  /** As they were read, with their version. */
  readonly view = signal<SettingsView | null>(null);
  readonly settings = computed<Settings | null>(() => this.view()?.settings ?? null);
  readonly currency = computed(() => this.settings()?.currency ?? 'GBP');
  readonly theme = signal<Theme>((localStorage.getItem('theme') as Theme | null) ?? 'auto');

  constructor() {
    this.reload();
    effect(() => {
      const theme = this.theme();
      localStorage.setItem('theme', theme);
      document.documentElement.style.colorScheme = theme === 'auto' ? 'light dark' : theme;
    });
  }

  reload() {
    this.doing.run(this.api.settings(), (view) => this.view.set(view));
  }
}
