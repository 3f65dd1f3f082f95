import { askedChanges } from '@/app/_server/askedChanges';
import { askedMovements } from '@/app/_server/askedMovements';
import { askedMovers } from '@/app/_server/askedMovers';
import { deps } from '@/app/_server/deps';
import { download, fileAnswer, typeOf } from '@/app/_server/download';
import { refuse } from '@/app/_server/respond';
import type { Actor } from '@/core/people';
import type { Result } from '@/core/result';
import { recordsCsv, recordsXlsx } from '@/formats/writeSheet';
import { readItemExport } from '@/services/catalogue/readItemExport';
import type { Failure } from '@/services/failure';
import type { ListFile } from '@/services/lists/fileColumns';
import { isExportedList, readListExport } from '@/services/lists/readListExport';
import { readChangeExport } from '@/services/people/readChangeExport';
import { readFrame } from '@/services/people/readFrame';
import { readPeopleExport } from '@/services/people/readPeopleExport';
import { readArrivalExport } from '@/services/stock/readArrivalExport';
import { differenceGroups } from '@/services/stock/readCountDifferences';
import { readCountExport, readDifferenceExport } from '@/services/stock/readCountExport';
import { readMovementExport } from '@/services/stock/readMovementExport';
import { readMoverExport } from '@/services/stock/readMoverExport';
import { readStockValueExport } from '@/services/stock/readStockValueExport';
import { readJobExport } from '@/services/work/readJobExport';
import { readMailExport } from '@/services/work/readMailExport';

/** A list as it is shown: `list` is its name, `cols` the columns of the list of items; arrivals and changes take what their
 *  pages take. */
export const GET = (request: Request, { params }: { params: Promise<{ list: string }> }) =>
  download(async (actor) => {
    const query = new URL(request.url).searchParams;
    const found = await fileOf((await params).list, actor, (name) => query.get(name) ?? '');
    if (!found) return refuse({ kind: 'not_found', what: 'list' });
    if (!found.ok) return refuse(found.error);
    const { title, today, columns, rows } = found.value;
    const type = typeOf(request);
    const content = type === 'csv' ? recordsCsv(columns, rows) : await recordsXlsx(columns, rows);
    return fileAnswer(`${title} ${today}`, type, content);
  });

async function fileOf(
  name: string,
  actor: Actor,
  said: (name: string) => string,
): Promise<Result<ListFile, Failure> | null> {
  const list = said('list');
  if (name === 'items') return readItemExport(deps(), actor, { list, columns: said('cols').split(',') });
  if (name === 'changes') return readChangeExport(deps(), actor, askedChanges(said));
  if (name === 'arrivals') {
    const { locations } = await readFrame(deps(), actor);
    const locationId = locations.find((l) => l.code === said('at'))?.id ?? null;
    return readArrivalExport(deps(), actor, { locationId });
  }
  if (name === 'movements') {
    const { locations } = await readFrame(deps(), actor);
    const locationId = locations.find((l) => l.code === said('at'))?.id ?? null;
    return readMovementExport(deps(), actor, askedMovements(said, locationId));
  }
  if (name === 'stock-value') return readStockValueExport(deps(), actor, { on: said('on') });
  if (name === 'count') return readCountExport(deps(), actor, Number(said('id')) || 0);
  if (name === 'count-differences') {
    const { locations } = await readFrame(deps(), actor);
    return readDifferenceExport(deps(), actor, {
      by: differenceGroups.find((g) => g === said('by')) ?? 'item',
      ...{ from: said('from'), to: said('to') },
      locationId: locations.find((l) => l.code === said('at'))?.id ?? null,
    });
  }
  if (name === 'movers') {
    const { locations } = await readFrame(deps(), actor);
    const locationId = locations.find((l) => l.code === said('at'))?.id ?? null;
    return readMoverExport(deps(), actor, askedMovers(said, locationId));
  }
  if (name === 'people') return readPeopleExport(deps(), actor);
  if (name === 'mail') return readMailExport(deps(), actor);
  if (name === 'work') return readJobExport(deps(), actor);
  return isExportedList(name) ? readListExport(deps(), actor, { name, list }) : null;
}
