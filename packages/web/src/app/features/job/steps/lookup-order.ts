import { toSignal } from '@angular/core/rxjs-interop';
import type { FormControl } from '@angular/forms';
import { startWith } from 'rxjs';

/** A lookup order that a control of a form holds: the ids of its services now, and how another order is put there. */
export function lookupOrder(control: FormControl<string[]>) {
  return {
    ids: toSignal(control.valueChanges.pipe(startWith(control.value)), { requireSync: true }),
    set(ids: readonly string[]) {
      control.setValue([...ids]);
      control.markAsDirty();
    },
  };
}
