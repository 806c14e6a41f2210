import { spawn, type ChildProcess } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { after } from 'node:test';

export interface Running {
	url: string;
	process: ChildProcess;
	/** What it logged. */
	log: () => string;
}

async function freePort(): Promise<number> {
	const server = createServer();
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
	const { port } = server.address() as AddressInfo;
	await new Promise((resolve) => server.close(resolve));
	return port;
}

/** Runs the built application against DATABASE_URL, on a free port of loopback; it is stopped after the tests. */
export async function startServer(settings: Record<string, string> = {}): Promise<Running> {
	const { ready, ...running } = await launch(settings);
	await ready;
	return running;
}

/** The same, without waiting until it listens: ready fails where it ends before. */
export async function launch(settings: Record<string, string>): Promise<Running & { ready: Promise<void> }> {
	const port = await freePort();
	const url = `http://127.0.0.1:${port}`;
	const child = spawn(process.execPath, [`${process.env.HARROW_BUILD}/index.js`], {
		env: {
			...process.env,
			HOST: '127.0.0.1',
			PORT: String(port),
			ORIGIN: url,
			HARROW_DEMO: '1',
			BODY_SIZE_LIMIT: '1G',
			SHUTDOWN_TIMEOUT: '2',
			HARROW_LOG: 'info',
			HARROW_JOBS: 'off',
			HARROW_WARM: 'off',
			...settings,
		},
		stdio: ['ignore', 'pipe', 'pipe'],
	});
	let said = '';
	const ready = new Promise<void>((resolve, reject) => {
		const hear = (chunk: Buffer) => {
			said += chunk.toString();
			if (said.includes('Listening on')) resolve();
		};
		child.stdout.on('data', hear);
		child.stderr.on('data', hear);
		child.once('exit', (code) => reject(new Error(`The server ended with ${code}: ${said}`)));
	});
	after(async () => {
		// Nobody told it to: what it said last tells why.
		if (child.exitCode) throw new Error(`The server ended with ${child.exitCode}: ${said.slice(-4000)}`);
		await stopServer(child);
	});
	return { url, process: child, log: () => said, ready };
}

/** Stops a server and waits until it has ended; gives its exit code. */
export async function stopServer(
	child: ChildProcess,
	signal: NodeJS.Signals = 'SIGTERM',
): Promise<number | null> {
	if (child.exitCode !== null || child.signalCode !== null) return child.exitCode;
	const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
	child.kill(signal);
	return ended;
}

/** Whom the page on which one signs in has offered, by server and name. */
const offered = new Map<string, string>();

/** Signs in as a demo person and gives the cookie. */
export async function signIn(url: string, name: string): Promise<string> {
	const of = `${url} ${name}`;
	if (!offered.has(of)) {
		const page = await (await fetch(`${url}/sign-in`)).text();
		// Two of the demo share a name: the first is meant.
		const id = new RegExp(`value="([0-9a-f-]{36})"(?:(?!<button)[\\s\\S])*?>${name}<`).exec(page)?.[1];
		if (!id) throw new Error(`${name} cannot be signed in.`);
		offered.set(of, id);
	}
	const answer = await fetch(`${url}/sign-in?/demo`, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: url, 'content-type': 'application/x-www-form-urlencoded' },
		body: new URLSearchParams({ person: offered.get(of)! }),
	});
	return answer.headers.get('set-cookie')!.split(';')[0]!;
}
