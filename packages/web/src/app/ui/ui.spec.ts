import { TestBed } from '@angular/core/testing';
import { say, FATE_WORDS, errorWords, ERRORS } from '@sieve/contract';
import { reasonOf } from '../features/job/reason';
import type { ContactRow } from '@sieve/contract';
import { Meter } from './meter';
import { SieveShape } from './sieve-shape';
import { VerdictMark } from './verdict-mark';
import { decisionWords } from './decision-words';
import { timeLeft } from './run-line';

describe('small components', () => {
  it('the sieve gets narrower with the rows and its mesh finer', async () => {
    const fixture = TestBed.createComponent(SieveShape);
    fixture.componentRef.setInput('levels', [{ left: 100 }, { left: 50 }, { left: 10 }]);
    fixture.componentRef.setInput('heights', [62, 34, 62]);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    expect(element.querySelector('svg')!.getAttribute('height')).toBe('158');
    expect(element.querySelectorAll('path')[2]!.getAttribute('d')).toMatch(/^M[\d.]+ 96 /);
    const radii = [...element.querySelectorAll('circle')].map((circle) => Number(circle.getAttribute('r')));
    expect(element.querySelectorAll('path')).toHaveLength(3);
    expect(radii[0]).toBeGreaterThan(radii.at(-1)!);
  });

  it('a verdict has a shape of its own and a name', async () => {
    const shapes = new Set<string>();
    for (const verdict of ['valid', 'risky', 'invalid', 'unknown']) {
      const fixture = TestBed.createComponent(VerdictMark);
      fixture.componentRef.setInput('verdict', verdict);
      await fixture.whenStable();
      const element = fixture.nativeElement as HTMLElement;
      expect(element.getAttribute('aria-label')).toBe(verdict);
      shapes.add(element.innerHTML.replace(/var\([^)]*\)/g, ''));
    }
    expect(shapes.size).toBe(4);
  });

  it('a meter never shows more than the whole', async () => {
    const fixture = TestBed.createComponent(Meter);
    fixture.componentRef.setInput('value', 150);
    fixture.componentRef.setInput('whole', 100);
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('i:last-child')!.style.width).toBe('100%');
  });
});

describe('words', () => {
  it('codes become words with their facts', () => {
    expect(say(FATE_WORDS['rule-words']!, { field: 'title', word: 'driver', rule: 0 })).toBe('title says “driver”');
    expect(say(FATE_WORDS['verdict']!, { verdict: 'risky', reason: 'catch-all' })).toBe(
      'risky: the domain takes mail for anybody',
    );
    expect(decisionWords({ kind: 'set-aside', recordIds: [1, 2] })).toBe('2 records set aside');
    expect([timeLeft(36), timeLeft(240), timeLeft(7200)]).toEqual(['36 s left', '4 min left', '2.0 h left']);
    const row = {
      verdict: '',
      reason: '',
      fate: { step: 'screen', state: 'aside', code: 'by-hand', why: {} },
    } as unknown as ContactRow;
    expect(reasonOf(row)).toBe('set aside by you');
  });

  it('every error says what happened and, where something was at stake, what was kept', () => {
    for (const [code, [status, words]] of Object.entries(ERRORS)) {
      expect([code, status >= 400 && words.length > 20]).toEqual([code, true]);
      expect(words).not.toMatch(/!|oops/i);
    }
    expect(errorWords('too-many-columns', { name: 'a.csv', columns: 301, limit: 300 })).toContain(
      'a.csv has 301 columns; up to 300',
    );
  });
});
