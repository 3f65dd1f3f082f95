'use client';

import Papa from 'papaparse';
import { useState } from 'react';
import { countTable } from '@/core/stock';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { Modal } from '../frame/modal.client';

/** What was found, from a file that was filled in, from a scanner, or pasted from a spreadsheet. */
export function CountFile({ countId, countedAt }: { countId: number; countedAt: string }) {
  const { busy, sentence, run } = useCommand();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const rows = countTable(Papa.parse<string[]>(text.trim(), { skipEmptyLines: true }).data);
  const submit = async () => {
    const outcome = await run('enter-count-rows', { countId, countedAt, rows });
    if (!outcome.ok) return;
    setText('');
    setOpen(false);
  };
  return (
    <>
      <button type="button" className="btn btn-outline" onClick={() => setOpen(true)}>
        Take a file
      </button>
      {open && (
        <Modal title="Take a file" width="w-[560px]" onLeave={() => setOpen(false)}>
          <form
            className="grid gap-3 p-5"
            onSubmit={(e) => {
              e.preventDefault();
              submit();
            }}
          >
            <h2 className="text-[16px] font-semibold">What was counted, from a file</h2>
            <p className="second">
              The CSV of this count with its column “Counted” filled in, or a list of item numbers or barcodes with
              quantities. Rows without a quantity are not counted; what stands in several rows is added up.
            </p>
            <input
              type="file"
              className="entry"
              accept=".csv,.txt,text/csv,text/plain"
              aria-label="File"
              onChange={async (e) => setText((await e.target.files?.[0]?.text()) ?? '')}
            />
            <textarea
              className="entry h-40 font-mono text-[12px]"
              aria-label="Rows"
              placeholder="or paste here"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
            {sentence && (
              <p className="fault" role="alert">
                {sentence}
              </p>
            )}
            <div className="flex justify-end gap-2">
              <button type="button" className="btn btn-outline" onClick={() => setOpen(false)}>
                Leave it
              </button>
              <button
                type="submit"
                className="btn btn-primary"
                disabled={busy || rows.length === 0}
                title={rows.length === 0 ? 'No row says an item and a quantity' : undefined}
              >
                Take {countOf(rows.length, 'row')}
              </button>
            </div>
          </form>
        </Modal>
      )}
    </>
  );
}
