import type { Outlook } from '@/services/planning/readOutlook';
import type { Format } from '../format';

/** Advice on an open order, as a sentence. */
export function adviceSentence(a: Outlook['advice'][number], format: Format): string {
  const due = format.date(a.date);
  const ref = a.ref.charAt(0).toUpperCase() + a.ref.slice(1);
  switch (a.kind) {
    case 'sooner':
      return `${ref} is due ${due} and wanted ${a.wantedOn ? format.date(a.wantedOn) : 'sooner'}: ${
        a.out ? 'stock runs out before it comes' : 'stock falls below its safety stock before it comes'
      }. Ask for it sooner.`;
    case 'later':
      return `${ref} is due ${due} but not missed before ${a.wantedOn ? format.date(a.wantedOn) : 'later'}: it may come later.`;
    case 'not_needed':
      return `${ref}, due ${due}, is not needed in the time looked at.`;
  }
}
