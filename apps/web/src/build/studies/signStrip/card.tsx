import { lazily } from '../../../parts/lazily.tsx';
import { addOverInterval } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const SignStripControls = lazily(async () => (await import('../settings.ts')).SignStripControls);

const Picture = () => (
  <Sketch isFaint>
    <rect x={8} y={64} width={28} height={13} fill="var(--f1)" fillOpacity={0.25} stroke="var(--f1)" />
    <rect x={38} y={64} width={42} height={13} stroke="var(--f1)" strokeDasharray="3 2.5" />
    <rect x={82} y={64} width={24} height={13} fill="var(--f1)" fillOpacity={0.25} stroke="var(--f1)" />
    <path
      d="M18 70.5 h8 M22 66.5 v8 M55 70.5 h8 M90 70.5 h8 M94 66.5 v8"
      stroke="var(--f1)"
      strokeWidth={1.8}
    />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'signStrip',
  offers: [
    {
      question: 'where',
      rank: 2,
      title: 'Sign strip',
      words:
        'signs positive negative rising falling increasing decreasing bends up down concave monotony table',
      Picture,
      add: (workbench, on) => void addOverInterval(workbench, 'signStrip', on),
    },
  ],
  Controls: SignStripControls,
};
