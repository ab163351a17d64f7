import type { Certificate, Checked } from '@yperkine/core';

/** A certificate as JSON, with what the checker says of each part. */
export const certificateRow = (certificate: Certificate, { isAccepted, shown }: Checked): unknown => ({
  accepted: isAccepted,
  joints: certificate.joints.map(({ low, high }) => [low, high]),
  parts: certificate.claims.map(({ order, from, to, zeros }, i) => ({
    ...{ order, from, to, zeros },
    shown: shown[i] ?? null,
  })),
});
