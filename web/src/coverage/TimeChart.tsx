import { Chart, LinearScale, LineController, LineElement, type Plugin, PointElement } from 'chart.js';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';

Chart.register(LineController, LineElement, PointElement, LinearScale);

const Frame = styled.div`position: relative; height: 190px; canvas { forced-color-adjust: none; }`;

/** What is free from one moment until the next, in days since the first. */
export interface Step {
  readonly from: number;
  readonly to: number;
  /** Below zero where more is wanted than there is. */
  readonly free: number;
  /** Of what is free, what has not come yet today. */
  readonly come: number;
}

interface Props {
  /** What it shows, for those who do not see it. */
  readonly label: string;
  readonly steps: readonly Step[];
}

/** Free stock over time in the textures of the staves: what the shelves have, what came, and dashed below zero what is short. */
export function TimeChart({ label, steps }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<Chart | null>(null);
  useEffect(() => {
    if (!canvas.current) return;
    const chart = new Chart(canvas.current, {
      type: 'line',
      data: { datasets: [{ data: [], borderWidth: 0, pointRadius: 0 }] },
      options: {
        maintainAspectRatio: false,
        animation: false,
        events: [],
        layout: { padding: 0 },
        scales: { x: { type: 'linear', display: false }, y: { display: false } },
      },
      plugins: [textured],
    });
    drawn.current = chart;
    return () => {
      chart.destroy();
      drawn.current = null;
    };
  }, []);
  useEffect(() => {
    const chart = drawn.current;
    const [data] = chart?.data.datasets ?? [];
    if (!chart || !data) return;
    stepsOf.set(chart, steps);
    data.data = steps.flatMap(({ from, to, free }) => [
      { x: from, y: free },
      { x: to, y: free },
    ]);
    const { x, y } = chart.options.scales ?? {};
    const most = Math.max(1, ...steps.map(({ free }) => free));
    const least = Math.min(0, ...steps.map(({ free }) => free));
    if (x && y) Object.assign(x, { min: 0, max: steps.at(-1)?.to ?? 1 }) && Object.assign(y, { min: least, max: most });
    chart.update('none');
  }, [steps]);
  return (
    <Frame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </Frame>
  );
}

const stepsOf = new WeakMap<Chart, readonly Step[]>();

/** Draws each step as a piece of a stave. */
const textured: Plugin<'line'> = {
  id: 'textured',
  afterDatasetsDraw(chart) {
    const { ctx, scales } = chart;
    const { x, y } = scales;
    if (!x || !y) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const coming = hatch(ctx, colour('--coming-thread'), colour('--coming-cloth'));
    ctx.save();
    for (const { from, to, free, come } of stepsOf.get(chart) ?? []) {
      const [left, right] = [x.getPixelForValue(from), x.getPixelForValue(to)];
      const [zero, top, middle] = [0, free, Math.max(0, free - come)].map((value) => y.getPixelForValue(value)) as [
        number,
        number,
        number,
      ];
      if (free < 0) {
        ctx.fillStyle = colour('--short-cloth');
        ctx.fillRect(left, zero, right - left, top - zero);
        ctx.strokeStyle = colour('--short');
        ctx.setLineDash([5, 3]);
        ctx.lineWidth = 1.5;
        ctx.strokeRect(left + 1, zero, right - left - 2, top - zero - 1);
        continue;
      }
      ctx.fillStyle = colour('--free');
      ctx.fillRect(left, middle, right - left, zero - middle);
      ctx.fillStyle = coming;
      ctx.fillRect(left, top, right - left, middle - top);
    }
    ctx.setLineDash([]);
    ctx.strokeStyle = colour('--ink-3');
    ctx.lineWidth = 1;
    ctx.beginPath();
    ctx.moveTo(x.left, y.getPixelForValue(0));
    ctx.lineTo(x.right, y.getPixelForValue(0));
    ctx.stroke();
    ctx.restore();
  },
};

/** Diagonal threads, as what is coming has them everywhere. */
function hatch(ctx: CanvasRenderingContext2D, thread: string, cloth: string): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = 12;
  tile.height = 12;
  const own = tile.getContext('2d');
  if (!own) return thread;
  own.fillStyle = cloth;
  own.fillRect(0, 0, 12, 12);
  own.strokeStyle = thread;
  own.lineWidth = 4;
  own.beginPath();
  for (const shift of [-12, 0, 12]) {
    own.moveTo(shift - 2, 14);
    own.lineTo(shift + 14, -2);
  }
  own.stroke();
  return ctx.createPattern(tile, 'repeat') ?? thread;
}
