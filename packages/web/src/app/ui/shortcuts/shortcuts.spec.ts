import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { drawn, webHarness } from '../../testing/web-harness';
import { Shortcuts } from './shortcuts';

const heard: string[] = [];

@Component({ selector: 'cs-listener', changeDetection: ChangeDetectionStrategy.OnPush, template: '<input />' })
class Listener {
  constructor() {
    inject(Shortcuts).use({
      x: () => heard.push('x'),
      'ctrl+shift+z': () => heard.push('again'),
      'ctrl+z': () => heard.push('back'),
      k: () => false,
    });
  }
}

it('keys are heard while their component lives, not in a field and not behind a dialog', async () => {
  webHarness();
  const { element, fixture } = await drawn(Listener);
  document.body.append(element);
  const press = (key: string, more: KeyboardEventInit = {}, target: EventTarget = document.body) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    target.dispatchEvent(event);
    return event.defaultPrevented;
  };
  expect(press('X')).toBe(true);
  press('z', { ctrlKey: true });
  press('Z', { metaKey: true, shiftKey: true });
  expect(press('k')).toBe(false);
  expect(press('x', {}, element.querySelector('input')!)).toBe(false);
  const dialogs = jest.spyOn(fixture.debugElement.injector.get(MatDialog), 'openDialogs', 'get');
  dialogs.mockReturnValue([{} as never]);
  expect(press('x')).toBe(false);
  dialogs.mockRestore();
  fixture.destroy();
  expect(press('x')).toBe(false);
  expect(heard).toEqual(['x', 'back', 'again']);
});
