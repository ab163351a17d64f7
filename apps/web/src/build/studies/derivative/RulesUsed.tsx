import {
  derivativeOf,
  derivativeSteps,
  latexFunction,
  latexName,
  printLatex,
  ruleNames,
} from '@yperkine/core';
import { curveOf, type CurveResult, type Id } from '@yperkine/demonstration';
import { useMemo } from 'react';
import { useShallow } from 'zustand/shallow';
import { Typeset } from '../../../parts/Typeset.tsx';
import { useWorkbenchState } from '../../../state/context.ts';

interface RulesUsedProps {
  /** The curve, and which derivative of it is explained. */
  readonly of: Id;
  readonly degree: number;
}

/** How a derivative is found: each rule with what it is used on and what comes of it, from the whole down to its parts. */
export function RulesUsed({ of, degree }: RulesUsedProps) {
  const curve = useWorkbenchState(
    useShallow(({ resolution }) => {
      const found = curveOf(resolution, of);
      return found && { body: found.body, variable: found.variable, name: found.name, order: found.order };
    }),
  );
  return curve ? <Steps {...curve} degree={degree} /> : null;
}

interface StepsProps extends Pick<CurveResult, 'body' | 'variable' | 'name' | 'order'> {
  readonly degree: number;
}

function Steps({ body, variable, name, order, degree }: StepsProps) {
  const { steps, result } = useMemo(
    () => derivativeSteps(derivativeOf(body, variable, degree - 1), variable),
    [body, variable, degree],
  );
  const x = latexName(variable);
  return (
    <ol className="mt-2 space-y-2">
      {steps.map(({ rule, before, after }, i) => (
        <li key={i}>
          <p className="text-[0.9rem] text-quiet first-letter:uppercase">{ruleNames[rule]}</p>
          <Step
            latex={`\\tfrac{\\mathrm{d}}{\\mathrm{d}${x}}\\left(${printLatex(before)}\\right) = ${printLatex(after)}`}
          />
        </li>
      ))}
      <li>
        <p className="text-[0.9rem] text-quiet">Together</p>
        <Step latex={`${latexFunction(name, order + degree)}(${x}) = ${printLatex(result)}`} />
      </li>
    </ol>
  );
}

/** A line that is wider than the card is pushed to and fro in it. */
const Step = ({ latex }: { readonly latex: string }) => (
  <div className="overflow-x-auto py-0.5 leading-loose">
    <Typeset latex={latex} />
  </div>
);
