import { useMutation, useQueryClient } from '@tanstack/react-query';
import { signInSchema, signUpSchema, type Session } from '@yperkine/protocol';
import { useId, useState, type FormEvent } from 'react';
import { accounts } from '../api/accounts.ts';
import { Refusal } from '../api/http.ts';
import { ThemeButton } from '../parts/ThemeButton.tsx';
import { Button } from '../parts/Button.tsx';
import { Wordmark } from '../parts/Wordmark.tsx';

interface FormProblem {
  /** Which of the two forms it is about. */
  readonly isNew: boolean;
  readonly field: string | null;
  readonly message: string;
}

/** Signing in, making an account, and the demo teacher's one click. */
export function SignInRoute({ demo }: { demo: boolean }) {
  const queries = useQueryClient();
  const enter = (session: Session) => queries.setQueryData(['session'], session);
  const asDemo = useMutation({ mutationFn: accounts.signInAsDemo, onSuccess: enter });
  const [isNew, setNew] = useState(false);
  return (
    <div className="min-h-dvh">
      <header className="mx-auto flex max-w-5xl items-center px-4 py-4 sm:px-6">
        <Wordmark />
        <span className="ml-auto">
          <ThemeButton />
        </span>
      </header>
      <main className="mx-auto grid max-w-5xl items-center gap-10 px-4 py-6 sm:px-6 md:grid-cols-2 md:py-14">
        <div>
          <h1 className="mb-4 text-4xl leading-tight font-semibold">Show the slope while the point moves.</h1>
          <p className="mb-6 max-w-md text-lg text-quiet">
            State a function, draw its tangent, set it in motion. The curve, its derivative and every number
            stay in step, and the window shows what matters.
          </p>
          <Illustration />
        </div>
        <div className="card p-6">
          {demo && (
            <>
              <Button
                look="strong"
                className="w-full"
                disabled={asDemo.isPending}
                onClick={() => asDemo.mutate()}
              >
                Sign in as the demo teacher
              </Button>
              {asDemo.error && (
                <p role="alert" className="mt-2 text-danger">
                  {asDemo.error.message}
                </p>
              )}
              <p className="my-4 text-center text-sm text-quiet">or with your own account</p>
            </>
          )}
          <AccountForm isNew={isNew} onEnter={enter} />
          <p className="mt-4 text-center text-quiet">
            {isNew ? 'Already have an account?' : 'New here?'}{' '}
            <button
              type="button"
              className="font-semibold text-ink underline underline-offset-2"
              onClick={() => setNew(!isNew)}
            >
              {isNew ? 'Sign in' : 'Make an account'}
            </button>
          </p>
        </div>
      </main>
    </div>
  );
}

function AccountForm({ isNew, onEnter }: { isNew: boolean; onEnter: (session: Session) => void }) {
  const [found, setProblem] = useState<FormProblem | null>(null);
  const problem = found?.isNew === isNew ? found : null;
  const [isBusy, setBusy] = useState(false);

  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = Object.fromEntries(new FormData(event.currentTarget));
    const parsed = isNew ? signUpSchema.safeParse(form) : signInSchema.safeParse(form);
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      return setProblem({ isNew, field: String(issue?.path[0] ?? ''), message: issue?.message ?? '' });
    }
    setProblem(null);
    setBusy(true);
    try {
      onEnter(
        isNew
          ? await accounts.signUp(signUpSchema.parse(form))
          : await accounts.signIn(signInSchema.parse(form)),
      );
    } catch (error) {
      const field = error instanceof Refusal ? (error.field ?? null) : null;
      setProblem({ isNew, field, message: (error as Error).message });
      setBusy(false);
    }
  };

  const problemAt = (field: string) => (problem?.field === field ? problem.message : null);
  return (
    <form onSubmit={(event) => void submit(event)} noValidate className="grid gap-3.5">
      {isNew && <TextField name="name" label="Name" autoComplete="name" problem={problemAt('name')} />}
      <TextField name="email" label="E-mail" type="email" autoComplete="email" problem={problemAt('email')} />
      <TextField
        name="password"
        label="Password"
        type="password"
        autoComplete={isNew ? 'new-password' : 'current-password'}
        problem={problemAt('password')}
      />
      {problem?.field === null && (
        <p role="alert" className="text-danger">
          {problem.message}
        </p>
      )}
      <Button type="submit" disabled={isBusy}>
        {isNew ? 'Make the account' : 'Sign in'}
      </Button>
    </form>
  );
}

interface TextFieldProps {
  readonly name: string;
  readonly label: string;
  readonly type?: string;
  readonly autoComplete: string;
  readonly problem: string | null;
}

function TextField({ name, label, type = 'text', autoComplete, problem }: TextFieldProps) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-quiet">
        {label}
      </label>
      <input
        id={id}
        name={name}
        type={type}
        autoComplete={autoComplete}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${id}-problem` : undefined}
        className={`w-full rounded-[10px] border bg-sheet px-3 py-2 ${problem ? 'border-danger' : 'border-rule'}`}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="mt-1 text-sm text-danger">
          {problem}
        </p>
      )}
    </div>
  );
}

/** A curve with its tangent, drawn from y = sin x at x = 1. */
function Illustration() {
  const at = (x: number) => ({ px: 20 + x * 62, py: 90 - 62 * Math.sin(x) });
  const curve = Array.from({ length: 121 }, (_, i) => at(i / 20))
    .map(({ px, py }, i) => `${i === 0 ? 'M' : 'L'}${px.toFixed(1)} ${py.toFixed(1)}`)
    .join('');
  const touch = at(1);
  const slope = -Math.cos(1);
  const reach = 105;
  return (
    <svg viewBox="0 -30 420 210" className="w-full max-w-md" aria-hidden>
      <path d="M20 90H400" stroke="var(--rule)" strokeWidth="1.5" />
      <path d={curve} fill="none" stroke="var(--f)" strokeWidth="3" strokeLinecap="round" />
      <path
        d={`M${touch.px - reach * 0.6} ${touch.py - slope * reach * 0.6}L${touch.px + reach} ${touch.py + slope * reach}`}
        stroke="var(--f1)"
        strokeWidth="2.5"
        strokeLinecap="round"
      />
      <path d={`M${touch.px} 20V160`} stroke="var(--here)" strokeWidth="1.5" />
      <circle cx={touch.px} cy={touch.py} r="7" fill="var(--f)" stroke="var(--paper)" strokeWidth="2" />
    </svg>
  );
}
