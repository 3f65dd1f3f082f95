import { err, ok } from '@/core/result';
import { type Column, textColumn } from '@/core/sheets';

/** A time of day, hours and minutes. */
export const timeColumn = (key: string, about: Parameters<typeof textColumn>[2]): Column => ({
  ...textColumn(key, 5, about),
  otherwise: null,
  read: (text) => {
    const m = /^(\d{1,2})[:.](\d{2})(?::00)?$/.exec(text);
    if (!m || Number(m[1]) > 23 || Number(m[2]) > 59) return err({ kind: 'not_one_of', choices: ['00:00 to 23:59'] });
    return ok(`${(m[1] as string).padStart(2, '0')}:${m[2]}`);
  },
});
