import assert from 'node:assert/strict';
import { after, afterEach } from 'node:test';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { BrowserContext, Download, Page } from 'playwright-core';
import { signIn } from './server.ts';

const require = createRequire(import.meta.url);
/** It is large: imported, it would be read through for the names of what it exports, which takes as long as running it. */
const { chromium } = require('playwright-core') as typeof import('playwright-core');

/** Debian's Chromium, without a monitor: one for all test files, left after them. */
const browser = await chromium.connect(process.env.HARROW_BROWSER!);
after(() => browser.close());

/** What the console of each open page has said, and what was asked of the server and not answered well. */
const open = new Map<Page, string[]>();
// Of a test that failed it is said how its pages stood then.
afterEach(async (context) => {
	if ('passed' in context && !context.passed)
		for (const [page, said] of open) {
			const text = await page.evaluate(() => document.body.innerText).catch(String);
			console.log(`${page.url()} stands so:\n${text.slice(0, 6000)}\n${said.slice(-40).join('\n')}`);
		}
	open.clear();
});

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

export interface Visit {
	page: Page;
	context: BrowserContext;
	/** Fails when the page has said anything on its console that it should not, but for what is expected. */
	quiet(expected?: RegExp): void;
}

interface Device {
	width?: number;
	height?: number;
	dark?: boolean;
	touch?: boolean;
	/** It keeps pages for later. */
	offline?: boolean;
}

/** Devices that were put away, by what they are: the next one like them has its scripts, and nothing else of before. */
const putAway = new Map<string, BrowserContext[]>();

async function device(url: string, options: Device): Promise<BrowserContext> {
	const kind = JSON.stringify([url, options]);
	const known = putAway.get(kind)?.pop();
	if (known) return known;
	const context = await browser.newContext({
		baseURL: url,
		locale: 'en-GB',
		viewport: { width: options.width ?? 1280, height: options.height ?? 800 },
		colorScheme: options.dark ? 'dark' : 'light',
		// What keeps pages for later stands between a page and the tests that look at what it asks for.
		serviceWorkers: options.offline ? 'allow' : 'block',
		hasTouch: options.touch ?? false,
		isMobile: options.touch ?? false,
		reducedMotion: 'reduce',
	});
	context.setDefaultTimeout(20_000);
	// The compiler of the tests names functions with a helper that pages do not have.
	await context.addInitScript('globalThis.__name = (named) => named');
	if (options.offline) return context;
	// The process that draws for the device stays as long as this page, with what it has read of the scripts.
	const kept = await context.newPage();
	await kept.goto('/health');
	const [addInitScript, close] = [context.addInitScript.bind(context), context.close.bind(context)];
	let changed = false;
	context.addInitScript = (...script) => {
		changed = true;
		return addInitScript(...script);
	};
	context.close = async () => {
		if (changed) return close();
		await Promise.all(context.pages().map((page) => page === kept || page.close()));
		await Promise.all([context.unrouteAll({ behavior: 'ignoreErrors' }), context.setOffline(false)]);
		await Promise.all([context.clearCookies(), context.clearPermissions()]);
		const tools = await context.newCDPSession(kept);
		await tools.send('Storage.clearDataForOrigin', {
			origin: url,
			storageTypes: 'local_storage,indexeddb,cache_storage',
		});
		await tools.detach();
		putAway.set(kind, [...(putAway.get(kind) ?? []), context]);
	};
	return context;
}

