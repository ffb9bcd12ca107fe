import { afterNextRender, ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { Session, type Theme } from '../state/session';
import { work, workActions } from '../state/work';
import { Icon } from '../ui/icon/icon';
import { RunLine } from '../ui/run-line';
import { Shortcuts } from '../ui/shortcuts/shortcuts';

/** The frame: one top bar, and the screen below it. */
@Component({
  selector: 'cs-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterOutlet, RouterLink, RouterLinkActive, Icon, MatMenuModule, RunLine],
  host: { '(document:keydown)': 'onKey($event)' },
  templateUrl: './shell.html',
  styleUrl: './shell.scss',
})
export class Shell {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  protected readonly session = inject(Session);
  protected readonly running = this.store.selectSignal(work.selectLiveRuns);
  protected readonly connected = this.store.selectSignal(work.selectConnected);
  protected readonly showRuns = signal(false);
  protected readonly themes: { value: Theme; label: string }[] = [
    { value: 'auto', label: 'Theme as the system has it' },
    { value: 'light', label: 'Light theme' },
    { value: 'dark', label: 'Dark theme' },
  ];

  constructor() {
    this.store.dispatch(workActions.opened());
    inject(Shortcuts).use({ '?': () => void this.openKeys() });
    // At hand before it is asked for, so that what is typed after Ctrl K goes into it.
    afterNextRender(() => setTimeout(() => void import('./commands').catch(() => undefined), 1000));
  }

  /** Ctrl K works while somebody types, too. */
  protected onKey(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      void this.openCommands();
    }
  }

  protected async openCommands() {
    if (this.dialog.openDialogs.length > 0) return;
    const { Commands } = await import('./commands');
    this.dialog.open(Commands, { width: '560px', position: { top: '70px' }, autoFocus: 'input' });
  }

  protected async openKeys() {
    if (this.dialog.openDialogs.length > 0) return;
    const { Keys } = await import('./keys');
    this.dialog.open(Keys, { width: '620px' });
  }
}
