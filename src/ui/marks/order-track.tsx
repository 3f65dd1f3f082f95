import type { OrderState, Progress } from '@/core/purchase';

const stops = ['drafted', 'approved', 'sent', 'confirmed', 'received'] as const;

/** Where an order stands, in words. */
export function orderWords(state: OrderState, came: Progress): string {
  if (state === 'put_back') return 'back in its trays';
  if (state === 'cancelled') return 'cancelled';
  if (came === 'all') return 'received';
  if (came === 'part') return 'part received';
  return state === 'draft' ? 'drafted' : state;
}

/** Five short segments; a half one is part received. */
export function OrderTrack({ state, came }: { state: OrderState; came: Progress }) {
  const live = state === 'draft' || state === 'approved' || state === 'sent';
  const reached = { draft: 1, approved: 2, sent: 3, put_back: 0, cancelled: 0 }[state];
  const filled = (i: number) => live && (i < reached || (came === 'all' && i === 4));
  return (
    <svg width="120" height="9" viewBox="0 0 120 9" role="img" aria-label={orderWords(state, came)} className="block">
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
    </svg>
  );
}
