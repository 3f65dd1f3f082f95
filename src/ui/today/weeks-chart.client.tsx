'use client';

import { useCallback } from 'react';
import { decimalsOf } from '@/core/money';
import type { TodayView } from '@/services/today/readToday';
import { useFormat } from '../format-context.client';
import { Chart, type ChartTokens } from '../marks/chart.client';

type Weeks = NonNullable<TodayView['weeks']>;

/** Six weeks: what is to be paid above, how many items run short below. */
export function WeeksChart({ weeks, currency }: { weeks: Weeks; currency: string }) {
  const format = useFormat();
  const option = useCallback(
    (t: ChartTokens) => {
      const scale = 10 ** decimalsOf(currency);
      const days = weeks.map((w) => format.date(w.from).split(' ').slice(1).join(' '));
      const bars = (name: string, color: string, data: readonly number[], grid: number, hatched = false) => ({
        ...{ name, type: 'bar', stack: String(grid), xAxisIndex: grid, yAxisIndex: grid, data, barMaxWidth: 26 },
        itemStyle: {
          color,
          ...(hatched
            ? { decal: { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [2, 4], rotation: -0.8, color: t.ink } }
            : {}),
        },
      });
      const axis = (grid: number, labels: boolean) => ({
        ...{ type: 'category', data: days, gridIndex: grid, axisTick: { show: false } },
        axisLabel: { show: labels, color: t.muted },
        axisLine: { lineStyle: { color: t.ink } },
      });
      const values = (grid: number, name: string) => ({
        ...{ type: 'value', gridIndex: grid, name, minInterval: 1, splitNumber: 3 },
        nameTextStyle: { color: t.muted, align: 'left' },
        axisLabel: { color: t.muted },
        splitLine: { lineStyle: { color: t.rule } },
      });
      return {
        animation: false,
        textStyle: { fontFamily: t.font, color: t.ink },
        legend: { bottom: 0, itemWidth: 12, itemHeight: 9, textStyle: { color: t.muted }, icon: 'rect' },
        grid: [
          { left: 52, right: 8, top: 28, height: 112 },
          { left: 52, right: 8, top: 176, height: 84 },
        ],
        tooltip: {
          trigger: 'axis',
          backgroundColor: t.sheet,
          borderColor: t.field,
          textStyle: { color: t.ink, fontFamily: t.font },
        },
        xAxis: [axis(0, false), axis(1, true)],
        yAxis: [values(0, `money out, ${currency}`), values(1, 'items short')],
        series: [
          bars(
            'ordered',
            t.ink,
            weeks.map((w) => w.ordered / scale),
            0,
          ),
          bars(
            'drafts and trays',
            t.sheet,
            weeks.map((w) => w.planned / scale),
            0,
            true,
          ),
          bars(
            'nothing coming',
            t.stop,
            weeks.map((w) => w.shortNothing),
            1,
          ),
          bars(
            'something coming',
            t.field,
            weeks.map((w) => w.shortComing),
            1,
          ),
        ],
      };
    },
    [weeks, currency, format],
  );
  return <Chart name="weeks" className="h-[320px] w-full" option={option} />;
}
