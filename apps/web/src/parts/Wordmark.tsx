/** The product's name with its mark: a curve, its tangent, the point where they touch. */
export function Wordmark() {
  return (
    <span className="flex items-center gap-2.5 text-xl font-semibold">
      <svg viewBox="0 0 32 32" width={30} height={30} aria-hidden>
        <path
          d="M4 9C8 27 15 27 18 17S25 5 29 12"
          fill="none"
          stroke="var(--f)"
          strokeWidth="3"
          strokeLinecap="round"
        />
        <path d="M9 29 26 6" stroke="var(--f1)" strokeWidth="2.4" strokeLinecap="round" />
        <circle cx="18" cy="17" r="3.4" fill="var(--here)" />
      </svg>
      Yperkine
    </span>
  );
}
