/**
 * The reader's glue code (Emscripten's embind) puts functions together as text and has them run, which the policy of our pages
 * forbids, and rightly. There are two patterns of such texts; while the reader works, both are made as closures instead.
 */

type Wire = {
  readonly name: string;
  readonly argPackAdvance: number;
  readonly isVoid?: boolean;
  readonly toWireType: (destructors: unknown[] | null, value: unknown) => unknown;
  readonly fromWireType: (value: unknown) => unknown;
  readonly readValueFromPointer: (pointer: number) => unknown;
  readonly destructorFunction: ((value: unknown) => void) | null;
};
type Called = (...args: readonly unknown[]) => unknown;

/** A function of the library as JavaScript calls it: values are turned into its own, and what was allocated is freed. */
function invoker(closed: readonly unknown[]): Called {
  const [name, , call, pointer, runDestructors, result, , ...rest] = closed as readonly [
    string,
    unknown,
    Called,
    unknown,
    (destructors: unknown[]) => void,
    Wire,
    unknown,
    ...Wire[],
  ];
  // Destructors of single arguments may follow the types; they are known from the types themselves.
  const types = rest.filter((one) => typeof one === "object" && one !== null && "toWireType" in one);
  return (...args) => {
    if (args.length !== types.length)
      throw new TypeError(`${name} takes ${types.length} values, ${args.length} were given`);
    const destructors: unknown[] = [];
    const wired = types.map((type, i) => type.toWireType(destructors, args[i]));
    const value = call(pointer, ...wired);
    runDestructors(destructors);
    return result.name === "void" ? undefined : result.fromWireType(value);
  };
}

/** A call from the library into JavaScript: its values are read from its memory. */
function methodCaller(closed: readonly unknown[], isConstructor: boolean): Called {
  const [result, ...rest] = closed as readonly [Wire, ...unknown[]];
  const types = rest.filter((one): one is Wire => typeof one === "object" && one !== null);
  const giveBack = rest.find((one): one is Called => typeof one === "function");
  return (object, made, destructors, place) => {
    let at = place as number;
    const args = types.map((type) => {
      const value = type.readValueFromPointer(at);
      at += type.argPackAdvance;
      return value;
    });
    const value = isConstructor
      ? Reflect.construct(made as new (...args: unknown[]) => object, args)
      : (made as Called).call(object, ...args);
    return result.isVoid ? undefined : giveBack?.(result, destructors, value);
  };
}

function made(...words: readonly unknown[]): Called {
  const [first] = words;
  const body = String(words.at(-1));
  if (first === "humanName") return (...closed) => invoker(closed);
  if (first === "retType") return (...closed) => methodCaller(closed, body.includes("new func"));
  throw new EvalError("text is not run as code");
}
Object.defineProperty(made, Symbol.hasInstance, { value: (one: unknown) => typeof one === "function" });

/** Does some work with the two patterns in the place of the constructor of functions. */
export function withoutEval<T>(work: () => T): T {
  const holder = globalThis as { Function: unknown };
  const before = holder.Function;
  holder.Function = made;
  try {
    return work();
  } finally {
    holder.Function = before;
  }
}

/** The same for work that takes its time; nothing else may run in this thread meanwhile that needs the constructor. */
export async function withoutEvalMeanwhile<T>(work: () => Promise<T>): Promise<T> {
  const holder = globalThis as { Function: unknown };
  const before = holder.Function;
  holder.Function = made;
  try {
    return await work();
  } finally {
    holder.Function = before;
  }
}
