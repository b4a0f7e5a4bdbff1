import type { Test, TestKind, TestOf } from "../../../core/rules/condition";

/** What the fields of a kind of test are given. */
export type FieldsProps<Kind extends TestKind = TestKind> = Kind extends TestKind
  ? { readonly test: TestOf<Kind>; readonly hasProblem: boolean; readonly onChange: (test: Test) => void }
  : never;
