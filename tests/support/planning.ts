import type pg from 'pg';
import type { Locator, Page } from 'playwright-core';

/** What was last said to those who do not see the page. */
export const spoken = (page: Page) => page.getByRole('status').first();
/** The rows of the backlog that are drawn. */
export const rows = (page: Page) => page.getByRole('region', { name: 'Backlog' }).locator('li[data-card]');
/** The number of a card in a list. */
export const numberOf = async (row: Locator) => Number(await row.locator('.number').first().innerText());
/** A person's row in the plan. */
export const track = (page: Page, name: string) =>
	page.getByRole('group', { name: new RegExp(`^${name}: `) });

/** Drags something with the mouse to a point. */
export async function drag(page: Page, from: Locator, to: { x: number; y: number }): Promise<void> {
	await from.hover();
	const box = (await from.boundingBox())!;
	const [x, y] = [box.x + Math.min(60, box.width / 2), box.y + box.height / 2];
	await page.mouse.move(x, y);
	await page.mouse.down();
	await page.mouse.move(x + 12, y + 8, { steps: 3 });
	await page.mouse.move(to.x, to.y, { steps: 8 });
	await page.mouse.up();
}

/** The middle of something, in the window. */
export async function middle(of: Locator): Promise<{ x: number; y: number }> {
	const box = (await of.boundingBox())!;
	return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** A card of the demo's warning service as the tables have it, with its sprint's number and its owners' names. */
export async function cardNumbered(
	db: pg.Pool,
	number: number,
): Promise<{ size: string | null; type: string; sprint: number | null; owners: string[] }> {
	const { rows } = await db.query(
		`select c.size, c.type, s.number as sprint,
			array(select p.name from card_owner o join person p on p.id = o.person_id where o.card_id = c.id order by p.name) as owners
		from card c
		join board b on b.id = c.board_id
		left join sprint s on s.id = c.sprint_id
		where b.key = 'TIDE' and c.number = $1`,
		[number],
	);
	return rows[0];
}
