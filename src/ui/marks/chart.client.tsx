'use client';

import { useEffect, useRef } from 'react';

/** Colours and font of the page, as a chart needs them. */
export type ChartTokens = Readonly<
  Record<'ink' | 'muted' | 'rule' | 'action' | 'stop' | 'attention' | 'sheet' | 'field' | 'font', string>
>;

export function tokensOf(box: HTMLElement): ChartTokens {
  const style = getComputedStyle(box);
  const token = (n: string) => style.getPropertyValue(n).trim();
  return {
    ...{ ink: token('--color-base-content'), muted: token('--muted'), rule: token('--rule') },
    ...{ action: token('--color-primary'), stop: token('--color-error'), attention: token('--color-warning') },
    ...{ sheet: token('--color-base-100'), field: token('--rule-strong'), font: style.fontFamily },
  };
}

/** A box with a chart in it, drawn again in another theme or width. Its figures stand in a table beside it, so it is hidden from those
 *  who can't see it. The library comes when the chart does. `option` stays the same from one rendering to the next. */
export function Chart(props: {
  name: string;
  className: string;
  option: (tokens: ChartTokens) => Record<string, unknown>;
}) {
  const box = useRef<HTMLDivElement>(null);
  const { option } = props;
  useEffect(() => {
    let gone = false;
    let stop = () => {};
    const draw = async () => {
      const { makeChart } = await import('../outlook/echarts');
      if (gone || !box.current) return;
      const dark = window.matchMedia('(prefers-color-scheme: dark)');
      const chart = makeChart(box.current);
      const show = () => chart.setOption(option(tokensOf(box.current as HTMLElement)), true);
      show();
      const resize = new ResizeObserver(() => chart.resize());
      resize.observe(box.current);
      const themed = new MutationObserver(show);
      themed.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
      dark.addEventListener('change', show);
      stop = () => {
        resize.disconnect();
        themed.disconnect();
        dark.removeEventListener('change', show);
        chart.dispose();
      };
    };
    draw();
    return () => {
      gone = true;
      stop();
    };
  }, [option]);
  return <div ref={box} aria-hidden="true" data-chart={props.name} className={props.className} />;
}
