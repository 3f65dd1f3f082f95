import type { RecordsView } from '@/services/sheets/readRecords';
import type { SheetName } from '@/services/sheets/sheetKind';
import { RecordTable } from './record-table.client';

export type TableOf = {
  readonly sheet: SheetName;
  /** What one is called: "pack". */
  readonly one: string;
  readonly title?: string;
  /** Said when there is none. */
  readonly empty: string;
  readonly given?: Readonly<Record<string, string>>;
};

/** The lists of what is on file of one thing, below each other; those that may not be seen are left out. */
export function RecordTables(props: {
  records: Readonly<Partial<Record<SheetName, RecordsView>>>;
  given: Readonly<Record<string, string>>;
  tables: readonly TableOf[];
}) {
  return (
    <div className="pb-10">
      {props.tables.map(({ sheet, ...table }) => {
        const view = props.records[sheet];
        return view && <RecordTable key={sheet} view={view} given={props.given} {...table} />;
      })}
    </div>
  );
}
