import { DestroyRef, DOCUMENT, inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';

/** What a key does; false lets it go on to whoever else listens. */
type Action = (event: KeyboardEvent) => unknown;

/** Keys by name, as `x`, `/`, `shift+x`, `ctrl+z`, `ctrl+shift+z`, `arrowdown`, `space`; without one of its own, Shift and a letter are the letter. */
export type Keys = Record<string, Action>;

/** True while somebody writes into a field, where letters are letters. */
export const isTyping = ({ target }: Event): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** The one place that listens to keys. It knows when somebody is typing or a dialog is open; then they are left alone. */
@Injectable({ providedIn: 'root' })
export class Shortcuts {
  private readonly dialog = inject(MatDialog);
  private readonly listening: Keys[] = [];

  constructor() {
    inject(DOCUMENT).addEventListener('keydown', (event) => this.press(event));
  }

  /** Hears keys as long as the component lives that calls it, before those who called earlier. */
  use(keys: Keys): void {
    this.listening.unshift(keys);
    inject(DestroyRef).onDestroy(() => this.listening.splice(this.listening.indexOf(keys), 1));
  }

  private press(event: KeyboardEvent) {
    if (event.defaultPrevented || event.altKey || isTyping(event) || this.dialog.openDialogs.length > 0) return;
    const name = nameOf(event);
    for (const keys of this.listening) {
      const action = (event.shiftKey && keys[`shift+${name}`]) || keys[name];
      if (!action || action(event) === false) continue;
      event.preventDefault();
      return;
    }
  }
}

function nameOf({ key, ctrlKey, metaKey, shiftKey }: KeyboardEvent): string {
  const plain = key === ' ' ? 'space' : key.toLowerCase();
  if (!ctrlKey && !metaKey) return plain;
  return `ctrl+${shiftKey ? 'shift+' : ''}${plain}`;
}
