/**
 * Bytes of a WebAssembly module. Names and numbers follow the WebAssembly Core Specification 1.0,
 * chapter 5 (binary format).
 */
const f64 = 0x7c;
const i32 = 0x7f;

export const op = {
  block: [0x02, 0x40],
  loop: [0x03, 0x40],
  end: [0x0b],
  branch: (depth: number) => [0x0c, depth],
  branchIf: (depth: number) => [0x0d, depth],
  call: (index: number) => [0x10, ...unsigned(index)],
  select: [0x1b],
  localGet: (index: number) => [0x20, ...unsigned(index)],
  localSet: (index: number) => [0x21, ...unsigned(index)],
  globalGet: (index: number) => [0x23, ...unsigned(index)],
  f64Load: [0x2b, 3, 0],
  f64Store: [0x39, 3, 0],
  i32Const: (value: number) => [0x41, ...signed(value)],
  f64Const: (value: number) => [0x44, ...double(value)],
  i32GreaterOrEqualUnsigned: [0x4f],
  i32Add: [0x6a],
  i32And: [0x71],
  i32Or: [0x72],
  f64FromI32: [0xb8],
  f64Equal: [0x61],
  f64NotEqual: [0x62],
  f64Less: [0x63],
  f64Greater: [0x64],
  f64LessOrEqual: [0x65],
  f64GreaterOrEqual: [0x66],
  f64Abs: [0x99],
  f64Negate: [0x9a],
  f64Ceil: [0x9b],
  f64Floor: [0x9c],
  f64SquareRoot: [0x9f],
  f64Add: [0xa0],
  f64Subtract: [0xa1],
  f64Multiply: [0xa2],
  f64Divide: [0xa3],
  f64Minimum: [0xa4],
  f64Maximum: [0xa5],
} as const;

/** LEB128, unsigned. */
function unsigned(value: number): number[] {
  const bytes: number[] = [];
  let rest = value;
  do {
    const low = rest & 0x7f;
    rest >>>= 7;
    bytes.push(rest > 0 ? low | 0x80 : low);
  } while (rest > 0);
  return bytes;
}

/** LEB128, signed, for values that are not negative. */
function signed(value: number): number[] {
  const bytes = unsigned(value);
  const last = bytes.at(-1) as number;
  // The sign bit of the last byte must be clear.
  return last & 0x40 ? [...bytes.slice(0, -1), last | 0x80, 0] : bytes;
}

function double(value: number): number[] {
  return [...new Uint8Array(new Float64Array([value]).buffer)];
}

const vector = (items: readonly (readonly number[])[]): number[] => [
  ...unsigned(items.length),
  ...items.flat(),
];
const text = (name: string): number[] => [...unsigned(name.length), ...[...name].map((c) => c.charCodeAt(0))];
const section = (id: number, content: readonly number[]): number[] => [
  id,
  ...unsigned(content.length),
  ...content,
];

export interface ModuleParts {
  /** Names of imported functions under the module name "f", with the number of their f64 arguments. */
  readonly imports: readonly { readonly name: string; readonly argumentCount: 1 | 2 }[];
  /** Mutable f64 globals, exported as p0, p1, … */
  readonly globals: number;
  readonly pages: number;
  /** Number of f64 locals after the i32 parameter. */
  readonly locals: number;
  /** Body of the exported function run(i32), without its closing end. */
  readonly body: readonly number[];
}

/** A module that exports `memory`, `run` and the globals. */
export function moduleBytes({ imports, globals, pages, locals, body }: ModuleParts): Uint8Array<ArrayBuffer> {
  const types = [
    [0x60, ...vector([[f64]]), ...vector([[f64]])],
    [0x60, ...vector([[f64], [f64]]), ...vector([[f64]])],
    [0x60, ...vector([[i32]]), 0],
  ];
  const exported = Array.from({ length: globals }, (_, i) => [...text(`p${i}`), 3, ...unsigned(i)]);
  const code = [
    ...vector([
      [...unsigned(1), i32],
      [...unsigned(locals), f64],
    ]),
    ...body,
    ...op.end,
  ];
  return Uint8Array.from([
    ...[0x00, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
    ...section(1, vector(types)),
    ...section(
      2,
      vector(imports.map(({ name, argumentCount }) => [...text('f'), ...text(name), 0, argumentCount - 1])),
    ),
    ...section(3, vector([[2]])),
    ...section(5, vector([[0, ...unsigned(pages)]])),
    ...section(6, vector(Array.from({ length: globals }, () => [f64, 1, ...op.f64Const(0), ...op.end]))),
    ...section(
      7,
      vector([[...text('memory'), 2, 0], [...text('run'), 0, ...unsigned(imports.length)], ...exported]),
    ),
    ...section(10, vector([[...unsigned(code.length), ...code]])),
  ]);
}
