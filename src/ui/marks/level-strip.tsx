import type { Gauge } from '@/services/stock/gauge';
import type { Format } from '../format';

const WIDTH = 150;
const LINE = 9;

/** Free, coming and owed stock against minimum and maximum, as words. */
export function gaugeWords(g: Gauge, format: Format): string {
  return [
    `${format.quantity(g.free)} free`,
    g.owed > 0 ? `${format.quantity(g.owed)} owed` : '',
    g.coming > 0 ? `${format.quantity(g.coming)} coming` : '',
    g.inTrays > 0 ? `${format.quantity(g.inTrays)} in trays` : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

/** A thin gauge: ink is free stock, hatching on the way, solid notch below the line is min, open notch above is max;
 *  what is owed or missing runs left of zero in brick. Figures stand beside it and in its name. */
export function LevelStrip({ gauge, format, id }: { gauge: Gauge; format: Format; id: string }) {
  const coming = gauge.coming + gauge.inTrays;
  const owed = Math.max(gauge.owed, -gauge.free, 0);
  const right = Math.max(gauge.max ?? 0, gauge.min ?? 0, Math.max(gauge.free, 0) + coming, 1) * 1.06;
  const x = (q: number) => ((q + owed) / (right + owed)) * WIDTH;
  const zero = x(0);
  const free = x(Math.max(gauge.free, 0));
  const end = x(Math.max(gauge.free, 0) + coming);
  const { min, max } = gauge;
  const label = `${gaugeWords(gauge, format)}${min === null ? '' : `, minimum ${format.quantity(min)}`}${max === null ? '' : `, maximum ${format.quantity(max)}`}`;
  const hatch = `hatch-${id}`;
  return (
    <svg
      width={WIDTH}
      height={18}
      style={{ maxWidth: '100%' }}
      viewBox={`0 0 ${WIDTH} 18`}
      role="img"
      aria-label={label}
      className="block overflow-visible"
    >
      <defs>
        <pattern id={hatch} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.4" height="4" className="fill-ink" />
        </pattern>
      </defs>
      <line x1="0" x2={WIDTH} y1={LINE} y2={LINE} className="stroke-rule-strong" />
      {free > zero && <rect x={zero} y={LINE - 4} width={free - zero} height="4.5" className="fill-ink" />}
      {end > free && (
        <rect
          x={free}
          y={LINE - 4}
          width={end - free}
          height="4.5"
          fill={`url(#${hatch})`}
          className="stroke-ink"
          strokeWidth="0.7"
        />
      )}
      {owed > 0 && <rect x="0" y={LINE - 4} width={zero} height="4.5" className="fill-stop" />}
      {owed > 0 && <line x1={zero} x2={zero} y1={LINE - 7} y2={LINE + 3} className="stroke-ink" />}
      {min !== null && <path d={`M${x(min)} ${LINE + 2}l3.6 5h-7.2z`} className="fill-ink" />}
      {max !== null && <path d={`M${x(max)} ${LINE - 3}l3.4 -5h-6.8z`} className="fill-none stroke-ink" />}
    </svg>
  );
}
