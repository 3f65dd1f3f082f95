import type { ImportView } from '@/services/sheets/readImports';

/** How far an import is, in a word. */
export const stateWords: Readonly<Record<ImportView['state'], string>> = {
  uploading: 'being sent',
  reading: 'being looked at',
  to_map: 'to be mapped',
  checking: 'being checked',
  checked: 'to be brought in',
  applying: 'being written',
  applied: 'brought in',
  refused: 'refused',
  cancelled: 'let go',
};

export const isBusy = (state: ImportView['state']): boolean =>
  state === 'uploading' || state === 'reading' || state === 'checking' || state === 'applying';
