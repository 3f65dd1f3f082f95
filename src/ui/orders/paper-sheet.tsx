import { letterheadOf, type OrderPaper, PaperText } from '@/core/purchase';
import { Address, Parties, Party } from '../frame/paper';

/** A purchase order as its supplier gets it, in the supplier's language: what the PDF says, for the screen and the printer. */
export function PaperSheet({ paper }: { paper: OrderPaper }) {
  const { setup } = paper;
  const say = new PaperText(paper);
  const { words, texts } = say;
  return (
    <div lang={words.locale}>
      <p className="mb-6 whitespace-pre-line text-xs">{letterheadOf(paper)}</p>
      <Parties>
        <Party title={words.supplier}>
          <Address text={paper.supplier} />
        </Party>
        <Party title={words.deliverTo}>
          {paper.deliverTo.length === 0 && words.eachLine}
          {paper.deliverTo.map((p) => (
            <span key={p.name} className="mb-1.5 block">
              {paper.deliverTo.length > 1 && <strong className="block font-semibold">{p.name}</strong>}
              <Address text={p.address} />
            </span>
          ))}
        </Party>
        <Party title={words.invoiceTo}>
          <Address text={paper.invoiceTo} />
        </Party>
      </Parties>
      <dl className="mb-5 flex flex-wrap gap-x-8 gap-y-2">
        {say.facts.map(([title, text]) => (
          <div key={title}>
            <dt className="text-xs">{title}</dt>
            <dd className="font-semibold">{text}</dd>
          </div>
        ))}
      </dl>
      {[texts.opening, paper.text].filter(Boolean).map((text) => (
        <p key={text} className="mb-4 whitespace-pre-line">
          {text}
        </p>
      ))}
      {paper.changes.length > 0 && (
        <section className="mb-4">
          <h2 className="font-semibold">{words.differs}</h2>
          <ul>
            {paper.changes.map((d) => (
              <li key={`${d.lineNo}${d.kind}`} className="pl-3">
                {say.difference(d)}
              </li>
            ))}
          </ul>
        </section>
      )}
      <table className="w-full border-collapse max-sm:text-[11px] print:text-[10pt]">
        <thead>
          <tr className="border-b border-black text-left text-xs">
            <th className="w-6 py-1 font-semibold">#</th>
            <th className="w-[36%] py-1 font-semibold">{words.item}</th>
            <th className="py-1 font-semibold">{words.quantity}</th>
            <th className="w-[100px] py-1 font-semibold">{words.wanted}</th>
            <th className="figure py-1 font-semibold max-sm:whitespace-normal">{words.price}</th>
            <th className="figure py-1 pl-4 font-semibold">{words.net}</th>
          </tr>
        </thead>
        <tbody>
          {paper.lines.map((l) => {
            return (
              <tr key={l.lineNo} className="break-inside-avoid border-b border-neutral-300 align-top">
                <td className="py-1.5">{l.lineNo}</td>
                <td className="py-1.5 pr-3 max-sm:pr-1">
                  {l.description}
                  {say.below(l).map((s) => (
                    <span key={s} className="block text-xs">
                      {s}
                    </span>
                  ))}
                </td>
                <td colSpan={2} className="py-1.5 pr-3 max-sm:pr-1">
                  {l.parts.map((p) => (
                    <span
                      key={`${p.place}${p.date}${p.packs}`}
                      className="grid grid-cols-[1fr_88px] gap-x-3 max-sm:block"
                    >
                      <span>{[say.packs(l, p), ...say.where(l, p)].join(', ')}</span>
                      <span className="sm:whitespace-nowrap">{say.day(p.date)}</span>
                    </span>
                  ))}
                </td>
                <td className="figure py-1.5">
                  {say.priced(l)}
                  {say.terms(l).map((t) => (
                    <span key={t} className="block text-xs">
                      {t}
                    </span>
                  ))}
                </td>
                <td className="figure py-1.5 pl-4">{say.amount(l.net)}</td>
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          {say.sums.map(([name, minor]) => (
            <tr key={name}>
              <td colSpan={5} className="pt-1 pr-4 text-right">
                {name}
              </td>
              <td className="figure pt-1">{say.amount(minor)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td colSpan={5} className="py-2 pr-4 text-right">
              {say.total}
            </td>
            <td className="figure py-2">
              {say.amount(paper.total)} {paper.currency}
            </td>
          </tr>
        </tfoot>
      </table>
      {texts.closing && <p className="mt-5 whitespace-pre-line">{texts.closing}</p>}
      <p className="mt-8 text-xs">{say.last}</p>
      {setup.foot && <p className="mt-4 whitespace-pre-line text-xs">{setup.foot}</p>}
    </div>
  );
}
