/** The parts of ECharts that every chart is drawn with, and bars, loaded when the first one is shown. */
import { BarChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([BarChart, GridComponent, TooltipComponent, SVGRenderer]);
export { init } from 'echarts/core';
