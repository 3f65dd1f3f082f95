import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { readRecordsOf } from '@/services/sheets/readRecords';

/** The fields of a form for a new record of one kind. */
export const GET = (request: Request) =>
  read(request, (actor, query) =>
    readRecordsOf(deps(), actor, {
      sheet: query.get('sheet') ?? '',
      which: 'none',
      decimal: query.get('decimal') === ',' ? ',' : '.',
    }),
  );
