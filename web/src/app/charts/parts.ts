import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { PALETTE } from '../palette';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

// The parts of the chart library that are used, taken in one place so that nothing else is loaded.
echarts.use([
  LineChart,
  ScatterChart,
  CustomChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  AriaComponent,
  SVGRenderer,
]);

export { echarts };
export const { ink: INK, blue: BLUE, red: RED, iron: GRID } = PALETTE;
export const FONT = { fontFamily: 'IBM Plex Mono, monospace', fontSize: 13, color: INK } as const;
