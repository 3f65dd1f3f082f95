import type { LineDifference } from '@/core/purchase';
import type { OrderView } from '@/services/purchase/readOrder';
import type { Format } from '../format';
import { differenceWords } from './words';

/** What an order says otherwise than its supplier has it, and the changes that were approved before. */
export function OrderChanges({ order, format }: { order: OrderView; format: Format }) {
  const { otherwise, amendments, head } = order;
  const open = head.state === 'amending' || head.state === 'amendment_awaiting';
  const unsent = !open && otherwise.length > 0;
  if (!open && !unsent && amendments.length === 0) return null;
  return (
    <section>
      <h2 className="head">Changes</h2>
      {(open || unsent) && (
        <>
          <p className="second">
            {open ? `Change ${head.amendmentNo + 1}: the supplier has it otherwise` : 'The supplier has it otherwise'}
          </p>
          {otherwise.length === 0 ? (
            <p className="text-muted">Nothing is changed yet.</p>
          ) : (
            <Differences differences={otherwise} format={format} />
          )}
        </>
      )}
      {amendments.map((a) => (
        <details key={a.no} className="mt-1.5">
          <summary className="second cursor-pointer">
            Change {a.no}, approved by {a.approvedBy} {format.date(a.approvedAt.slice(0, 10))}
            {a.sentAt ? `, sent ${format.date(a.sentAt.slice(0, 10))}` : ', not sent yet'}
          </summary>
          <Differences differences={a.differences} format={format} />
        </details>
      ))}
    </section>
  );
}

function Differences({ differences, format }: { differences: readonly LineDifference[]; format: Format }) {
  return (
    <ul className="mt-1 grid gap-1">
      {differences.map((d) => (
        <li key={`${d.lineNo}${d.kind}`} className="grid grid-cols-[16px_1fr]">
          <span className="font-bold text-attention" aria-hidden="true">
            ≠
          </span>
          <span>
            <span className="second">
              line {d.lineNo}, {d.description}
            </span>
            <span className="block">{differenceWords(d, format)}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
