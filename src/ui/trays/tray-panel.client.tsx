'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { TopUpView } from '@/services/purchase/readTopUp';
import type { TrayView } from '@/services/purchase/readTrays';
import type { Spending } from '@/services/purchase/spending';
import type { TopUpTarget } from '@/services/purchase/topUps';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { FillGauge } from '../marks/fill-gauge';
import { useMay } from '../may-context.client';
import { SumLine } from '../reckoning/reckoning';
import { becomesWords, joinsWords, slotWords, trayBecomes, weightWords } from './words';

/** One tray: how far it is, what it becomes, what could be brought forward. */
export function TrayPanel({ tray: t, today }: { tray: TrayView; today: string }) {
  const format = useFormat();
  const mayOrder = useMay('orders.edit');
  const { busy, sentence, run } = useCommand();
  // What was just said shows at once; what is kept comes with the page.
  const kept = { held: t.held, becomes: t.choice.kind === 'joins' ? `joins ${t.choice.id}` : t.choice.kind };
  const [said, setSaid] = useState<Partial<typeof kept>>({});
  const now = { ...kept, ...said };
  const set = async (change: Partial<typeof kept>) => {
    setSaid({ ...said, ...change });
    const { held, becomes } = { ...now, ...change };
    const [kind, order] = becomes.split(' ');
    await run('set-tray', { supplierId: t.supplierId, held, becomes: kind, orderId: order ? Number(order) : null });
    setSaid({});
  };
  const money = (minor: number) => format.amount(minor, t.currency);
  return (
    <div className="grid gap-5">
      <div>
        <h2 className="text-[16px] font-semibold">
          <Link prefetch={false} className="name" href={`/suppliers/${t.supplierId}`}>
            {t.supplier}
          </Link>
        </h2>
        <p className="second">
          {slotWords(t, today, format)} · here {format.date(t.arrives)}
        </p>
      </div>
      <div>
        <h3 className="head">
          In the tray <span className="font-normal text-muted">{t.currency}, net</span>
        </h3>
        <SumLine label={countOf(t.lines, 'line')} origin={weightWords(t, format)} figure={money(t.net)} />
        {t.needs > 0 && (
          <SumLine
            operator="+"
            label="Its open needs"
            origin={
              <Link prefetch={false} className="link" href={`/needs?q=${encodeURIComponent(t.supplier)}`}>
                {countOf(t.needs, 'need')}
              </Link>
            }
            figure={money(t.withNeeds - t.net)}
          />
        )}
        {t.needs > 0 && <SumLine label="Together" figure={money(t.withNeeds)} result />}
      </div>
      {t.orderMinimum > 0 && <Progress tray={t} target={t.orderMinimum} of="minimum" name="Minimum" />}
      {t.freeFreight !== null && <Progress tray={t} target={t.freeFreight} of="free_freight" name="Free freight" />}
      <div>
        <h3 className="head">Becomes</h3>
        {t.orders.map((o) => (
          <SumLine
            key={o.places.join()}
            label={becomesWords(o, format)}
            origin={`${o.places.join(', ')} · ${countOf(o.lines, 'line')}, here ${format.date(o.arrives)}`}
            figure={money(o.net)}
          />
        ))}
        {mayOrder && (
          <div className="mt-2 flex flex-wrap items-center gap-3">
            <select
              className="entry"
              aria-label={`What the tray of ${t.supplier} becomes`}
              disabled={busy}
              value={now.becomes}
              onChange={(e) => set({ becomes: e.target.value })}
            >
              <option value="by_rule">by rule</option>
              <option value="new">a new order</option>
              {t.drafts.map((d) => (
                <option key={d.id} value={`joins ${d.id}`}>
                  {joinsWords(d, format)}
                </option>
              ))}
            </select>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-action"
                checked={now.held}
                disabled={busy}
                onChange={(e) => set({ held: e.target.checked })}
              />
              hold it back
            </label>
          </div>
        )}
        {t.held && <p className="second mt-1">Stays here when orders are made.</p>}
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
      </div>
      {(t.paymentTerms || t.deliveryTerms) && (
        <p className="second">{[t.paymentTerms, t.deliveryTerms].filter(Boolean).join(' · ')}</p>
      )}
      <p className="sr-only">{trayBecomes(t, format)}</p>
    </div>
  );
}

