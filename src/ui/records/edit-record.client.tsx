'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { RecordsView } from '@/services/sheets/readRecords';
import { RecordDialog } from './record-dialog.client';

/** A button that opens the form of one record, or of a new one. */
export function EditRecord(props: {
  view: RecordsView;
  label: string;
  title: string;
  primary?: boolean;
  begins?: Readonly<Record<string, string>>;
  /** Where to go once a new one is saved; its id is put behind it. */
  goTo?: string;
}) {
  const [open, setOpen] = useState(false);
  const router = useRouter();
  const [record] = props.view.records;
  return (
    <>
      <button
        type="button"
        className={props.primary ? 'btn btn-primary' : 'btn btn-outline'}
        onClick={() => setOpen(true)}
      >
        {props.label}
      </button>
      {open && (
        <RecordDialog
          sheet={props.view.sheet}
          title={props.title}
          fields={props.view.fields}
          record={record ?? null}
          renamable={props.view.renamable}
          begins={props.begins}
          onClose={(saved) => {
            setOpen(false);
            if (saved?.ids[0] && props.goTo) router.push(`${props.goTo}/${saved.ids[0]}`);
          }}
        />
      )}
    </>
  );
}
