/** The parts of ECharts that most charts are drawn with, loaded when the first one is shown. */
import { BarChart, LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([BarChart, LineChart, GridComponent, TooltipComponent, SVGRenderer]);
export { init } from 'echarts/core';