/** How far a tray, alone and with its open needs, is towards a sum; what could be brought forward to reach it. */
function Progress(props: { tray: TrayView; target: number; of: TopUpTarget; name: string }) {
  const { tray: t, target, of, name } = props;
  const format = useFormat();
  const mayDecide = useMay('needs.decide');
  const { busy, sentence, run } = useCommand();
  const [found, setFound] = useState<{ readonly for: number; readonly view: TopUpView | null } | 'failed' | null>(null);
  const missing = target - t.net;
  const look = async () => {
    const response = await fetch(`/api/reads/top-up?supplier=${t.supplierId}&target=${of}`).catch(() => null);
    setFound(
      response?.ok ? { for: t.net, view: ((await response.json()) as { value: TopUpView | null }).value } : 'failed',
    );
  };
  const money = (minor: number) => format.amount(Math.round(minor), t.currency);
  const take = async (view: TopUpView) => {
    const words = `${countOf(view.buys.length, 'line')} brought forward into the ${t.supplier} tray`;
    const outcome = await run('top-up-tray', { supplierId: t.supplierId, target: of, amount: view.amount }, { words });
    if (outcome.ok) setFound(null);
  };
  // What was reckoned for another sum is not shown.
  const view = found !== null && found !== 'failed' && found.for === t.net ? found : null;
  return (
    <div>
      <h3 className="head">
        {name} <span className="font-normal text-muted">{money(target)}</span>
        {of === 'free_freight' && <span className="font-normal text-muted">freight {money(t.freight)}</span>}
      </h3>
      <p className="flex items-center gap-2">
        <FillGauge value={t.net} target={target} label={`The tray towards ${name.toLowerCase()}`} />
        {missing <= 0 ? 'reached' : `${money(missing)} short`}
        {missing > 0 && t.needs > 0 && (
          <span className="second">
            {t.withNeeds >= target
              ? 'reached with its open needs'
              : `${money(target - t.withNeeds)} short with its needs`}
          </span>
        )}
      </p>
      {missing > 0 && mayDecide && !view && (
        <button type="button" className="chip mt-1.5" onClick={look}>
          What to bring forward
        </button>
      )}
      {found === 'failed' && <p className="second">Could not be read just now.</p>}
      {view &&
        (view.view === null ? (
          <p className="second mt-1">Nothing that will be needed within four months reaches it.</p>
        ) : (
          <TopUpLines view={view.view} of={of} busy={busy} onTake={take} />
        ))}
      {sentence && (
        <p className="fault" role="alert">
          {sentence}
        </p>
      )}
    </div>
  );
}

function TopUpLines(props: { view: TopUpView; of: TopUpTarget; busy: boolean; onTake: (view: TopUpView) => void }) {
  const { view } = props;
  const format = useFormat();
  const money = (minor: number) => format.amount(Math.round(minor), view.currency);
  return (
    <div className="mt-2">
      {view.buys.map((b) => (
        <SumLine
          key={`${b.itemId}/${b.locationId}`}
          operator="+"
          label={`${b.itemName}, ${format.quantity(b.packs)} ${plural(b.packName, b.packs)}`}
          origin={`${b.location} · needed in ${format.days(b.neededInDays)}, holding ${money(b.holding)}`}
          figure={money(b.amount)}
        />
      ))}
      <SumLine
        label="Holding all of it"
        origin={
          props.of === 'free_freight'
            ? view.worthIt
              ? `saves freight of ${money(view.saving)}: worth it`
              : `saves freight of ${money(view.saving)}: not worth it`
            : 'what it costs to order now instead of waiting'
        }
        figure={money(view.holding)}
        result
      />
      <button type="button" className="btn btn-outline mt-2" disabled={props.busy} onClick={() => props.onTake(view)}>
        Bring {countOf(view.buys.length, 'line')} forward
      </button>
    </div>
  );
}

/** The budgets of this month against what is ordered and what lies here. */
export function Budgets({ spending, currency }: { spending: readonly Spending[]; currency: string }) {
  const format = useFormat();
  if (spending.length === 0) return null;
  return (
    <div>
      <h3 className="head">
        Budget{' '}
        <span className="font-normal text-muted">
          {new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' }).format(
            Date.parse(`${spending[0]?.month}T00:00:00Z`),
          )}
        </span>
      </h3>
      {spending.map((s) => (
        <SumLine
          key={s.category ?? ''}
          label={s.category ?? 'All goods'}
          origin={
            <>
              {format.amount(s.spent, currency)} spent, {format.amount(s.committed, currency)} committed,{' '}
              {format.amount(s.drafts + s.trays, currency)} here and in drafts, of {format.amount(s.budget, currency)}
            </>
          }
          figure={
            <span className={s.left < 0 ? 'text-stop' : ''}>
              {s.left < 0 ? `${format.amount(-s.left, currency)} over` : `${format.amount(s.left, currency)} left`}
            </span>
          }
        />
      ))}
    </div>
  );
}
