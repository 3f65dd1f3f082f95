import type { ChangeLine } from '@/data/repositories/changes';

type Said = Readonly<Record<string, unknown>>;

const parsed = (json: string | null): unknown => {
  if (json === null) return null;
  try {
    return JSON.parse(json) as unknown;
  } catch {
    return json;
  }
};

const isMoney = (key: string) => /(price|cost|amount|freight)/.test(key);

/** A value in words; of `money` a single decimal gets its zero. */
const text = (v: unknown, money = false): string => {
  if (v === null || v === undefined || v === '') return 'empty';
  if (v === true) return 'yes';
  if (v === false) return 'no';
  if (Array.isArray(v)) return v.length === 0 ? 'none' : v.map((one) => text(one)).join(', ');
  if (typeof v === 'object')
    return Object.entries(v)
      .map(([k, one]) => `${name(k)} ${text(one, isMoney(k))}`)
      .join(' ');
  const said = /^-?\d+\.\d{6}$/.test(String(v)) ? String(v).replace(/\.?0+$/, '') : String(v);
  return money && /^-?\d+\.\d$/.test(said) ? `${said}0` : said;
};

const name = (key: string) =>
  key
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replaceAll('_', ' ')
    .toLowerCase();

/** What a change was, field by field: before and after; a field that only one side has stands as it is.
 *  Quantities lose the zeros of their six decimals; prices keep two. */
export function ChangeWords({ change }: { change: Pick<ChangeLine, 'action' | 'before' | 'after'> }) {
  const [before, after] = [parsed(change.before), parsed(change.after)];
  const isSaid = (v: unknown): v is Said => typeof v === 'object' && v !== null && !Array.isArray(v);
  if (!isSaid(before) && !isSaid(after)) {
    return (
      <>
        {change.action}
        {after !== null && (
          <>
            : {before !== null && <s className="second">{text(before, isMoney(change.action))}</s>}{' '}
            {text(after, isMoney(change.action))}
          </>
        )}
      </>
    );
  }
  const [b, a] = [isSaid(before) ? before : {}, isSaid(after) ? after : {}];
  const keys = [...new Set([...Object.keys(b), ...Object.keys(a)])].filter(
    (k) => !(text(b[k]) === 'empty' && text(a[k]) === 'empty'),
  );
  return (
    <>
      {change.action}
      {keys.length > 0 && ': '}
      {keys.slice(0, 14).map((k, i) => (
        <span key={k}>
          {i > 0 && ', '}
          <span className="second">{name(k)}</span>{' '}
          {k in b && k in a && text(b[k]) !== text(a[k]) ? (
            <>
              <s className="second">{text(b[k], isMoney(k))}</s> → <strong>{text(a[k], isMoney(k))}</strong>
            </>
          ) : (
            text(k in a ? a[k] : b[k], isMoney(k))
          )}
        </span>
      ))}
      {keys.length > 14 && ` and ${keys.length - 14} more`}
    </>
  );
}
