<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
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
import { usePlayhead } from '../stores/playhead';
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
const playhead = usePlayhead();
const tracking = useTracking();
const theme = useTheme();
const box = ref<HTMLElement>();
const boxes = ref<HTMLElement[]>([]);
const charts: echarts.ECharts[] = [];
/** Charts of one group show the same frame under the pointer. */
const GROUP = 'track';

const colour = (name: string): string => getComputedStyle(box.value!).getPropertyValue(name).trim();
type Pair = [number, number | null];

/** x and y of the middle of its points from where they began, how fast it goes, and the confidence in per cent. */
const series = computed((): Record<'x' | 'y' | 'speed' | 'sure', Pair[]> => {
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
});

/** The frame of the clip that the pointer is over, and what is known of it. */
const pointed = ref<number | null>(null);
const said = computed(() => {
  if (pointed.value === null) return null;
  const all = series.value;
  const value = (data: Pair[], digits: number) =>
    data.find(([frame]) => frame === pointed.value)?.[1]?.toFixed(digits) ?? '–';
  return {
    frame: pointed.value,
    x: value(all.x, 1),
    y: value(all.y, 1),
    speed: value(all.speed, 1),
    sure: value(all.sure, 0),
  };
});

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

/** What is drawn below each other: how tall, what of, and between which values. */
const PARTS = [
  { unit: 'px from the start', tall: 108 },
  { unit: 'px a frame', tall: 70 },
  { unit: 'confidence %', tall: 78, from: 0, to: 100 },
];
const LAST = PARTS.length - 1;

function lined(name: string, data: Pair[], stroke: string, dashed = false) {
  return {
    type: 'line' as const,
    name,
    data,
    showSymbol: false,
    connectNulls: false,
    silent: true,
    animation: false,
    lineStyle: { width: 1.4, color: stroke, type: dashed ? ('dashed' as const) : ('solid' as const) },
    itemStyle: { color: stroke },
  };
}
/** The lines of each part, and where the clip stands and is weak. */
function linesOf(): ReturnType<typeof lined>[][] {
  const { x, y, speed, sure } = series.value;
  const [violet, chalk, red, brass] = ['--violet', '--chalk', '--red', '--brass'].map(colour);
  const plain = { silent: true, animation: false };
  const spans = weakSpans().map(([from, to]) => [{ xAxis: from }, { xAxis: to }]);
  const marks = {
    markLine: {
      ...plain,
      symbol: 'none',
      label: { show: false },
      lineStyle: { color: brass, type: 'solid' as const, width: 1 },
      data: [{ xAxis: tracking.frame }],
    },
    markArea: { ...plain, itemStyle: { color: red, opacity: 0.18 }, data: spans },
  };
  return [
    [{ ...lined('x', x, violet!), ...marks }, lined('y', y, chalk!, true)],
    [{ ...lined('speed', speed, violet!), ...marks }],
    [{ ...lined('confidence', sure, violet!), ...marks }],
  ];
}
function optionOf(part: number, lines: ReturnType<typeof lined>[]): echarts.EChartsCoreOption {
  const { unit, from, to } = PARTS[part]!;
  const [dim, line] = ['--dim', '--line'].map(colour);
  return {
    animation: false,
    textStyle: { fontFamily: 'Archivo Variable', fontSize: 10, color: dim },
    // what it says stands above the chart, where it covers nothing
    tooltip: { trigger: 'axis', showContent: false },
    grid: { left: 40, right: 6, top: 24, bottom: part === LAST ? 16 : 4 },
    xAxis: {
      type: 'value',
      min: 'dataMin',
      max: 'dataMax',
      axisLabel: { show: part === LAST, color: dim, fontSize: 10 },
      axisLine: { lineStyle: { color: line } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      name: unit,
      nameTextStyle: { align: 'left', color: dim, fontSize: 10, padding: [0, 0, 0, -30] },
      nameGap: 10,
      splitNumber: 2,
      min: from,
      max: to,
      axisLabel: { color: dim, fontSize: 10 },
      splitLine: { lineStyle: { color: line } },
    },
    series: lines,
  };
}

function begun(part: number): echarts.ECharts {
  const chart = echarts.init(boxes.value[part]!);
  chart.group = GROUP;
  chart.on('updateAxisPointer', (event) => {
    const { axesInfo } = event as { axesInfo?: { value: number }[] };
    pointed.value = axesInfo?.[0] ? Math.round(axesInfo[0].value) : null;
  });
  chart.getZr().on('globalout', () => void (pointed.value = null));
  chart.getZr().on('click', ({ offsetX, offsetY }) => {
    const [frame] = chart.convertFromPixel({ gridIndex: 0 }, [offsetX, offsetY]) as [number, number];
    const at = tracking.shotFrames.get(Math.round(frame));
    if (at !== undefined) playhead.seek(at);
  });
  return chart;
}
/** Each part is begun and drawn in tasks of its own, so that nothing waits for all of them. */
let turn = 0;
async function draw(): Promise<void> {
  const own = ++turn;
  const task = () => new Promise((resume) => setTimeout(resume));
  await task();
  if (own !== turn) return;
  const lines = linesOf();
  for (const part of PARTS.keys()) {
    charts[part] ??= begun(part);
    await task();
    if (own !== turn) return;
    charts[part].setOption(optionOf(part, lines[part]!), { notMerge: true });
    await task();
    if (own !== turn) return;
  }
  echarts.connect(GROUP);
}

onMounted(draw);
onBeforeUnmount(() => {
  turn++;
  charts.forEach((chart) => chart.dispose());
});
useResizeObserver(box, () => charts.forEach((chart) => chart.resize()));
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
    <p v-if="said" class="legend mono">
      {{ said.frame }}: <span class="x">x</span> {{ said.x }} <span class="y">y</span> {{ said.y }} ·
      {{ said.speed }} px · {{ said.sure }} %
    </p>
    <p v-else class="legend dim">
      <span class="x">x</span> <span class="y">y</span>, speed and confidence by the clip’s frames
    </p>
    <div ref="box" role="img" :aria-label="`Chart of ${tracking.track!.name}: position, speed and confidence`">
      <div v-for="{ unit, tall } in PARTS" :key="unit" ref="boxes" :style="{ height: `${tall}px` }" />
    </div>
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
</style>
