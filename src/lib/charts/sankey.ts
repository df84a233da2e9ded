/** What streams are drawn with, which few screens need. */
import { SankeyChart } from 'echarts/charts';
import { use } from 'echarts/core';

use([SankeyChart]);
