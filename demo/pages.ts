import { randomUUID } from 'node:crypto';
import { rows } from '../src/lib/server/database.ts';
import { obey } from '../src/lib/server/door/door.ts';
import { keepUpload } from '../src/lib/server/files.ts';
import { boardOfDemo, peopleOfDemo } from './through-the-door.ts';

/** What stands on the pages of boards and initiatives: notes as they were written one after the other, talk, files. */
interface DemoPage {
	board: string;
	initiative?: string;
	notes: [who: string, text: string][];
	talk: [who: string, text: string, answers?: number][];
	file?: [who: string, name: string, text: string];
}

const PAGES: DemoPage[] = [
	{
		board: 'TIDE',
		notes: [
			['Ines Okoro', '## Duty\n\n- Nights: **Bram**, from 20:00\n- Weekends: by turns'],
			[
				'Bram Tolver',
				'## Duty\n\n- Nights: **Bram**, from 22:00\n- Weekends: by turns, the list hangs in the watch room\n\n## Words we use\n\n- *Surge*: the sea above its table\n- *False alarm*: a warning that nobody had to act on',
			],
		],
		talk: [
			['Tomas Reyl', 'The harbour masters meet on 3 December. @Ines Okoro do we show them the new pages?'],
			['Ines Okoro', 'Yes, the three harbours that are done.', 0],
		],
		file: ['Tomas Reyl', 'harbours.csv', 'harbour,gauge,since\nSkerrow,yes,2019\nNorth Quay,yes,2024\n'],
	},
	{
		board: 'TIDE',
		initiative: 'Gauges for every harbour',
		notes: [
			[
				'Tomas Reyl',
				'Seven harbours, **four** of them have a gauge.\n\n1. Outer Skerry, once the cable is there\n2. Lamb Island, in spring',
			],
			[
				'Ines Okoro',
				'Seven harbours, **five** of them have a gauge.\n\n1. Outer Skerry, once the cable is there\n2. Lamb Island, in spring',
			],
		],
		talk: [['Petra Lind', 'The cable for Outer Skerry comes by boat; @Tomas Reyl can the yard take it in?']],
	},
	{
		board: 'BUOY',
		notes: [['Oskar Venn', 'The crane is ours on Mondays; **call the yard** by Friday noon.']],
		talk: [],
	},
];

/** Writes them through the same door as everybody. */
export async function pagesDemo(): Promise<void> {
	const people = await peopleOfDemo();
	for (const { board: key, initiative, notes, talk, file } of PAGES) {
		const of = { board: await boardOfDemo(key), ...(initiative ? { initiative } : {}) };
		const tell = (who: string, command: string, input: object) =>
			obey(people.get(who)!, { id: randomUUID(), command, input: { ...of, ...input } });
		for (const [i, [who, text]] of notes.entries()) await tell(who, 'WriteNotes', { version: i + 1, text });
		const said: number[] = [];
		for (const [who, text, answers] of talk) {
			const replyTo = answers === undefined ? {} : { replyTo: said[answers] };
			said.push((await tell(who, 'CommentPage', { text, ...replyTo })).seq!);
		}
		if (file) {
			const [who, name, text] = file;
			const { upload } = await keepUpload(people.get(who)!, Buffer.from(text));
			await tell(who, 'AttachToPage', { files: [{ upload, name }] });
		}
	}
	await rows('analyze page');
}
