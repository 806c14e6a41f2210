import type { Chance } from './random.ts';

/** What a card is about, before anything happens to it. */
export interface DemoCard {
	title: string;
	description: string;
	size: number;
	label: string;
}

const HARBOURS = [
	'Porthmere',
	'Gull Quay',
	'Saltby',
	'Keldhaven',
	'Thornsea',
	'Old Weir',
	'Marrow Point',
	'Linnet Bay',
	'Cragfoot',
	'Sandling',
];
const BUOYS = ['Gannet', 'Heron', 'Petrel', 'Fulmar', 'Curlew', 'Dunlin', 'Kittiwake', 'Tern', 'Whimbrel'];
const SCHOOLS = [
	'Saltby Primary',
	'Keldhaven High',
	'Thornsea Infants',
	'Cragfoot Academy',
	'Linnet Bay School',
	'Porthmere Juniors',
	'Old Weir College',
	'Sandling Nursery',
];

/** Title, size, label, description. */
type Line = [title: string, size: number, label: string, description: string];

const TIDEWATCH: Line[] = [
	[
		'Text message when a surge is two hours out',
		14,
		'alerts',
		'Skippers asked for one short text, early enough to move a boat. It names the harbour, the height and the hour, and nothing else.',
	],
	[
		'Radio link drops at spring tides',
		20,
		'gauges',
		'Above 5.8 m the mast stands in spray and the link falls back to the slow channel. Find the height at which it starts and keep a second path warm.',
	],
	[
		'Show gauge height in feet as well',
		5,
		'pages',
		'Half of the older harbour masters think in feet. Show both, metres first, and let a harbour choose which is large.',
	],
	[
		'Explain why an alert ended',
		8,
		'alerts',
		'An alert that simply vanishes makes people phone. Say in one line what changed: wind turned, tide passed, gauge corrected.',
	],
	[
		'Import 1998 paper tide tables',
		13,
		'data',
		'Forty sheets, scanned. The old datum is 0.14 m lower; convert on the way in and keep the scan beside every row.',
	],
	[
		'Harbour map loads in two seconds on 3G',
		12,
		'pages',
		'On the quay there is one bar of signal. Draw the coast from one small file and fetch the gauges after.',
	],
	[
		'Quiet hours for low-level alerts',
		6,
		'alerts',
		'Nobody needs to be woken for a yellow. Between ten and six only amber and red ring; the rest waits for the morning list.',
	],
	[
		'Sign-up page reads aloud',
		6,
		'pages',
		'A skipper who does not see well signed up with help last month. Labels, order and errors must make sense by ear.',
	],
	[
		'Gauge drift check, nightly',
		9,
		'gauges',
		'Compare every gauge with its two neighbours at slack water and say which one has wandered more than 3 cm in a week.',
	],
	[
		'Solar mast sleeps when cloudy',
		8,
		'gauges',
		'After two grey days the controller drops to one reading an hour. It should drop the radio first and keep reading.',
	],
	[
		'Ferry desk dashboard',
		10,
		'ferries',
		'One screen on the wall of the ferry desk: next three sailings, height at both ends, go or wait.',
	],
	[
		'Backup battery warning',
		5,
		'gauges',
		'The second battery of a mast is only noticed when it is flat. Warn at 11.8 V with the mast and the last visit.',
	],
	[
		'Tide table as a printed sheet',
		6,
		'pages',
		'The fish quay pins it to the door. One page, one month, large figures, printed without the site around it.',
	],
	[
		'Faster sign-in for duty officers',
		4,
		'pages',
		'At three in the morning nobody types a long password twice. Keep the duty phone signed in for the length of a watch.',
	],
	[
		'Alert wording review',
		5,
		'alerts',
		'Read all nineteen messages aloud with two skippers. Anything that needs explaining is rewritten.',
	],
	[
		'Archive old gauges',
		3,
		'data',
		'Six gauges stand in the list that were pulled years ago. Keep their readings, take them off the map.',
	],
	[
		'Contrast fixes on the storm page',
		3,
		'pages',
		'Yellow on white cannot be read in sunlight. Check every pair of colours outdoors, not only with the meter.',
	],
	[
		'Battery report by mast',
		6,
		'gauges',
		'A weekly list for the yard: voltage lows, days of sun, and which mast to visit first.',
	],
	[
		'Map legend that names its colours',
		2,
		'pages',
		'Colour alone tells some people nothing. Say calm, watch, warning and danger in words on the map.',
	],
	[
		'Dawn summary by e-mail',
		16,
		'alerts',
		'Before the boats go out: tonight’s surge, the next two tides, and what changed since yesterday evening.',
	],
	[
		'Neap-tide false alarms',
		20,
		'alerts',
		'Eleven alarms in spring came from neap tides with wind against current. Learn the pattern from two years of readings and hold those back.',
	],
	[
		'Two-language alert text',
		5,
		'alerts',
		'The visiting fleet reads its own language. Both in one message, short enough for a single text.',
	],
	[
		'Gauge photo on each page',
		3,
		'pages',
		'People ring because they look at the wrong ladder. A photo of the right one, with north marked, would end that.',
	],
	[
		'Retire the pager bridge',
		8,
		'alerts',
		'Four pagers are left. Move their owners to texts, keep the bridge one month in parallel, then switch it off.',
	],
	[
		'Surge history for schools',
		13,
		'data',
		'Teachers want the five great surges with their readings, simple enough to plot by hand.',
	],
	[
		'Alert opt-out in one tap',
		3,
		'alerts',
		'Leaving must be as easy as joining: one link, no sign-in, and a line that says what was switched off.',
	],
	[
		'Fog sensor feed',
		12,
		'data',
		'The lighthouse has a fog sensor and will share it. Read it every five minutes and show it beside the wind.',
	],
	[
		'Move map tiles in-house',
		20,
		'pages',
		'The rented tiles went down on the worst night of the year. Draw our own coast from the survey file.',
	],
	[
		'Faster deploy to masts',
		5,
		'gauges',
		'A new setting takes two hours to reach forty masts one by one. Send it in parallel and report who has not answered.',
	],
	[
		'Jetty signage with a live height',
		2,
		'pages',
		'A small weatherproof sign that shows the height now and the next turn. This card is the page it loads.',
	],
	[
		'Calmer night wording',
		5,
		'alerts',
		'Messages after dark should say first whether anyone must get up. Then why.',
	],
	[
		'Siren test without the siren',
		12,
		'alerts',
		'Test the whole chain up to the relay every Monday, and prove that the relay would have closed.',
	],
	[
		'Alert log export',
		15,
		'data',
		'The insurer wants every alert of a year with who got it and when. One file, signed, made in a minute.',
	],
	[
		'Retry texts that did not arrive',
		10,
		'alerts',
		'One text in fifty is never delivered. Try a second provider after ninety seconds, and tell the desk if both fail.',
	],
	[
		'Mast sleep, part two',
		12,
		'gauges',
		'With the radio asleep first, let the wake-up follow the tide: often at high water, seldom at low.',
	],
	[
		'Height at the ferry ramp',
		7,
		'ferries',
		'The ramp closes below 0.9 m. Show the minutes until it does, for both directions.',
	],
	[
		'Duty rota on the alert page',
		6,
		'pages',
		'Whoever sees the alert first should see whom to ring, with one tap to do so.',
	],
	[
		'Wind against tide warning',
		11,
		'alerts',
		'A short steep sea builds at the bar when wind and ebb meet. Warn small boats an hour ahead.',
	],
	[
		'Gauge readings as open data',
		9,
		'data',
		'A daily file that anyone may take, with the datum and the gaps named plainly.',
	],
	[
		'Find gaps in the readings',
		6,
		'data',
		'List every hour without a reading, who noticed and what was filled in later.',
	],
	[
		'Old phones show the alert page',
		7,
		'pages',
		'Two harbours keep ten-year-old phones on charge. The page must work without any script.',
	],
	[
		'Harbour closes at a height',
		8,
		'ferries',
		'Each harbour has a height at which it shuts. Store it once and let alerts, signs and the desk use it.',
	],
	[
		'Sound of the alarm',
		4,
		'alerts',
		'The old alarm is taken for a fire alarm. Three rising tones, tested with people asleep.',
	],
	[
		'Clock drift on masts',
		5,
		'gauges',
		'Some masts are four minutes late by winter. Set the clock from every radio contact.',
	],
	[
		'Spare parts list by mast',
		4,
		'gauges',
		'What is fitted where, and what lies on the shelf, so that one trip is enough.',
	],
	[
		'One number for all questions',
		3,
		'pages',
		'Three telephone numbers stand on our pages. Leave one, and send the others there.',
	],
	[
		'Storm rehearsal tool',
		16,
		'alerts',
		'Play the readings of a past storm through the service at ten times speed, with every message marked as a rehearsal.',
	],
	[
		'Undo a wrong manual alert',
		6,
		'alerts',
		'Someone once sent red for a drill. A second message must follow within seconds and reach the same people.',
	],
	[
		'Ice on the gauge float',
		9,
		'gauges',
		'Two frosts a winter hold the float. A flat line at low temperature is ice, not calm water.',
	],
	[
		'Readings every minute in a storm',
		10,
		'gauges',
		'Ten minutes is too coarse when the water rises a hand’s breadth in that time. Speed up by itself above the watch height.',
	],
];

