<script lang="ts">
	import { fsum } from 'd3-array';
	import type { BehindFlow, FlowPage } from '$core/pages/flow';
	import { daysWords } from '../words';
	import { spentWords } from './sentences';

	let { flow, onpick }: { flow: FlowPage; onpick: (title: string, of: BehindFlow, which?: string) => void } =
		$props();

	const rows = $derived.by(() => {
		const all = fsum(flow.columnHours) + flow.blockedHours;
		if (!all) return [];
		const shares = flow.columns.map((column, i) => ({
			name: column.name,
			kind: column.kind as string,
			share: flow.columnHours[i]! / all,
			shown: column.shown,
		}));
		const columns = shares.filter(({ shown }) => shown);
		// The past counts, also where it is not drawn.
		const gone = fsum(shares, ({ shown, share }) => (shown ? 0 : share));
		return [
			...columns,
			{ name: 'Columns taken away or hidden', kind: 'queue', share: gone },
			{ name: 'Blocked anywhere', kind: 'blocked', share: flow.blockedHours / all },
		].filter((row) => row.share >= 0.0005);
	});
</script>

<section>
	<h2>Where the days go <small>share of the time from start to finish</small></h2>
	<p>{spentWords(flow)}</p>
	<dl>
		{#each rows as row (row.name)}
			<dt>{row.name}</dt>
			<dd><i class={row.kind} style:width="{row.share * 78}%"></i> {Math.round(row.share * 100)}%</dd>
		{/each}
	</dl>
	{#if flow.blockedBy.length}
		<h3>What blocked them</h3>
		<ul>
			{#each flow.blockedBy.slice(0, 6) as reason (reason.reason)}
				<li>
					<button
						type="button"
						class="link"
						onclick={() => onpick(`Blocked: ${reason.reason}`, 'reason', reason.reason)}
						>{daysWords(reason.days)}</button
					>
					{reason.reason}
				</li>
			{/each}
		</ul>
	{/if}
</section>

<style>
	h2 {
		font-size: 1.12rem;
	}
	h3 {
		font-size: 1rem;
		margin: 8px 0 2px;
	}
	small {
		font: 400 0.93rem var(--text);
		color: var(--soft);
	}
	p {
		margin: 1px 0 8px;
		color: var(--soft);
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 6px 10px;
	}
	dd {
		display: flex;
		align-items: center;
		gap: 8px;
	}
	i {
		height: 14px;
		border: 1px solid var(--edge);
		background: var(--moss);
	}
	.queue,
	.done {
		background: repeating-linear-gradient(
			45deg,
			light-dark(#b9a983, #8d7b58) 0 3px,
			light-dark(#efe7d3, #352c20) 3px 7px
		);
	}
	.blocked {
		background: var(--hatch-brick);
	}
	li {
		padding: 2px 0;
	}
</style>
