/** The parts of ECharts that are drawn with, loaded when the first chart is shown. */
import { BarChart, LineChart, SankeyChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([BarChart, LineChart, SankeyChart, GridComponent, TooltipComponent, SVGRenderer]);
export { init } from 'echarts/core';
