import { addDays, daysBetween } from '@/core/calendar';
import type { StockCourse as Course } from '@/services/planning/readStockCourse';
import type { Format } from '../format';

const WIDTH = 344;
const HEIGHT = 128;
const LEFT = 34;
const TOP = 16;
const BOTTOM = 108;
/** Figures at the left need so much room each. */
const LABEL = 11;

/** What the chart shows, in words. */
export function courseWords(c: Course, unit: string, format: Format): string {
  const first = c.days[0] ?? 0;
  const now = c.days.at(-1) ?? 0;
  return [
    `${format.quantity(first)} on ${format.date(c.from)}, ${format.quantity(now)} ${unit} today`,
    c.min === null ? '' : `minimum ${format.quantity(c.min)}`,
    c.max === null ? '' : `maximum ${format.quantity(c.max)}`,
    ...c.expected.map((e) => `${format.quantity(e.quantity)} expected ${format.date(e.date)}`),
    c.arrives === null ? '' : `an order of today would arrive ${format.date(c.arrives)}`,
  ]
    .filter(Boolean)
    .join('; ');
}

/** Stock of the last weeks as a stepped line with minimum and maximum, then what is expected, hatched, and when an order of
 *  today would arrive. Below zero it is brick. */
export function StockCourse({ course: c, unit, format }: { course: Course; unit: string; format: Format }) {
  const ends = [addDays(c.today, 14), c.arrives ?? '', ...c.expected.map((e) => e.date)].sort();
  const last = ends.at(-1) ?? c.today;
  const span = Math.max(1, daysBetween(c.from, last) + 1);
  const coming = c.expected.reduce((sum, e) => sum + e.quantity, 0);
  const now = c.days.at(-1) ?? 0;
  const high = Math.max(1, c.max ?? 0, c.min ?? 0, now + coming, ...c.days) * 1.04;
  const low = Math.min(0, ...c.days);
  const x = (date: string) => LEFT + (daysBetween(c.from, date) / span) * (WIDTH - LEFT);
  const y = (q: number) => BOTTOM - ((q - low) / (high - low)) * (BOTTOM - TOP);
  const step = (WIDTH - LEFT) / span;
  const path = c.days
    .map((q, i) => `${i === 0 ? `M${LEFT} ${y(q)}` : `V${y(q).toFixed(1)}`}h${step.toFixed(3)}`)
    .join('');
  const zero = y(0);
  // Figures that would stand on each other: the one that matters less goes.
  const figures = [0, c.min, c.max]
    .flatMap((q) => (q === null ? [] : [{ q, at: y(q) }]))
    .filter((f, i, all) => !all.slice(0, i).some((g) => Math.abs(g.at - f.at) < LABEL));
  let stacked = Math.max(now, 0);
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={courseWords(c, unit, format)}
      className="block"
    >
      <defs>
        <pattern id="course-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.4" height="4" className="fill-ink" />
        </pattern>
        <clipPath id="course-below">
          <rect x="0" y={zero} width={WIDTH} height={HEIGHT} />
        </clipPath>
      </defs>
      {figures.map((f) => (
        <text key={f.q} x={LEFT - 6} y={f.at + 3.5} textAnchor="end" className="fill-muted text-[10.5px]">
          {format.quantity(f.q)}
        </text>
      ))}
      <line x1={LEFT} x2={WIDTH} y1={zero} y2={zero} className="stroke-rule-strong" />
      {c.max !== null && (
        <line x1={LEFT} x2={WIDTH} y1={y(c.max)} y2={y(c.max)} className="stroke-field" strokeDasharray="1.5 3" />
      )}
      {c.min !== null && (
        <line x1={LEFT} x2={WIDTH} y1={y(c.min)} y2={y(c.min)} className="stroke-attention" strokeDasharray="4 3" />
      )}
      <path d={path} className="fill-none stroke-ink" strokeWidth="1.4" />
      {low < 0 && <path d={path} className="fill-none stroke-stop" strokeWidth="2.2" clipPath="url(#course-below)" />}
      {c.expected.map((e) => {
        const from = stacked;
        stacked += e.quantity;
        // What should have come already stands at today.
        const at = Math.max(x(e.date), x(c.today));
        return (
          <rect
            key={`${e.date}${from}`}
            x={at}
            y={y(stacked)}
            width={Math.max(2 * step, 6)}
            height={Math.max(1, y(from) - y(stacked))}
            fill="url(#course-hatch)"
            className="stroke-ink"
            strokeWidth="0.7"
          />
        );
      })}
      <line x1={x(c.today) + step} x2={x(c.today) + step} y1={TOP - 4} y2={BOTTOM} className="stroke-rule-strong" />
      {c.arrives !== null && (
        <>
          <line
            x1={x(c.arrives)}
            x2={x(c.arrives)}
            y1={TOP - 4}
            y2={BOTTOM}
            className="stroke-action"
            strokeWidth="1.6"
          />
          <text x={x(c.arrives) - 4} y={TOP - 6} textAnchor="end" className="fill-action text-[10.5px]">
            ordered today, here {format.date(c.arrives)}
          </text>
        </>
      )}
      <text x={LEFT} y={HEIGHT - 5} className="fill-muted text-[10.5px]">
        {format.date(c.from)}
      </text>
      <text x={x(c.today)} y={HEIGHT - 5} textAnchor="middle" className="fill-muted text-[10.5px]">
        today
      </text>
    </svg>
  );
}