type Pattern = [title: string, size: number, label: string, description: string];

const TIDE_BY_HARBOUR: Pattern[] = [
	[
		'Calibrate the {place} gauge',
		6,
		'gauges',
		'Yearly check against the staff at {place}: high and low water on one spring tide, with the harbour master as witness.',
	],
	[
		'{place} heights on the ferry desk',
		4,
		'ferries',
		'The desk asks for {place} beside its own berth. Add the height, the trend and the hour of the next turn.',
	],
	[
		'Alert levels agreed with {place}',
		5,
		'alerts',
		'Sit down with the harbour at {place} and agree yellow, amber and red for their own quay, then write them on their page.',
	],
	[
		'{place} storm page in plain words',
		3,
		'pages',
		'What to do, where to park, whom to ring at {place}. Read by someone who does not know the place.',
	],
	[
		'New antenna path for {place}',
		11,
		'gauges',
		'The new crane shadows the old path at {place}. Move the antenna or find a relay, and log a week before and after.',
	],
	[
		'Ten years of {place} readings checked',
		9,
		'data',
		'Find spikes and steps in the {place} record, mark them with a reason, and keep the raw file as it was.',
	],
	[
		'Predicted against measured at {place}',
		7,
		'data',
		'Draw last winter’s surge at {place} against the forecast, and say how early we would have known.',
	],
	[
		'Second gauge for {place}',
		14,
		'gauges',
		'One gauge is no gauge when it fails in a storm. Fit the spare at {place} and teach the service to choose between two.',
	],
	[
		'{place} skippers on the new texts',
		4,
		'alerts',
		'Move the {place} list to the new messages, one evening in the harbour hall to explain them.',
	],
	[
		'Harbour lights follow the warning at {place}',
		10,
		'alerts',
		'The light board at {place} shall show what the page shows, and go dark rather than lie when the link is lost.',
	],
	[
		'Check who still gets {place} alerts',
		2,
		'alerts',
		'A third of the numbers on the {place} list are dead. Ring those that bounced and clear the rest.',
	],
	[
		'Rain gauge beside the {place} mast',
		6,
		'data',
		'The river adds to the surge at {place}. Fit the rain gauge and show both together.',
	],
];

