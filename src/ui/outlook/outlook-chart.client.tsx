'use client';

import { useEffect, useRef } from 'react';
import type { Outlook } from '@/services/planning/readOutlook';
import { plural } from '../format';
import { useFormat } from '../format-context.client';

const units = (q: number) => q / 1e6;

/** The projection as a chart: stock at the close of each day, lines of minimum, maximum and safety stock, receipts and demand
 *  as marks, the run-out. Its figures stand in the table below it, so it is hidden from those who can't see it. The library
 *  comes when the chart does. */
export function OutlookChart({ outlook, unit }: { outlook: Outlook; unit: string }) {
  const box = useRef<HTMLDivElement>(null);
  const format = useFormat();
  useEffect(() => {
    let gone = false;
    let stop = () => {};
    const draw = async () => {
      const { makeChart } = await import('./echarts');
      if (gone || !box.current) return;
      const dark = window.matchMedia('(prefers-color-scheme: dark)');
      const chart = makeChart(box.current);
      const show = () =>
        chart.setOption(
          optionOf(
            outlook,
            box.current as HTMLElement,
            (q) => format.quantity(q),
            (d) => format.date(d),
            plural(unit, 2e6),
          ),
          true,
        );
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
  }, [outlook, unit, format]);
  return <div ref={box} aria-hidden="true" data-chart="outlook" className="h-[300px] w-full" />;
}

function optionOf(
  o: Outlook,
  box: HTMLElement,
  quantity: (q: number) => string,
  date: (d: string) => string,
  name: string,
) {
  const style = getComputedStyle(box);
  const token = (n: string) => style.getPropertyValue(n).trim();
  const [ink, muted, rule, action, stop, attention] = [
    '--color-base-content',
    '--muted',
    '--rule',
    '--color-primary',
    '--color-error',
    '--color-warning',
  ].map(token);
  const font = style.fontFamily;
  const days = o.days.map((d) => d.date);
  const level = (
    y: number | null,
    label: string,
    color: string | undefined,
    type: 'solid' | 'dashed' | 'dotted',
    position = 'insideEndTop',
  ) =>
    y === null || y <= 0
      ? []
      : [
          {
            yAxis: units(y),
            label: { formatter: `${label} ${quantity(y)}`, color: muted, position },
            lineStyle: { color, type, width: 1 },
          },
        ];
  const marks = (of: Outlook['receipts'], symbol: string, color: string | undefined) =>
    of
      .filter((d) => days.includes(d.date))
      .map((d) => ({
        value: [d.date, units(o.days.find((x) => x.date === d.date)?.closing ?? 0)],
        name: `${d.ref} ${quantity(d.quantity)}`,
        symbol,
        itemStyle: { color },
      }));
  return {
    animation: false,
    textStyle: { fontFamily: font, color: ink },
    grid: { left: 56, right: 24, top: 18, bottom: 28 },
    tooltip: {
      trigger: 'axis',
      backgroundColor: token('--color-base-100'),
      borderColor: rule,
      textStyle: { color: ink, fontFamily: font },
      formatter: (items: readonly { dataIndex: number; seriesName: string; name: string }[]) => {
        const first = items.find((i) => i.seriesName === 'stock') ?? items[0];
        const d = first ? o.days[first.dataIndex] : undefined;
        if (!d) return '';
        const docs = [...o.receipts, ...o.demands]
          .filter((x) => x.date === d.date)
          .map((x) => escaped(`${x.ref}: ${quantity(x.quantity)}`));
        return [
          `<b>${date(d.date)}</b>`,
          `${quantity(Math.round(d.closing / 1e5) * 1e5)} ${escaped(name)} at the close`,
          ...docs,
        ].join('<br>');
      },
    },
    xAxis: {
      type: 'category',
      data: days,
      axisLabel: { color: muted, formatter: (d: string) => date(d).split(' ').slice(1).join(' '), interval: 13 },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: ink } },
    },
    yAxis: {
      type: 'value',
      max: (v: { max: number }) => Math.ceil(Math.max(v.max, units(o.max ?? 0), units(o.min ?? 0)) * 1.05),
      axisLabel: { color: muted },
      splitLine: { lineStyle: { color: rule } },
    },
    series: [
      {
        name: 'stock',
        type: 'line',
        step: 'end',
        symbol: 'none',
        data: o.days.map((d) => units(d.closing)),
        lineStyle: { color: action, width: 2 },
        markLine: {
          silent: true,
          symbol: 'none',
          data: [
            ...level(o.min, 'min', ink, 'solid'),
            ...level(o.max, 'max', ink, 'dashed'),
            ...level(o.safety, 'safety', attention, 'dotted', 'insideStartBottom'),
            ...(o.runOut
              ? [
                  {
                    xAxis: o.runOut,
                    label: { formatter: `runs out ${date(o.runOut)}`, color: stop },
                    lineStyle: { color: stop, type: 'solid' as const, width: 1 },
                  },
                ]
              : []),
          ],
        },
      },
      { name: 'receipts', type: 'scatter', symbolSize: 9, data: marks(o.receipts, 'triangle', action), z: 5 },
      { name: 'demand', type: 'scatter', symbolSize: 8, data: marks(o.demands, 'diamond', attention), z: 5 },
    ],
  };
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c);
