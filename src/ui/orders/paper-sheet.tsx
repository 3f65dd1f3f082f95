import {
  letterheadOf,
  type OrderPaper,
  type PaperColumn,
  type PaperLine,
  type PaperPart,
  paperLanguageOf,
} from '@/core/purchase';
import { PaperFigures } from '@/formats/paperFigures';
import { paperWords } from '@/formats/paperWords';
import { Address, Parties, Party } from '../frame/paper';

/** A purchase order as its supplier gets it, in the supplier's language: what the PDF says, for the screen and the printer. */
export function PaperSheet({ paper }: { paper: OrderPaper }) {
  const { setup } = paper;
  const words = paperWords(paper.language);
  const texts = setup.texts[paperLanguageOf(paper.language)];
  const say = new PaperFigures(words, paper.currency);
  const shows = (column: PaperColumn) => !setup.hides.includes(column);
  const many = new Set(paper.lines.flatMap((l) => l.parts.map((p) => p.place))).size > 1;
  const facts = [
    [words.date, say.day(paper.orderDate)],
    [words.payment, paper.payment],
    [
      words.delivery,
      [paper.delivery, paper.shippingWay && `${words.by} ${paper.shippingWay}`].filter(Boolean).join(', '),
    ],
    [words.contact, paper.contact],
  ].filter(([, text]) => text);
  const sums: (readonly [string, number])[] = [
    ...(paper.charges.length + paper.taxes.length > 0 ? [[words.goods, paper.net] as const] : []),
    ...paper.charges.map((c) => [c.name, c.minor] as const),
    ...paper.taxes.map((t) => [words.tax(say.percent(t.percent), say.amount(t.taxable)), t.tax] as const),
  ];
  const partText = (l: PaperLine, p: PaperPart) =>
    [
      `${say.quantity(p.packs)} × ${l.packName}`,
      shows('base_quantity') && l.unit !== '' && l.unit !== l.packName ? `= ${say.quantity(p.base)} ${l.unit}` : '',
      many || p.address ? p.place : '',
      p.address.replaceAll('\n', ', '),
    ]
      .filter(Boolean)
      .join(', ');
  return (
    <div lang={words.locale}>
      <p className="mb-6 whitespace-pre-line text-xs">{letterheadOf(paper)}</p>
      <Parties>
        <Party title={words.supplier}>
          <Address text={paper.supplier} />
        </Party>
        <Party title={words.deliverTo}>
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
        {facts.map(([title, text]) => (
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
            const seconds = [
              l.edition && `${words.edition} ${l.edition}`,
              shows('their_number') && l.theirNumber && `${words.yourNumber} ${l.theirNumber}`,
              shows('our_number') && l.ourNumber && `${words.ourNumber} ${l.ourNumber}`,
              shows('makers_number') && l.makersNumber && `${words.makersNumber} ${l.makersNumber}`,
              shows('references') && l.references.length > 0 && `${words.for} ${l.references.join(', ')}`,
              l.note,
            ].filter(Boolean) as string[];
            const terms = [
              !l.freeOfCharge && l.per !== '1' && words.per(l.per),
              !l.freeOfCharge && l.discount !== '0' && words.less(say.percent(l.discount)),
            ].filter(Boolean) as string[];
            return (
              <tr key={l.lineNo} className="break-inside-avoid border-b border-neutral-300 align-top">
                <td className="py-1.5">{l.lineNo}</td>
                <td className="py-1.5 pr-3 max-sm:pr-1">
                  {l.description}
                  {seconds.map((s) => (
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
                      <span>{partText(l, p)}</span>
                      <span className="sm:whitespace-nowrap">{say.day(p.date)}</span>
                    </span>
                  ))}
                </td>
                <td className="figure py-1.5">
                  {l.freeOfCharge ? words.free : l.price === null ? '–' : say.price(l.price)}
                  {terms.map((t) => (
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
          {sums.map(([name, minor]) => (
            <tr key={name}>
              <td colSpan={5} className="pt-1 pr-4 text-right">
                {name}
              </td>
              <td className="figure pt-1">{say.amount(minor)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td colSpan={5} className="py-2 pr-4 text-right">
              {words.total}, {paper.taxes.length > 0 ? words.withTax : words.withoutTax}
            </td>
            <td className="figure py-2">
              {say.amount(paper.total)} {paper.currency}
            </td>
          </tr>
        </tfoot>
      </table>
      {texts.closing && <p className="mt-5 whitespace-pre-line">{texts.closing}</p>}
      <p className="mt-8 text-xs">
        {paper.approvedBy ? `${words.approvedBy} ${paper.approvedBy}. ` : ''}
        {words.quote}
      </p>
      {setup.foot && <p className="mt-4 whitespace-pre-line text-xs">{setup.foot}</p>}
    </div>
  );
}