/** Opens a page as someone of the demo, or (null) as nobody, on a device of their own. */
export async function visit(
	url: string,
	person: string | null,
	path: string,
	options: Device = {},
): Promise<Visit> {
	const context = await device(url, options);
	const page = await context.newPage();
	const said: string[] = [];
	page.on(
		'console',
		(message) =>
			['error', 'warning'].includes(message.type()) &&
			!message.text().startsWith('Service Worker registration blocked') &&
			said.push(message.text()),
	);
	page.on('pageerror', (error) => said.push(error.message));
	const heard: string[] = [];
	open.set(page, heard);
	page.on('console', (message) => heard.push(message.text()));
	page.on('requestfailed', (request) => heard.push(`${request.url()}: ${request.failure()?.errorText}`));
	page.on('response', (response) => {
		if (response.request().method() !== 'GET' || response.status() >= 400)
			heard.push(`${response.url()}: ${response.status()}`);
	});
	page.on('close', () => open.delete(page));
	if (person) {
		const [name, value] = (await signIn(url, person)).split('=') as [string, string];
		await context.addCookies([{ name, value, url, httpOnly: true }]);
	}
	await page.goto(path);
	await awake(page);
	return {
		page,
		context,
		quiet: (expected) =>
			assert.deepEqual(
				said.filter((text) => !expected?.test(text)),
				[],
			),
	};
}

/** Waits until the page answers to clicks and keys. */
export async function awake(page: Page): Promise<void> {
	await page.waitForLoadState('load');
	await page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
}

/** What the page gives to be kept as a file, as text. */
export async function textOf(download: Download): Promise<string> {
	const chunks: Buffer[] = [];
	for await (const chunk of (await download.createReadStream())!) chunks.push(chunk as Buffer);
	return Buffer.concat(chunks).toString('utf8');
}

/** Fails on anything that axe finds wrong: names, roles, contrast. */
export async function accessible(page: Page): Promise<void> {
	if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
	const violations = await page.evaluate(async () => {
		const found = await (window as unknown as { axe: typeof axe }).axe.run(document, {
			runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
			// What stands on a button is part of its name (2.5.3).
			rules: { 'label-content-name-mismatch': { enabled: true } },
			resultTypes: ['violations'],
		});
		return found.violations;
	});
	const found = violations.flatMap(({ id, nodes }) => {
		// A mark of a picture has its words as a title, which stands nowhere until it is pointed at.
		const wrong = nodes.filter(
			(node) => id !== 'label-content-name-mismatch' || !node.html.startsWith('<g '),
		);
		const words = wrong.map(
			(node) => `${node.target.join(' ')} ${node.any[0]?.message ?? node.failureSummary}`,
		);
		return wrong.length ? [`${id}: ${words.slice(0, 4).join(' | ')}`] : [];
	});
	assert.deepEqual(found, []);
}

/**
 * Fails when texts lie on one another, stick out of what holds them, the page scrolls sideways, or something on a screen
 * that is touched is smaller than a finger.
 */
