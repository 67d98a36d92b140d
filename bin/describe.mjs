// What a file of a check, a move or a machine may hold, as text: isometra describe, and docs/formats.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../tools/shell.mjs';

const KINDS = { check: 'Checks', move: 'Moves', machine: 'Machines' };
/** Where examples are taken from: the project's own files first. */
const CASES = ['core/cases-own', 'core/cases'];
/** An example with more readings than this is cut, and says so. */
const READINGS = 6;

/** The smallest case of each check and move, by its name. */
function examples() {
  const found = new Map();
  for (const folder of CASES)
    for (const [kind, key, name] of [
      ['checks', 'sheet', 'check'],
      ['moves', 'move', 'move'],
    ])
      for (const file of readdirSync(join(ROOT, folder, kind)).filter((entry) => entry.endsWith('.json'))) {
        const example = JSON.parse(readFileSync(join(ROOT, folder, kind, file), 'utf8'))[key];
        const size = (one) => JSON.stringify(one).length;
        const known = found.get(example?.[name]);
        if (example?.[name] && (!known || size(example) < size(known))) found.set(example[name], example);
      }
  return found;
}
let cases;
/** A file that would be taken; undefined for a kind of machine. */
const exampleOf = (name) => (cases ??= examples()).get(name);

const cell = (text) => String(text).replaceAll('|', '\\|').replace(/\s+/g, ' ').trim();
const row = (cells) => `| ${cells.map(cell).join(' | ')} |`;

/** Names of everything that can be described, a line each. */
function listText(all) {
  return Object.entries(KINDS)
    .map(([kind, heading]) => {
      const lines = all.filter((one) => one.kind === kind).map(({ name, title }) => `  ${name.padEnd(28)}${title}`);
      return [heading, ...lines].join('\n');
    })
    .join('\n\n');
}

const meaning = ({ label, help, choices }) =>
  [`${label}${help && label ? ': ' : ''}${help}`, choices.length > 0 && `one of ${choices.join(', ')}`]
    .filter(Boolean)
    .map((part) => part.replace(/\.$/, ''))
    .join('; ');

function fieldTable(fields) {
  const lines = fields.map((field) =>
    row([
      `\`${field.path}\``,
      field.unit && `\`${field.unit}\``,
      field.required ? 'yes' : '',
      meaning(field),
      field.example && `\`${field.example}\``,
    ]),
  );
  return ['| Key | Unit of a bare number | Required | Meaning | Example |', '|---|---|---|---|---|', ...lines].join('\n');
}

function quantityTable(quantities) {
  const lines = quantities.map(({ name, label, unit, limit, plus, minus, moves }) =>
    row([
      `\`${name}\``,
      label,
      unit && `\`${unit}\``,
      limit ? limit.map((bound) => bound ?? 'none').join(' to ') : '',
      plus && `+ ${plus}; − ${minus}`,
      moves.map((move) => `\`${move}\``).join(', '),
    ]),
  );
  return ['| Result | Meaning | Unit | General limits | Signs | Corrected by |', '|---|---|---|---|---|---|', ...lines].join('\n');
}

/** An example with its first readings. */
function exampleText(example) {
  const { readings } = example;
  const cut = readings?.length > READINGS ? { ...example, readings: readings.slice(0, READINGS) } : example;
  const shown = JSON.stringify(cut, null, 2).replace(/\{\n\s+([^{}[\]]+?)\n\s+\}/g, (_all, inner) => `{ ${inner.replace(/\n\s+/g, ' ')} }`);
  const more = cut === example ? '' : `\n\nThe first ${READINGS} of ${readings.length} readings.`;
  return `\`\`\`json\n${shown}\n\`\`\`${more}`;
}

/** One description as Markdown. */
export function descriptionText({ name, title, about, machines, parts, quantities, example = exampleOf(name) }) {
  return [
    `# ${title} (\`${name}\`)`,
    about,
    machines.length ? `For: ${machines.join(', ')}.` : '',
    ...parts.flatMap(({ part, about: told, fields }) => [`## ${part ? `\`${part}\`` : 'Keys'}`, told, fieldTable(fields)]),
    ...(quantities.length ? ['## Results', quantityTable(quantities)] : []),
    ...(example ? ['## Example', exampleText(example)] : []),
  ]
    .filter(Boolean)
    .join('\n\n');
}

/** `isometra describe [NAME]`: `refuse` takes faults. */
export async function describeCommand(names, refuse) {
  const { described } = await import('@isometra/contract/describe');
  const { nearest } = await import('@isometra/core');
  const all = described();
  if (names.length === 0) return console.log(listText(all));
  const found = new Map(all.map((one) => [one.name, one]));
  const unknown = names.filter((name) => !found.has(name));
  if (unknown.length) {
    const known = [...found.keys()];
    return refuse(
      unknown.map((name) => ({
        path: '',
        message: `"${name}" is not a check, a move or a kind of machine`,
        example: nearest(name, known) ?? known[0],
      })),
    );
  }
  console.log(names.map((name) => descriptionText(found.get(name))).join('\n\n'));
}
