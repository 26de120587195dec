<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useResizeObserver, useDebounceFn } from '@vueuse/core';
import { useTheme } from 'vuetify';
import * as echarts from 'echarts/core';
import { LineChart } from 'echarts/charts';
import {
  AxisPointerComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { CanvasRenderer } from 'echarts/renderers';
import { useBench } from '../stores/bench';
import { useTracking, WEAK } from '../stores/tracking';

/** Position, speed and confidence of the chosen track over the clip's frames. A click goes there. */
echarts.use([
  LineChart,
  GridComponent,
  TooltipComponent,
  AxisPointerComponent,
  MarkLineComponent,
  MarkAreaComponent,
  CanvasRenderer,
]);
const bench = useBench();
const tracking = useTracking();
const theme = useTheme();
const box = ref<HTMLElement>();
let chart: echarts.ECharts | null = null;

const colour = (name: string): string => getComputedStyle(box.value!).getPropertyValue(name).trim();
type Pair = [number, number | null];

/** x and y of the middle of its points from where they began, how fast it goes, and the confidence in per cent. */
function series(): Record<'x' | 'y' | 'speed' | 'sure', Pair[]> {
  const { first, rows } = tracking.samples;
  const out: Record<'x' | 'y' | 'speed' | 'sure', Pair[]> = { x: [], y: [], speed: [], sure: [] };
  const mean = (i: number, part: 0 | 1): number | null => {
    const points = rows[i]?.points;
    return points ? points.reduce((sum, p) => sum + p[part], 0) / points.length : null;
  };
  const start = rows.findIndex((row) => row);
  const [x0, y0] = [mean(start, 0) ?? 0, mean(start, 1) ?? 0];
  rows.forEach((row, i) => {
    const [x, y] = [mean(i, 0), mean(i, 1)];
    const [px, py] = [mean(i - 1, 0), mean(i - 1, 1)];
    out.x.push([first + i, x === null ? null : x - x0]);
    out.y.push([first + i, y === null ? null : y - y0]);
    out.speed.push([first + i, x === null || px === null ? null : Math.hypot(x - px, y! - py!)]);
    out.sure.push([first + i, row ? row.confidence * 100 : null]);
  });
  return out;
}
/** Stretches of frames that are weak or lost. */
function weakSpans(): [number, number][] {
  const { first, rows } = tracking.samples;
  const spans: [number, number][] = [];
  rows.forEach((row, i) => {
    if (row && row.confidence >= WEAK) return;
    const last = spans.at(-1);
    if (last && last[1] === first + i - 0.5) last[1] = first + i + 0.5;
    else spans.push([first + i - 0.5, first + i + 0.5]);
  });
  return spans;
}

function draw(): void {
  if (!chart || !box.value) return;
  const { x, y, speed, sure } = series();
  const [dim, line, violet, chalk, red, brass] = ['--dim', '--line', '--violet', '--chalk', '--red', '--brass'].map(
    colour,
  );
  const grids = [
    { top: 24, height: 76 },
    { top: 126, height: 42 },
    { top: 194, height: 40 },
  ];
  const lined = (data: Pair[], at: number, name: string, stroke: string, dashed = false) => ({
    type: 'line' as const,
    name,
    data,
    xAxisIndex: at,
    yAxisIndex: at,
    showSymbol: false,
    connectNulls: false,
    silent: true,
    animation: false,
    lineStyle: { width: 1.4, color: stroke, type: dashed ? ('dashed' as const) : ('solid' as const) },
    itemStyle: { color: stroke },
  });
  const marks = {
    markLine: {
      symbol: 'none',
      silent: true,
      animation: false,
      label: { show: false },
      lineStyle: { color: brass, type: 'solid' as const, width: 1 },
      data: [{ xAxis: tracking.frame }],
    },
    markArea: {
      silent: true,
      animation: false,
      itemStyle: { color: red, opacity: 0.18 },
      data: weakSpans().map(([from, to]) => [{ xAxis: from }, { xAxis: to }] as [{ xAxis: number }, { xAxis: number }]),
    },
  };
  chart.setOption(
    {
      animation: false,
      textStyle: { fontFamily: 'Archivo Variable', fontSize: 10, color: dim },
      tooltip: {
        trigger: 'axis',
        confine: true,
        valueFormatter: (v: unknown) => (typeof v === 'number' ? v.toFixed(2) : 'not known'),
      },
      axisPointer: { link: [{ xAxisIndex: 'all' }] },
      grid: grids.map((grid) => ({ ...grid, left: 40, right: 6 })),
      xAxis: grids.map((_, at) => ({
        type: 'value',
        gridIndex: at,
        min: 'dataMin',
        max: 'dataMax',
        axisLabel: { show: at === 2, color: dim, fontSize: 10 },
        axisLine: { lineStyle: { color: line } },
        splitLine: { show: false },
      })),
      yAxis: ['px from the start', 'px a frame', 'confidence %'].map((name, at) => ({
        type: 'value',
        name,
        gridIndex: at,
        nameTextStyle: { align: 'left', color: dim, fontSize: 10, padding: [0, 0, 0, -30] },
        nameGap: 10,
        splitNumber: 2,
        min: at === 2 ? 0 : undefined,
        max: at === 2 ? 100 : undefined,
        axisLabel: { color: dim, fontSize: 10 },
        splitLine: { lineStyle: { color: line } },
      })),
      series: [
        { ...lined(x, 0, 'x', violet!), ...marks },
        lined(y, 0, 'y', chalk!, true),
        { ...lined(speed, 1, 'speed', violet!), ...marks },
        { ...lined(sure, 2, 'confidence', violet!), ...marks },
      ],
    },
    { notMerge: true, lazyUpdate: true },
  );
}
function go(event: { offsetX: number; offsetY: number }): void {
  const [frame] = chart!.convertFromPixel({ gridIndex: 0 }, [event.offsetX, event.offsetY]) as [number, number];
  const at = tracking.shotFrames.get(Math.round(frame));
  if (at !== undefined) bench.seek(at);
}

onMounted(() => {
  chart = echarts.init(box.value!);
  chart.getZr().on('click', go);
  draw();
});
onBeforeUnmount(() => {
  chart?.dispose();
  // what was put off finds none
  chart = null;
});
useResizeObserver(box, () => chart?.resize());
// in a task of its own, after everything else that changes with a run
const later = useDebounceFn(draw, 60);
// while a run goes on its way is seen on the picture; the chart would take the main thread from it
watch(
  [() => tracking.samples, () => tracking.frame, () => theme.global.name.value, () => tracking.running],
  () => void (tracking.running || later()),
  { flush: 'post' },
);
</script>

<template>
  <div class="chart">
    <p class="legend dim">
      <span class="x">x</span> <span class="y">y</span>, speed and confidence by the clip’s frames
    </p>
    <div
      ref="box"
      class="box"
      role="img"
      :aria-label="`Chart of ${tracking.track!.name}: position, speed and confidence`"
    />
  </div>
</template>

<style scoped>
.chart {
  margin-top: 10px;
}
.legend {
  font-size: 0.6875rem;
}
.x {
  color: var(--violet);
}
.y {
  color: var(--chalk);
  border-bottom: 1px dashed;
}
.box {
  width: 100%;
  height: 256px;
}
</style>
