import { createInterface } from 'node:readline';
import { text } from 'node:stream/consumers';
import { listOperations, runLine, runOne } from '../src/core/calc/command.ts';

const names = process.argv.slice(2).filter((word) => !word.startsWith('--'));
const lines = process.argv.includes('--lines');
const [name] = names;

if (!name) process.stdout.write(listOperations());
else if (lines) {
	for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity }))
		if (line.trim()) process.stdout.write(runLine(name, line));
} else {
	const { output, exitCode } = runOne(name, await text(process.stdin));
	process.stdout.write(output);
	process.exitCode = exitCode;
}