const BUOY_BY_BUOY: Pattern[] = [
	[
		'Change the lamp on {place}',
		5,
		'lights',
		'The lamp of {place} fades at dawn. Fit the sealed one and check the flash against the chart.',
	],
	[
		'Swap the battery box of {place}',
		8,
		'power',
		'The box on {place} took water twice. New seals, new vents, weighed before and after.',
	],
	[
		'Re-lay the mooring of {place}',
		16,
		'mooring',
		'{place} dragged forty metres north in spring. New sinker, heavier chain in the lower third.',
	],
	[
		'Anemometer for {place}',
		7,
		'sensors',
		'The cups on {place} turn stiffly. Replace the bearing, or the head if the shaft is scored.',
	],
	[
		'Scrape and paint {place}',
		12,
		'hull',
		'Weed below the line slows the swing of {place}. Scrape, prime, two coats, and the number on both sides.',
	],
	[
		'Wave sensor firmware on {place}',
		4,
		'sensors',
		'The sensor of {place} counts a wake as a wave. Load the new filter and log one rough day.',
	],
	[
		'Inspect the chain of {place}',
		6,
		'mooring',
		'Measure every tenth link of the {place} chain; below 19 mm the length is changed.',
	],
	[
		'Solar panel bracket on {place}',
		5,
		'power',
		'A gull broke the bracket of {place}. Weld the stronger one and fit the spikes.',
	],
	[
		'Radio check from {place}',
		3,
		'sensors',
		'Listen to {place} from three headlands and write down where it fades.',
	],
	[
		'Recover the spare anchor near {place}',
		9,
		'mooring',
		'The anchor left by {place} last winter lies in nine metres. Bring it up at neaps.',
	],
];

