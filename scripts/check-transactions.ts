import { relative } from "node:path";
import ts from "typescript";

// What happens within a transaction must not ask the pool: with as many transactions as connections each would wait for one
// more, for ever. Types keep the two apart wherever a handle is passed; a callback still sees what stands around it, so that
// what is given a transaction is looked at here: neither a pool, nor anything that carries one to whoever asks it, may be used in one.

const root = process.argv[2] ?? process.cwd();

const config = ts.getParsedCommandLineOfConfigFile(
  `${root}/tsconfig.json`,
  {},
  {
    ...ts.sys,
    onUnRecoverableConfigFileDiagnostic: (problem) => {
      throw new Error(ts.flattenDiagnosticMessageText(problem.messageText, "\n"));
    },
  },
);
const isLookedAt = (file: string) => file.includes("/src/operations/") && !file.endsWith(".test.ts");
const program = ts.createProgram(config?.fileNames.filter(isLookedAt) ?? [], config?.options ?? {});
const checker = program.getTypeChecker();
const problems: string[] = [];

const isPool = (type: ts.Type) => checker.typeToString(type) === "Pool";

const isTransaction = (node: ts.Node) => checker.typeToString(checker.getTypeAtLocation(node)) === "Transaction";

function poolIn(type: ts.Type, at: ts.Node): boolean {
  const db = type.getProperty("db");
  return db !== undefined && isPool(checker.getTypeOfSymbolAtLocation(db, at));
}

function asksPool(node: ts.Node): boolean {
  if (ts.isPropertyAccessExpression(node)) return isPool(checker.getTypeAtLocation(node));
  if (!ts.isIdentifier(node) || !ts.isCallExpression(node.parent) || !node.parent.arguments.includes(node))
    return false;
  const wanted = checker.getContextualType(node);
  return wanted?.getProperty("db") !== undefined && poolIn(checker.getTypeAtLocation(node), node);
}

function lookInto(node: ts.Node): void {
  if (asksPool(node)) {
    const file = node.getSourceFile();
    const { line } = file.getLineAndCharacterOfPosition(node.getStart());
    problems.push(
      `${relative(root, file.fileName)}:${line + 1}: the pool is asked within a transaction: ${node.getText()}`,
    );
  }
  ts.forEachChild(node, lookInto);
}

function visit(node: ts.Node): void {
  // Whatever is given a transaction is within it.
  if (ts.isFunctionLike(node) && node.parameters.some((given) => isTransaction(given))) {
    lookInto(node);
    return;
  }
  ts.forEachChild(node, visit);
}

for (const file of program.getSourceFiles()) if (isLookedAt(file.fileName)) visit(file);

for (const problem of problems) console.log(problem);
console.log(`${problems.length} transactions ask the pool`);
process.exit(problems.length === 0 ? 0 : 1);
