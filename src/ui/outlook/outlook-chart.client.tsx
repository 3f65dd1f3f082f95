'use client';

import { useCallback } from 'react';
import type { Outlook } from '@/services/planning/readOutlook';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { Chart, type ChartTokens } from '../marks/chart.client';

const units = (q: number) => q / 1e6;

/** The projection as a chart: stock at the close of each day, lines of minimum, maximum and safety stock, receipts and demand
 *  as marks, the run-out. Its figures stand in the table below it. */
export function OutlookChart({ outlook, unit }: { outlook: Outlook; unit: string }) {
  const format = useFormat();
  const option = useCallback(
    (tokens: ChartTokens) =>
      optionOf(
        outlook,
        tokens,
        (q) => format.quantity(q),
        (d) => format.date(d),
        plural(unit, 2e6),
      ),
    [outlook, unit, format],
  );
  return <Chart name="outlook" className="h-[300px] w-full" option={option} />;
}

function optionOf(
  o: Outlook,
  tokens: ChartTokens,
  quantity: (q: number) => string,
  date: (d: string) => string,
  name: string,
) {
  const { ink, muted, rule, action, stop, attention, font } = tokens;
  const days = o.days.map((d) => d.date);
  const level = (
    y: number | null,
    label: string,
    color: string,
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
  const marks = (of: Outlook['receipts'], symbol: string, color: string) =>
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
      backgroundColor: tokens.sheet,
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