const BUOY_STORM: Pattern[] = [
	[
		'Storm damage: {place} adrift',
		10,
		'storm',
		'{place} parted its chain in the night. Find, tow and hold it at the yard until the mooring is relaid.',
	],
	[
		'Storm damage: {place} lamp dark',
		5,
		'storm',
		'Notice to mariners is out for {place}. A light within two days, even a temporary one.',
	],
	[
		'Storm damage: {place} mast bent',
		8,
		'storm',
		'The mast of {place} leans and the antenna is in the water at every roll. Cut, sleeve and re-rig.',
	],
];

const TIDE_STORM: Pattern[] = [
	[
		'Storm repair: {place} feed',
		4,
		'storm',
		'The feed from {place} stopped in the gale. Bring the second path up tonight and look for the cause in the morning.',
	],
	[
		'Storm repair: texts stuck for {place}',
		6,
		'storm',
		'Messages for {place} wait in the queue behind a provider that does not answer. Empty it and say who was reached late.',
	],
	[
		'Storm repair: wrong height at {place}',
		5,
		'storm',
		'The float at {place} jammed under a plank and showed calm water. Correct the record and warn the desk.',
	],
	[
		'Storm repair: power out at {place}',
		7,
		'storm',
		'The mast at {place} ran its battery flat. Take the spare out with the morning boat and find out why it did not charge.',
	],
];

const SHORE_BY_SCHOOL: Pattern[] = [
	[
		'Visit by {place}',
		3,
		'visits',
		'Two hours for a class of {place}: the gauge well, the map table, and a storm played back.',
	],
	[
		'Tide workbook for {place}',
		5,
		'visits',
		'Eight pages that {place} can print: reading a table, plotting a day, guessing tomorrow.',
	],
	[
		'Thank-you page for {place}',
		1,
		'pages',
		'Pictures and three sentences by the children of {place}, with the parents’ consent on file.',
	],
	[
		'Questions from {place} answered',
		2,
		'visits',
		'The class sent eleven questions after the visit. Answer each in words that {place} can read out.',
	],
	[
		'Storm drill with {place}',
		5,
		'visits',
		'Walk the way to high ground with {place}, time it, and leave them a map of it.',
	],
	[
		'Build-a-gauge kit for {place}',
		8,
		'visits',
		'A tube, a float and a ruler: enough for {place} to keep their own record for a month.',
	],
	[
		'Talk for the parents of {place}',
		3,
		'visits',
		'An evening at {place} on what the colours mean and when to stay home.',
	],
];

