/** What a person may want to be told of. */
export const alertMatters = ['below_zero', 'below_min', 'above_max', 'transfer_asked', 'count_due'] as const;
export type AlertMatter = (typeof alertMatters)[number];
/** at_once: within a quarter of a minute; daily: when a business day begins. */
export type AlertHow = 'at_once' | 'daily';
export type AlertRule = { readonly matter: AlertMatter; readonly how: AlertHow; readonly byMail: boolean };

/** Whether a text can be a mail address: one @ with something on both sides and a point behind it, no blanks. Whether mail
 *  arrives there only sending tells. Source: common practice, narrower than RFC 5321. */
export const isMailAddress = (text: string): boolean =>
  text.length <= 200 && /^[^\s@<>,;"]+@[^\s@<>,;"]+\.[^\s@<>,;".]{2,}$/.test(text);
