import type { AbstractControl, ValidationErrors } from '@angular/forms';
import type { Settings } from '@sieve/contract';

type FolderBudgets = Settings['budgets']['folders'];

const LINE = /^(?<folder>.+):\s*(?<amount>\d+([.,]\d{1,2})?)$/;

/** Reads `folder: amount`, one a line. `problem`: what is wrong with the first line that is not so. */
export function folderBudgetsIn(text: string): { folders: FolderBudgets; problem: string } {
  const folders: FolderBudgets = [];
  for (const [at, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const { folder, amount } = LINE.exec(line.trim())?.groups ?? {};
    if (!folder?.trim() || !amount)
      return { folders, problem: `Line ${at + 1}: wants a folder, a colon and an amount, like “Larkfell autumn: 120”` };
    if (folders.some((one) => one.folder === folder.trim()))
      return { folders, problem: `Line ${at + 1}: the folder ${folder.trim()} is there twice` };
    folders.push({ folder: folder.trim(), cents: Math.round(Number(amount.replace(',', '.')) * 100) });
  }
  return { folders, problem: '' };
}

export const folderBudgetsText = (folders: FolderBudgets): string =>
  folders
    .map(({ folder, cents }) => `${folder}: ${cents % 100 === 0 ? cents / 100 : (cents / 100).toFixed(2)}`)
    .join('\n');

export const folderBudgetsOnly = ({ value }: AbstractControl<string>): ValidationErrors | null => {
  const { problem } = folderBudgetsIn(value);
  return problem ? { problem } : null;
};