const SHORE: Line[] = [
	[
		'New tide page for phones',
		8,
		'pages',
		'One harbour, one screen: now, next turn, and a line for the day. Everything else behind a link.',
	],
	[
		'What the colours mean, in a minute',
		3,
		'pages',
		'A short film without sound, with captions, for the screen in the ferry queue.',
	],
	['Holiday opening times', 1, 'pages', 'On every page that names a time, not only on the front.'],
	[
		'Answers to the ten usual questions',
		5,
		'pages',
		'Take them from a month of telephone notes, and write each answer as it is said on the phone.',
	],
	[
		'Winter talk at the library',
		5,
		'visits',
		'Forty chairs, the great surge of the old photographs, and time for people who remember it.',
	],
	['Leaflet for visiting boats', 3, 'pages', 'Folded once, in two languages, at every fuel berth.'],
	[
		'Picture index of all gauges',
		5,
		'pages',
		'So that the desk can tell a caller which ladder they are looking at.',
	],
	['Reading levels of all pages', 3, 'pages', 'Measure each page and rewrite the three hardest.'],
	['Signs at the slipway', 2, 'pages', 'Three signs, one sentence each, large enough to read from a car.'],
	[
		'Newsletter for the harbour towns',
		3,
		'pages',
		'What changed this month, who to thank, and what to do before the next spring tide.',
	],
	['Comment box on the storm page', 2, 'pages', 'One question: was this clear? Read weekly by the desk.'],
	[
		'Radio script for storm days',
		3,
		'pages',
		'Forty seconds that the local station can read without asking back.',
	],
	['Open day at the observatory', 8, 'visits', 'Four stations, a route for wheelchairs, and a rain plan.'],
	['Tide clock for the town square', 5, 'pages', 'Agree the text on the plate and who winds it.'],
];

const SHORE_RUSH: Pattern[] = [
	[
		'Callers from {place} cannot read the warning',
		1,
		'press',
		'Ring three of them back, find out which words they stumbled over, and mend the page before the evening tide.',
	],
	[
		'Press question: {place} flooding',
		2,
		'press',
		'The paper goes to print at six and asks about {place}. Two sentences, one figure, read by the service lead.',
	],
];

function fill(patterns: Pattern[], places: string[]): DemoCard[] {
	return places.flatMap((place, i) =>
		patterns.map(([title, size, label, description], j) => ({
			title: title.replaceAll('{place}', place),
			description: description.replaceAll('{place}', place),
			// The same job is not the same size everywhere.
			size: Math.max(1, size + (((i * 7 + j * 3) % 5) - 2) * (size > 6 ? 2 : size > 3 ? 1 : 0)),
			label,
		})),
	);
}

const lines = (list: Line[]): DemoCard[] =>
	list.map(([title, size, label, description]) => ({ title, size, label, description }));

function shuffled<T>(list: T[], by: Chance): T[] {
	const copy = [...list];
	for (let i = copy.length - 1; i > 0; i--) {
		const j = by.whole(0, i);
		[copy[i], copy[j]] = [copy[j]!, copy[i]!];
	}
	return copy;
}

/** The work that comes to each board, in the order in which it comes, and what storms bring. */
export function cardsFor(key: string, by: Chance): { usual: DemoCard[]; urgent: DemoCard[] } {
	const larger = (cards: DemoCard[], factor: number) =>
		cards.map((card) => ({ ...card, size: Math.round(card.size * factor) }));
	if (key === 'TIDE')
		return {
			usual: larger(shuffled([...lines(TIDEWATCH), ...fill(TIDE_BY_HARBOUR, HARBOURS)], by), 1.5),
			urgent: shuffled(fill(TIDE_STORM, HARBOURS), by),
		};
	if (key === 'BUOY')
		return {
			usual: larger(shuffled(fill(BUOY_BY_BUOY, BUOYS), by), 1.3),
			urgent: shuffled(fill(BUOY_STORM, BUOYS), by),
		};
	const points = (cards: DemoCard[]) =>
		cards.map((card) => ({
			...card,
			size: [1, 2, 3, 5, 8].reduce((a, b) => (Math.abs(b - card.size) < Math.abs(a - card.size) ? b : a)),
		}));
	return {
		usual: points(shuffled([...lines(SHORE), ...fill(SHORE_BY_SCHOOL, SCHOOLS)], by)),
		urgent: fill(SHORE_RUSH, HARBOURS),
	};
}
