import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import type { components } from '../api/schema.generated';
import { PHASES } from '../bench/several';
import { withFractions } from '../words/figures';
import { grouped } from './records';

type PlotsTold = components['schemas']['PlotsTold'];
type SizeDot = components['schemas']['SizeDot'];

const WIDTH = 400;
const ROW = 34;
const LEFT = 122;
/** What the plots of sizes show at most, and a quarter US size, in diameter [mm]. */
const MOST_MM = 0.8;
const QUARTER_MM = 0.2032;
const MOST_SHARE = 0.16;
const ink = 'var(--mui-palette-text-secondary)';
const line = 'var(--mui-palette-divider)';
const accent = 'var(--mui-palette-primary-main)';
const within = (value: number, most: number) => Math.max(-most, Math.min(most, value));

/** What the newest records show: each plot with its figures in words for those who don't see it. */
export function Plots({ plots }: { plots: PlotsTold }) {
  return (
    <Box sx={{ display: 'grid', gap: 4, mb: 4 }}>
      {plots.by_band.length > 0 && (
        <Plot title="Size against plan, by band">
          <Sizes dots={plots.by_band} />
        </Plot>
      )}
      {plots.by_mandrel.length > 0 && (
        <Plot title="Size against plan, by mandrel">
          <Sizes dots={plots.by_mandrel} />
        </Plot>
      )}
      {plots.wire.length > 0 && (
        <Plot title="Wire against plan">
          <Wire plots={plots} />
        </Plot>
      )}
      {plots.stages.length > 0 && (
        <Plot title="Time by stage">
          <Stages plots={plots} />
        </Plot>
      )}
      {plots.saved && (
        <Plot title="Thrown away">
          <Scrap plots={plots} />
        </Plot>
      )}
      {plots.spoiled.length > 0 && (
        <Plot title="Spoiled at">
          {plots.spoiled.map((bar) => (
            <Typography key={bar.step} variant="body2">
              {bar.step}: {bar.rings}
            </Typography>
          ))}
        </Plot>
      )}
    </Box>
  );
}

function Plot({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h2" sx={{ fontSize: '1.2rem', mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

function Drawn({ height, label, children }: { height: number; label: string; children: ReactNode }) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={label} style={{ display: 'block', width: '100%' }}>
      {children}
    </svg>
  );
}

const Name = ({ y, children }: { y: number; children: string }) => (
  <text x="0" y={y + 4} fontSize="13" fill={ink}>
    {children.length > 18 ? `${children.slice(0, 17)}…` : children}
  </text>
);

/** A row a group: the strip of a quarter size that is right, a dot a ring, a bar where they are on the whole. */
function Sizes({ dots }: { dots: readonly SizeDot[] }) {
  const rows = grouped(dots);
  const x = (off: number) => LEFT + ((within(off, MOST_MM) + MOST_MM) / (2 * MOST_MM)) * (WIDTH - LEFT - 8);
  const height = rows.length * ROW + 18;
  return (
    <Drawn
      height={height}
      label={rows
        .map(({ group, dots: those }) => `${group}: ${those.map((d) => withFractions(d.off)).join(', ')}`)
        .join('; ')}
    >
      <rect
        x={x(-QUARTER_MM)}
        y="0"
        width={x(QUARTER_MM) - x(-QUARTER_MM)}
        height={height - 18}
        fill="var(--mui-palette-sheet)"
      />
      <line x1={x(0)} x2={x(0)} y1="0" y2={height - 18} stroke={line} />
      {rows.map(({ group, dots: those, mean }, k) => (
        <g key={group}>
          <Name y={k * ROW + ROW / 2}>{group}</Name>
          <line x1={x(mean)} x2={x(mean)} y1={k * ROW + 5} y2={(k + 1) * ROW - 5} stroke={accent} strokeWidth="3" />
          {those.map((dot, n) => (
            <circle
              key={dot.id}
              cx={x(dot.off_mm)}
              // Rings that read alike lie beside each other.
              cy={k * ROW + ROW / 2 + ((n % 3) - 1) * 7}
              r="4"
              fill={accent}
              fillOpacity="0.65"
            >
              <title>
                {dot.title}: {withFractions(dot.off)}
              </title>
            </circle>
          ))}
        </g>
      ))}
      {(
        [
          ['small', x(-MOST_MM), 'start'],
          ['¼ size', x(0), 'middle'],
          ['large', x(MOST_MM), 'end'],
        ] as const
      ).map(([words, at, anchor]) => (
        <text key={words} x={at} y={height - 4} fontSize="12" fill={ink} textAnchor={anchor}>
          {words}
        </text>
      ))}
    </Drawn>
  );
}

