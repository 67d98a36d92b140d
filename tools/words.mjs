// npm run words: every text that a person can meet, a line each with where it stands. `--check` holds each against the glossary.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseTemplate, TmplAstBoundText, TmplAstElement, TmplAstText, tmplAstVisitAll } from '@angular/compiler';
import ts from 'typescript';
import { faultsOfText } from './glossary.mjs';
import { ownFiles, ROOT } from './shell.mjs';

/** Rooms whose texts are shown to people. */
const ROOMS = /^(web\/src\/app|work\/src|core\/src|contract\/src|server\/src)\/.*\.(ts|html)$/;
/** Attributes that are read by people, or to them. */
const READ = new Set(['aria-label', 'placeholder', 'title', 'label', 'name', 'heading', 'hint', 'text', 'alt']);

/** Texts of a template: its own words, and the strings within what is bound. */
function ofTemplate(source, file, offset) {
  const found = [];
  const add = (text, span) => {
    const words = text.replace(/\s+/g, ' ').trim();
    if (/[A-Za-z]{2}/.test(words)) found.push({ file, line: offset + span.start.line, text: words });
  };
  const inBound = (raw, span) => {
    for (const [, one, other] of raw.matchAll(/'((?:[^'\\]|\\.)*)'|"((?:[^"\\]|\\.)*)"/g)) {
      const text = one ?? other;
      if (isSentence(text)) add(text, span);
    }
  };
  const visitor = {
    visit(node) {
      if (node instanceof TmplAstText) add(node.value, node.sourceSpan);
      else if (node instanceof TmplAstBoundText) {
        const raw = node.sourceSpan.toString();
        add(raw.replace(/\{\{[^}]*\}\}/g, '…'), node.sourceSpan);
        inBound(raw, node.sourceSpan);
      } else {
        if (node instanceof TmplAstElement)
          for (const { name, value, sourceSpan } of node.attributes) if (READ.has(name)) add(value, sourceSpan);
        for (const bound of node.inputs ?? []) inBound(bound.sourceSpan.toString().replace(/^[^=]*="?/, ''), bound.sourceSpan);
        for (const part of [node.children, node.branches, node.cases, node.groups]) if (part) tmplAstVisitAll(visitor, part);
        if (node.empty) tmplAstVisitAll(visitor, [node.empty]);
        for (const part of [node.placeholder, node.loading, node.error]) if (part) tmplAstVisitAll(visitor, [part]);
      }
    },
  };
  tmplAstVisitAll(visitor, parseTemplate(source, file, { preserveWhitespaces: false }).nodes);
  return found;
}

/** Whether a string of the program is meant for people: several words, or a word that begins with a capital. */
const isSentence = (text) => /[A-Za-z]/.test(text) && (/[A-Za-z]{2,}[ ,]+\S/.test(text.trim()) || /^[A-Z][a-z]{2,}[.?!:]?$/.test(text));

/** Texts of a source file: string literals and templates, with … for what is put in. */
function ofSource(source, file) {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true);
  const found = [];
  const add = (node, text) => {
    const words = text.replace(/\s+/g, ' ').trim();
    if (!isSentence(words) || /^[.#[:@]/.test(words)) return;
    found.push({ file, line: tree.getLineAndCharacterOfPosition(node.getStart()).line + 1, text: words });
  };
  const walk = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    const name = ts.isPropertyAssignment(node) ? node.name.getText() : '';
    if (name === 'template' && ts.isStringLiteralLike(node.initializer)) {
      const { line } = tree.getLineAndCharacterOfPosition(node.initializer.getStart());
      found.push(...ofTemplate(node.initializer.text, file, line + 1));
      return;
    }
    if (['selector', 'styles', 'styleUrl', 'templateUrl', 'imports', 'host', 'pattern'].includes(name)) return;
    if (ts.isThrowStatement(node) && !/message|path/.test(node.getText())) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) add(node, node.text);
    else if (ts.isTemplateExpression(node)) {
      add(node, node.head.text + node.templateSpans.map(({ literal }) => `…${literal.text}`).join(''));
      for (const { expression } of node.templateSpans) walk(expression);
      return;
    }
    ts.forEachChild(node, walk);
  };
  walk(tree);
  return found;
}

const files = ownFiles().filter((file) => ROOMS.test(file) && !/\.spec\.ts$|\/testing\/|\/db\/|migrations|practice/.test(file));
const texts = files.flatMap((file) => {
  const source = readFileSync(join(ROOT, file), 'utf8');
  return file.endsWith('.html') ? ofTemplate(source, file, 1) : ofSource(source, file);
});
if (process.argv.includes('--check')) {
  const faults = texts.flatMap(({ file, line, text }) => faultsOfText(text).map((fault) => `${file}:${line} ${fault}: ${text}`));
  for (const fault of faults) console.log(fault);
  console.log(`${texts.length} texts, ${faults.length} against the glossary`);
  process.exitCode = faults.length ? 1 : 0;
} else {
  for (const { file, line, text } of texts) console.log(`${file}:${line}\t${text}`);
}