export async function tidy(page: Page): Promise<void> {
	const found = await page.evaluate(() => {
		const wrong: string[] = [];
		const shown = (element: Element) => {
			if (
				element.closest(
					'.sr-only, #svelte-announcer, [hidden], [aria-hidden="true"], details:not([open]) > :not(summary)',
				)
			)
				return false;
			return element.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true });
		};
		/** The part of a box that its scrolling and clipping ancestors let be seen. */
		const seen = (element: Element, box: DOMRect): DOMRect | null => {
			let [left, top, right, bottom] = [
				Math.max(0, box.left),
				Math.max(0, box.top),
				Math.min(innerWidth, box.right),
				Math.min(innerHeight, box.bottom),
			];
			for (let up: Element | null = element; up; up = up.parentElement) {
				if (getComputedStyle(up).overflow === 'visible' || up instanceof SVGElement) continue;
				const edge = up.getBoundingClientRect();
				[left, top, right, bottom] = [
					Math.max(left, edge.left),
					Math.max(top, edge.top),
					Math.min(right, edge.right),
					Math.min(bottom, edge.bottom),
				];
			}
			return right - left > 1 && bottom - top > 1 ? new DOMRect(left, top, right - left, bottom - top) : null;
		};
		const texts: { text: string; box: DOMRect; element: Element }[] = [];
		const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
		while (walker.nextNode()) {
			const element = walker.currentNode.parentElement!;
			const text = walker.currentNode.textContent!.trim();
			if (
				!text ||
				['SCRIPT', 'STYLE', 'TITLE', 'OPTION', 'NOSCRIPT'].includes(element.tagName.toUpperCase()) ||
				!shown(element)
			)
				continue;
			const range = document.createRange();
			range.selectNodeContents(walker.currentNode);
			for (const line of range.getClientRects()) {
				const box = seen(element, line);
				if (box) texts.push({ text: text.slice(0, 30), box, element });
			}
		}
		for (const [i, a] of texts.entries())
			for (const b of texts.slice(i + 1)) {
				const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
				const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
				// Lines of text may touch; they may not cover each other.
				if (wide > 2 && high > 5 && !a.element.contains(b.element) && !b.element.contains(a.element))
					wrong.push(`“${a.text}” lies on “${b.text}”`);
			}
		for (const element of document.querySelectorAll(
			'button, a, h1, h2, h3, label, dt, dd, th, td, p, small',
		)) {
			if (
				!shown(element) ||
				getComputedStyle(element).overflow === 'visible' ||
				getComputedStyle(element).textOverflow === 'ellipsis'
			)
				continue;
			if (element.scrollWidth > element.clientWidth + 1)
				wrong.push(`“${element.textContent!.trim().slice(0, 30)}” is clipped`);
		}
		for (const element of document.querySelectorAll('body *'))
			if (
				shown(element) &&
				element.childNodes.length &&
				[...element.childNodes].some((node) => node.nodeType === 3 && node.textContent!.trim()) &&
				parseFloat(getComputedStyle(element).fontSize) < 12
			)
				wrong.push(`“${element.textContent!.trim().slice(0, 30)}” is smaller than 12 px`);
		/** How far beyond an element's box it is met: what lies around it and is not seen. */
		const beyond = (element: Element, side: 'top' | 'right' | 'bottom' | 'left') =>
			Math.max(
				0,
				...['::before', '::after'].map((name) => {
					const around = getComputedStyle(element, name);
					return around.content !== 'none' && around.position === 'absolute'
						? -parseFloat(around[side]) || 0
						: 0;
				}),
			);
		const FINGER = 43.5;
		for (const element of matchMedia('(pointer: coarse)').matches
			? document.querySelectorAll(
					'a[href], button:enabled, input:enabled:not([type=hidden]), select:enabled, textarea:enabled, summary',
				)
			: []) {
			// In a sentence it is as high as its line; a mark in a picture is as large as what it says, and named beside it.
			if (
				!shown(element) ||
				element instanceof SVGElement ||
				element.closest('p, h1, small, .sentence, .bar > button')
			)
				continue;
			const box = element.getBoundingClientRect();
			const label = element.closest('label')?.getBoundingClientRect();
			if (box.width <= 1 && !label) continue;
			const wide = Math.max(
				box.width + beyond(element, 'left') + beyond(element, 'right'),
				label?.width ?? 0,
			);
			const high = Math.max(
				box.height + beyond(element, 'top') + beyond(element, 'bottom'),
				label?.height ?? 0,
			);
			// How wide a bar is says something; so it is only as high.
			if (high < FINGER || (wide < FINGER && !element.closest('.weeks, .block'))) {
				const called = element.getAttribute('aria-label') ?? element.textContent!.trim();
				wrong.push(
					`${element.tagName.toLowerCase()} “${called.slice(0, 30)}” is ${Math.round(wide)} × ${Math.round(high)} px: too small for a finger`,
				);
			}
		}
		if (document.documentElement.scrollWidth > innerWidth)
			wrong.push(`the page is ${document.documentElement.scrollWidth} px wide in a window of ${innerWidth}`);
		return [...new Set(wrong)].slice(0, 12);
	});
	assert.deepEqual(found, []);
}

/** Waits until something is so in a page that it has to be asked for there. */
export async function until<A>(page: Page, asked: (arg: A) => Promise<boolean>, arg: A): Promise<void> {
	const ends = Date.now() + 20_000;
	while (!(await page.evaluate(asked as never, arg as never)))
		assert.ok(Date.now() < ends, 'it never came to be so');
}
