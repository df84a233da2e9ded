/** What lines are drawn with, which few screens need. */
import { LineChart } from 'echarts/charts';
import { use } from 'echarts/core';

use([LineChart]);
