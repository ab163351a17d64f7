/** The part of the plane that is drawn, and how many pixels it takes. */
export interface Grid {
  readonly xFrom: number;
  readonly xTo: number;
  readonly yFrom: number;
  readonly yTo: number;
  /** Width and height in device pixels. */
  readonly width: number;
  readonly height: number;
}

/** A curve as joined points. */
export interface SampledCurve {
  /** Runs of joined points as x₀ y₀ x₁ y₁ …; between two runs there is a gap. */
  readonly runs: readonly Float64Array[];
  /** Left ends of pixel columns whose shape stayed undecided within the budget. */
  readonly unsure: readonly number[];
  /** How many points the function was evaluated at. */
  readonly evaluations: number;
}
