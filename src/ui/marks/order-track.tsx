import { type OrderState, type Progress, stageOf } from '@/core/purchase';

const stops = ['drafted', 'approved', 'sent', 'confirmed', 'received'] as const;

const words: Readonly<Record<OrderState, string>> = {
  draft: 'drafted',
  awaiting: 'awaits approval',
  approved: 'approved',
  sent: 'sent',
  confirmed: 'confirmed',
  amending: 'being changed',
  amendment_awaiting: 'change awaits approval',
  closed: 'closed',
  put_back: 'back in its trays',
  cancelled: 'cancelled',
};

/** Where an order stands, in words. */
export function orderWords(state: OrderState, came: Progress): string {
  if (state === 'put_back' || state === 'cancelled' || state === 'amending' || state === 'amendment_awaiting')
    return words[state];
  if (state === 'closed') return 'closed';
  if (came === 'all') return 'received';
  return came === 'part' ? 'part received' : words[state];
}

/** Five short segments; a half one is part received. A cut corner: something differs from what was agreed. */
export function OrderTrack(props: {
  state: OrderState;
  came: Progress;
  before?: OrderState | null;
  differs?: boolean;
}) {
  const { state, came, differs } = props;
  const reached = stageOf({ state, before: props.before ?? null });
  const live = reached > 0;
  const filled = (i: number) => live && (i < reached || (came === 'all' && i === 4));
  const label = `${orderWords(state, came)}${differs ? ', differs from what was agreed' : ''}`;
  return (
    <svg width="120" height="9" viewBox="0 0 120 9" role="img" aria-label={label} className="block">
      {stops.map((stop, i) => (
        <g key={stop}>
          <rect
            x={i * 24 + 0.5}
            y="0.5"
            width="21"
            height="7"
            className={filled(i) ? 'fill-ink stroke-ink' : 'fill-none stroke-ink'}
          />
          {i === 4 && came === 'part' && <rect x={i * 24 + 0.5} y="0.5" width="10" height="7" className="fill-ink" />}
        </g>
      ))}
      {!live && <line x1="0" x2="118" y1="4" y2="4" className="stroke-stop" strokeWidth="1.5" />}
      {differs && live && <path d="M72 0 h8 l-8 8 z" className="fill-attention" />}
    </svg>
  );
}
