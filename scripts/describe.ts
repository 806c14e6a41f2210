// npm run describe: writes down what the reads and commands of the API answer, from the types that stand in src/lib/api.ts.
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createGenerator } from 'ts-json-schema-generator';

const FILE = 'src/lib/server/api-answers.json';

/** The schemas of all answers by their paths, and those that they refer to, as the description's components. */
export function apiAnswers(): string {
	const generator = createGenerator({
		path: 'src/lib/api.ts',
		tsconfig: 'tsconfig.json',
		type: 'Reads',
		topRef: false,
		skipTypeCheck: true,
		sortProps: true,
	});
	const reads = generator.createSchema('Reads');
	const results = generator.createSchema('Results');
	const schemas = { ...reads.definitions, ...results.definitions };
	const text = JSON.stringify(
		{ answers: reads.properties, results: results.properties, schemas },
		asOpenApi,
		'\t',
	);
	return `${text.replaceAll('"#/definitions/', '"#/components/schemas/')}\n`;
}

/** Lists of fixed places are said otherwise in JSON Schema 2020-12, which OpenAPI 3.1 goes by. */
function asOpenApi(_key: string, value: unknown): unknown {
	if (value === null || typeof value !== 'object' || !('items' in value) || !Array.isArray(value.items))
		return value;
	const { items, ...rest } = value;
	return { ...rest, prefixItems: items, items: false };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync(FILE, apiAnswers());
