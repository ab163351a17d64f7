import { lazily } from '../../../parts/lazily.tsx';
import { addAgreement } from '../../../state/studies.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const AgreementControls = lazily(async () => (await import('../settings.ts')).AgreementControls);

const Picture = () => (
  <Sketch>
    <path d="M10 24 C 40 70, 70 60, 104 14" stroke="var(--g)" strokeWidth={2.4} strokeDasharray="6 4" />
    <Dot x={24.5} y={39} />
    <Dot x={81} y={52} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'agreement',
  offers: [
    {
      question: 'steep',
      rank: 10,
      title: 'Where do they agree?',
      words: 'compare check by hand computed same equal two functions derivative',
      Picture,
      add: (workbench, on) => addAgreement(workbench, on),
    },
  ],
  Controls: AgreementControls,
};