/** A dot a ring, the oldest on the left: over the line it took more than planned. Hollow ones say nothing of the hand. */
function Wire({ plots }: { plots: PlotsTold }) {
  const height = 130;
  const dots = plots.wire;
  const x = (k: number) => 44 + ((k + 0.5) * (WIDTH - 52)) / dots.length;
  const y = (share: number) => height / 2 - (within(share - 1, MOST_SHARE) / MOST_SHARE) * (height / 2 - 12);
  return (
    <Drawn height={height} label={dots.map((dot) => `${dot.title}: ${withFractions(dot.said)}`).join('; ')}>
      <line x1="40" x2={WIDTH - 4} y1={y(1)} y2={y(1)} stroke={line} />
      {[-0.1, 0, 0.1].map((share) => (
        <text key={share} x="0" y={y(1 + share) + 4} fontSize="12" fill={ink}>
          {share === 0 ? 'plan' : share > 0 ? '+10 %' : '−10 %'}
        </text>
      ))}
      {dots.map((dot, k) => (
        <circle
          key={dot.id}
          cx={x(k)}
          cy={y(dot.share)}
          r="5"
          fill={dot.counts ? accent : 'none'}
          stroke={accent}
          strokeWidth="1.5"
        >
          <title>
            {dot.title}: {withFractions(dot.said)}
          </title>
        </circle>
      ))}
    </Drawn>
  );
}

/** A bar a stage: the middle ring, with a thin line from the quickest to the slowest. */
function Stages({ plots }: { plots: PlotsTold }) {
  const most = Math.max(...plots.stages.map((stage) => stage.most), 1);
  const x = (minutes: number) => LEFT + (minutes / most) * (WIDTH - LEFT - 62);
  return (
    <Drawn
      height={plots.stages.length * 26}
      label={plots.stages.map((s) => `${PHASES[s.stage] ?? s.stage}: ${s.minutes.toFixed(1)} min`).join('; ')}
    >
      {plots.stages.map((stage, k) => (
        <g key={stage.stage}>
          <Name y={k * 26 + 12}>{PHASES[stage.stage] ?? stage.stage}</Name>
          <rect
            x={LEFT}
            y={k * 26 + 5}
            width={Math.max(1, x(stage.minutes) - LEFT)}
            height="14"
            fill={accent}
            fillOpacity="0.65"
          />
          <line x1={x(stage.least)} x2={x(stage.most)} y1={k * 26 + 12} y2={k * 26 + 12} stroke={ink} />
          <text x={x(stage.most) + 6} y={k * 26 + 16} fontSize="12" fill={ink}>
            {stage.minutes < 1 ? '<1' : Math.round(stage.minutes)} min
          </text>
        </g>
      ))}
    </Drawn>
  );
}

/** What was thrown away, beside what cutting long to be safe throws away. */
function Scrap({ plots }: { plots: PlotsTold }) {
  const most = Math.max(plots.scrap_mm, plots.cut_long_mm, 1);
  const x = (mm: number) => LEFT + (mm / most) * (WIDTH - LEFT - 8);
  return (
    <>
      <Drawn height={58} label={withFractions(plots.saved ?? '')}>
        {(
          [
            ['by these plans', plots.scrap_mm, accent],
            ['cutting long', plots.cut_long_mm, ink],
          ] as const
        ).map(([words, mm, colour], k) => (
          <g key={words}>
            <Name y={k * 28 + 14}>{words}</Name>
            <rect
              x={LEFT}
              y={k * 28 + 5}
              width={Math.max(1, x(mm) - LEFT)}
              height="18"
              fill={colour}
              fillOpacity="0.65"
            />
          </g>
        ))}
      </Drawn>
      <Typography variant="body2" color="text.secondary">
        {withFractions(plots.saved ?? '')}
      </Typography>
    </>
  );
}
