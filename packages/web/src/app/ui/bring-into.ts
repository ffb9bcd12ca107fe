import { DestroyRef, DOCUMENT, inject, type Signal } from '@angular/core';
import { Router } from '@angular/router';
import { Handover } from '../state/handover';
import { isTyping } from './shortcuts/shortcuts';

/** On every page of a job: files that are dropped and rows that are pasted anywhere go to Bring in. Called while a screen is made. */
export function bringInto(jobId: Signal<number>): void {
  const document = inject(DOCUMENT);
  const router = inject(Router);
  const handover = inject(Handover);
  const bring = (files: File[]) => {
    handover.files.set(files);
    void router.navigate(['/jobs', jobId(), 'bring']);
  };
  /** The stylesheet draws over the page where it will go. */
  const show = (over: boolean) => document.body.classList.toggle('dropping', over);
  const holdsFiles = ({ dataTransfer }: DragEvent) => dataTransfer?.types.includes('Files') ?? false;
  const listeners = {
    paste: (event: ClipboardEvent) => {
      if (isTyping(event)) return;
      const file = Handover.tableOf(event.clipboardData?.getData('text/plain') ?? '');
      if (file) bring([file]);
    },
    dragover: (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      show(true);
    },
    dragleave: (event: DragEvent) => event.relatedTarget === null && show(false),
    drop: (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      show(false);
      bring([...event.dataTransfer!.files]);
    },
  };
  for (const [name, listener] of Object.entries(listeners)) document.addEventListener(name, listener as EventListener);
  inject(DestroyRef).onDestroy(() => {
    show(false);
    for (const [name, listener] of Object.entries(listeners))
      document.removeEventListener(name, listener as EventListener);
  });
}
