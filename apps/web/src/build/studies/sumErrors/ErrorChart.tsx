import type { SumErrorsResult } from '@yperkine/demonstration';
import { ruleNames } from '@yperkine/demonstration';
import {
  Chart,
  Legend,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartOptions,
  type PointStyle,
  type Scale,
} from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { paletteOf, useShownTheme } from '../../../theme/theme.ts';

Chart.register(ScatterController, LineElement, PointElement, LogarithmicScale, Legend, Tooltip);

const tones = ['f', 'f1', 'f2', 'g', 'g1', 'h', 'h1', 'g2', 'h2'] as const;
const shapes: readonly PointStyle[] = ['circle', 'rect', 'triangle', 'rectRot', 'crossRot', 'star'];
/** Errors below this are rounding, and no power of ten of a chart. */
const smallest = 1e-15;

/** Numbers of parts that are written along the axis. */
const shownCounts = [1, 4, 16, 64, 256, 1024, 4096];

/** A power of ten as it is printed. */
const power = (value: number): string => {
  const exponent = Math.log10(value);
  if (Math.abs(exponent - Math.round(exponent)) > 1e-9) return '';
  const digits = String(Math.round(exponent)).replace('-', '⁻');
  return `10${[...digits].map((d) => (d === '⁻' ? d : '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(d)])).join('')}`;
};

/** The size of the error against n, both in powers: a straight line whose steepness is the order. */
export default function ErrorChart({
  series,
  label,
}: {
  readonly series: SumErrorsResult['series'];
  readonly label: string;
}) {
  const palette = paletteOf(useShownTheme());
  const datasets = series.map(({ rule, errors }, i) => {
    const colour = palette[tones[i % tones.length] ?? 'f'];
    return {
      label: ruleNames[rule],
      data: errors.map(({ n, error }) => ({ x: n, y: Math.abs(error) })).filter(({ y }) => y > smallest),
      showLine: true,
      borderColor: colour,
      backgroundColor: colour,
      borderWidth: 2,
      pointStyle: shapes[i % shapes.length] ?? 'circle',
      pointRadius: 4,
    };
  });
  const axis = (title: string, ticks: (value: number) => string) =>
    ({
      type: 'logarithmic',
      title: { display: true, text: title, color: palette.quiet },
      grid: { color: palette.rule },
      ticks: { color: palette.quiet, callback: (value: string | number) => ticks(Number(value)) },
    }) as const;
  const options: ChartOptions<'scatter'> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        ...axis('n', String),
        afterBuildTicks: (scale: Scale) => {
          scale.ticks = shownCounts.map((value) => ({ value }));
        },
      },
      y: axis('size of the error', power),
    },
    plugins: { legend: { labels: { color: palette.ink, usePointStyle: true, boxWidth: 7, boxHeight: 7 } } },
  };
  return (
    <div className="mt-2 h-64">
      <Scatter data={{ datasets }} options={options} role="img" aria-label={label} />
    </div>
  );
}
