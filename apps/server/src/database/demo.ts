import { openDocument, type Document } from '@yperkine/demonstration';
import { bendDemonstration } from './examples/bend.ts';
import { glasshouseDemonstration } from './examples/glasshouse.ts';
import { jettyDemonstration } from './examples/jetty.ts';
import { bedDemonstration } from './examples/bed.ts';
import { chordDemonstration } from './examples/chord.ts';
import { cragHollowDemonstration } from './examples/cragHollow.ts';
import { gaugeDemonstration } from './examples/gauge.ts';
import { sluiceDemonstration } from './examples/sluice.ts';
import { tankDemonstration } from './examples/tank.ts';
import { ruleDemonstration } from './examples/rule.ts';
import { gateDemonstration } from './examples/gate.ts';
import { AccountRow, DemonstrationRow } from './models.ts';

/** The demo teacher of Tarn Valley, who signs in without a password, in demo mode only. */
export const demoAccount = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'Demo teacher',
  email: 'demo@tarn-valley.example',
} as const;

interface Example {
  readonly id: string;
  readonly document: Document;
}

/** The examples that ship, all from Tarn Valley. */
export const examples: readonly Example[] = [
  { id: '00000000-0000-4000-8000-000000000101', document: bedDemonstration() },
  { id: '00000000-0000-4000-8000-000000000104', document: chordDemonstration() },
  { id: '00000000-0000-4000-8000-000000000107', document: cragHollowDemonstration() },
  { id: '00000000-0000-4000-8000-000000000108', document: glasshouseDemonstration() },
  { id: '00000000-0000-4000-8000-000000000109', document: bendDemonstration() },
  { id: '00000000-0000-4000-8000-000000000110', document: jettyDemonstration() },
  { id: '00000000-0000-4000-8000-000000000111', document: sluiceDemonstration() },
  { id: '00000000-0000-4000-8000-000000000112', document: tankDemonstration() },
  { id: '00000000-0000-4000-8000-000000000105', document: ruleDemonstration() },
  { id: '00000000-0000-4000-8000-000000000106', document: gaugeDemonstration() },
  { id: '00000000-0000-4000-8000-000000000103', document: gateDemonstration() },
];

/** Puts the demo teacher and the examples in where they are missing; what the teacher changed stays. */
export async function putInDemo(): Promise<void> {
  await AccountRow.findOrCreate({
    where: { id: demoAccount.id },
    defaults: { ...demoAccount, passwordHash: null },
  });
  for (const [i, { id, document }] of examples.entries()) {
    const opened = openDocument(document);
    if (!opened.ok) throw new Error(`the example ${document.title} is not a valid document`);
    await DemonstrationRow.findOrCreate({
      where: { id },
      defaults: {
        id,
        accountId: demoAccount.id,
        title: document.title,
        document,
        changedAt: new Date(Date.now() - i * 60_000),
      },
    });
  }
}
