import { BarChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([
  ...[BarChart, LineChart, ScatterChart, GridComponent, TooltipComponent, MarkLineComponent, LegendComponent],
  ...[AriaComponent, SVGRenderer],
]);

/** A chart in a box, drawn as SVG: with only the parts of the library that our charts need. */
export const makeChart = (box: HTMLElement) => init(box, undefined, { renderer: 'svg' });
