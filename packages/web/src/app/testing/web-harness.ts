import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import type { Provider, Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { Subject } from 'rxjs';
import { LIVE, type LiveEvent } from '../api/live';
import { work } from '../state/work';
import * as effects from '../state/work-effects';

/** What a component needs around it, with a server that only the test answers for. */
export function webHarness(providers: Provider[] = []) {
  const live = new Subject<LiveEvent>();
  TestBed.configureTestingModule({
    providers: [
      provideHttpClient(),
      provideHttpClientTesting(),
      provideRouter([]),
      provideStore(),
      provideState(work),
      provideEffects(effects),
      { provide: LIVE, useValue: live },
      ...providers,
    ],
  });
  const http = TestBed.inject(HttpTestingController);
  return { live, http };
}

/** Draws a component with its inputs. */
export async function drawn<T>(component: Type<T>, inputs: Record<string, unknown> = {}) {
  const fixture: ComponentFixture<T> = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  return {
    fixture,
    element,
    stable: () => fixture.whenStable(),
    text: () => element.textContent.replace(/\s+/g, ' ').trim(),
    button: (name: string | RegExp): HTMLButtonElement => {
      const found = [...element.querySelectorAll('button')].find((button) =>
        (button.getAttribute('aria-label') ?? button.textContent).match(name),
      );
      if (!found) throw new Error(`no button ${String(name)} in ${element.textContent}`);
      return found;
    },
  };
}
