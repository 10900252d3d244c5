import {
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale, Filler, Tooltip);

const Frame = styled.div`position: relative; height: 190px;`;

interface LineChartProps {
  /** What it shows, for those who do not see it. */
  readonly label: string;
  readonly points: readonly { readonly name: string; readonly value: number; readonly text: string }[];
  readonly onPick?: (index: number) => void;
}

/** Values over time as one stepped line; a press picks a point. The figures stand beside it as text. */
export function LineChart({ label, points, onPick }: LineChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pick = useRef(onPick);
  pick.current = onPick;
  useEffect(() => {
    if (!canvas.current) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const chart = new Chart(canvas.current, {
      type: 'line',
      data: {
        labels: points.map((point) => point.name),
        datasets: [
          {
            data: points.map((point) => point.value),
            borderColor: colour('--walnut'),
            backgroundColor: colour('--birch'),
            borderWidth: 2,
            fill: true,
            pointRadius: 0,
            pointHitRadius: 14,
            stepped: 'before',
          },
        ],
      },
      options: {
        maintainAspectRatio: false,
        animation: false,
        interaction: { mode: 'index', intersect: false },
        onClick: (_event, [hit]) => hit && pick.current?.(hit.index),
        plugins: { tooltip: { callbacks: { label: (item) => points[item.dataIndex]?.text ?? '' } } },
        scales: {
          x: { ticks: { maxTicksLimit: 9, maxRotation: 0, color: colour('--ink-2') }, grid: { display: false } },
          y: {
            beginAtZero: true,
            ticks: { maxTicksLimit: 5, color: colour('--ink-2') },
            grid: { color: colour('--line-soft') },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [points]);
  return (
    <Frame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </Frame>
  );
}
